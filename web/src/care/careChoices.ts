import type { WaterConditions } from '@lauta/core/care';
import { jsonOf, readStored, useStored, writeStored, type Preference } from '../device/stored.ts';
import { z } from 'zod';

/** What a person has chosen for the own work on the water; it stays on the device. */
export interface CareChoices extends WaterConditions {
  /** Sides by the ids of the schools. */
  schools: Readonly<Record<string, string>>;
  /** Kinds of hint that are on. */
  hints: Readonly<Record<HintKind, boolean>>;
}

export const HINT_KINDS = ['tone', 'vibration', 'speech', 'advice'] as const;
export type HintKind = (typeof HINT_KINDS)[number];

export const HINT_WORDS: Record<HintKind, string> = {
  tone: 'A tone when the time runs short and when it is over',
  vibration: 'Vibration at the same moments, where the device can',
  speech: 'Steps and how the air time went, spoken aloud, where the device has a voice',
  advice: 'Lines of advice under the clock',
};

const USUAL: CareChoices = {
  schools: {},
  hints: { tone: true, vibration: true, speech: false, advice: true },
  waterCelsius: null,
  airCelsius: null,
};

const celsius = z.number().min(-40).max(60).nullable().catch(null);
const choicesSchema = z.object({
  schools: z
    .record(z.string(), z.unknown())
    .catch({})
    .transform((all) =>
      Object.fromEntries(
        Object.entries(all).filter((one): one is [string, string] => typeof one[1] === 'string'),
      ),
    ),
  hints: z
    .object({
      tone: z.boolean().catch(USUAL.hints.tone),
      vibration: z.boolean().catch(USUAL.hints.vibration),
      speech: z.boolean().catch(USUAL.hints.speech),
      advice: z.boolean().catch(USUAL.hints.advice),
    })
    .catch(USUAL.hints),
  waterCelsius: celsius,
  airCelsius: celsius,
});

/** What an older version or another hand left in the store is taken as far as it fits. */
export function parseCareChoices(text: string | null): CareChoices {
  return choicesSchema.catch(USUAL).parse(jsonOf(text));
}

const CHOICES: Preference<CareChoices> = { key: 'lauta-care', parse: parseCareChoices };

export function changeCareChoices(part: Partial<CareChoices>): void {
  writeStored(CHOICES, { ...readStored(CHOICES), ...part });
}

export function useCareChoices(): CareChoices {
  return useStored(CHOICES);
}
