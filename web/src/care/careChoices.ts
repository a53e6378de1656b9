import type { WaterConditions } from '@lauta/core/care';
import { readStored, useStored, writeStored } from '../device/stored.ts';

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
  speech: 'Steps and verdicts spoken aloud, where the device has a voice',
  advice: 'Lines of advice under the clock',
};

const KEY = 'lauta-care';
const USUAL: CareChoices = {
  schools: {},
  hints: { tone: true, vibration: true, speech: false, advice: true },
  waterCelsius: null,
  airCelsius: null,
};

/** What an older version or another hand left in the store is taken as far as it fits. */
export function parseCareChoices(text: string | null): CareChoices {
  let stored: unknown;
  try {
    stored = JSON.parse(text ?? '{}');
  } catch {
    return USUAL;
  }
  if (typeof stored !== 'object' || stored === null) return USUAL;
  const fields = stored as Record<string, unknown>;
  const celsius = (value: unknown): number | null =>
    typeof value === 'number' && value >= -40 && value <= 60 ? value : null;
  const entries = (value: unknown): [string, unknown][] =>
    typeof value === 'object' && value !== null ? Object.entries(value) : [];
  return {
    schools: Object.fromEntries(
      entries(fields['schools']).filter((one): one is [string, string] => typeof one[1] === 'string'),
    ),
    hints: {
      ...USUAL.hints,
      ...Object.fromEntries(
        entries(fields['hints']).filter(
          ([kind, isOn]) => (HINT_KINDS as readonly string[]).includes(kind) && typeof isOn === 'boolean',
        ),
      ),
    },
    waterCelsius: celsius(fields['waterCelsius']),
    airCelsius: celsius(fields['airCelsius']),
  };
}

export function changeCareChoices(part: Partial<CareChoices>): void {
  writeStored(KEY, { ...readStored(KEY, parseCareChoices), ...part });
}

export function useCareChoices(): CareChoices {
  return useStored(KEY, parseCareChoices);
}
