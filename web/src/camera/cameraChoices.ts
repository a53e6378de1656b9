import { z } from 'zod';
import { jsonOf, readStored, writeStored, type Preference } from '../device/stored.ts';

/** How the shutter is worked: by itself, by the thumb, or after so many seconds. */
export const SHUTTERS = ['self', 'hand', '3', '10', '15'] as const;
export type ShutterMode = (typeof SHUTTERS)[number];

export const SHUTTER_WORDS: Record<ShutterMode, string> = {
  self: 'by itself',
  hand: 'thumb',
  '3': '3 s',
  '10': '10 s',
  '15': '15 s',
};

export interface CameraChoices {
  shutter: ShutterMode;
  /** Which camera was opened last; it opens by itself with the next fish. */
  opens: 'device' | 'simulated' | null;
  lensId: string | null;
}

const USUAL: CameraChoices = { shutter: 'self', opens: null, lensId: null };

const choicesSchema = z.object({
  shutter: z.enum(SHUTTERS).catch(USUAL.shutter),
  opens: z.enum(['device', 'simulated']).nullable().catch(USUAL.opens),
  lensId: z.string().nullable().catch(USUAL.lensId),
});

/** What is stored, as far as it fits. */
export function parseCameraChoices(text: string | null): CameraChoices {
  return choicesSchema.catch(USUAL).parse(jsonOf(text));
}

const CHOICES: Preference<CameraChoices> = { key: 'lauta-camera', parse: parseCameraChoices };

export function recallCameraChoices(): CameraChoices {
  return readStored(CHOICES);
}

export function rememberCameraChoices(part: Partial<CameraChoices>): void {
  writeStored(CHOICES, { ...recallCameraChoices(), ...part });
}
