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

const KEY = 'lauta-camera';
const USUAL: CameraChoices = { shutter: 'self', opens: null, lensId: null };

/** What is stored, as far as it fits. */
export function parseCameraChoices(text: string | null): CameraChoices {
  try {
    const { shutter, opens, lensId } = (JSON.parse(text ?? '{}') ?? {}) as Record<string, unknown>;
    return {
      shutter: SHUTTERS.find((mode) => mode === shutter) ?? USUAL.shutter,
      opens: opens === 'device' || opens === 'simulated' ? opens : null,
      lensId: typeof lensId === 'string' ? lensId : null,
    };
  } catch {
    return USUAL;
  }
}

export function recallCameraChoices(): CameraChoices {
  return parseCameraChoices(localStorage.getItem(KEY));
}

export function rememberCameraChoices(part: Partial<CameraChoices>): void {
  localStorage.setItem(KEY, JSON.stringify({ ...recallCameraChoices(), ...part }));
}
