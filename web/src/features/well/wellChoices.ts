import { USUAL_ACTIVITY } from '@lauta/core/well-water';
import { z } from 'zod';
import { jsonOf, readStored, useStored, writeStored, type Preference } from '../../device/stored.ts';
import { keysOf } from '@lauta/core/keys';

/** What a person says of the own live well; it stays on the device. Litres, °C, metres. */
export interface WellChoices {
  volumeL: number;
  lakeCelsius: number;
  wellCelsius: number;
  altitudeM: number;
  saltPercent: number;
  /** Oxygen that a meter shows now, mg/l; null takes the water for saturated. */
  measuredMgL: number | null;
  pumpLPerHour: number;
  aerationPerHour: number;
  /** Multiples of the resting rate. */
  activityLow: number;
  activityHigh: number;
  ph: number;
  ammoniaMgL: number | null;
  /** When the pump was switched off, ms since 1970; null while it runs. */
  pumpOffAtMs: number | null;
}

export const USUAL_WELL: WellChoices = {
  volumeL: 75.7,
  lakeCelsius: 27,
  wellCelsius: 27,
  altitudeM: 100,
  saltPercent: 0,
  measuredMgL: null,
  pumpLPerHour: 400,
  aerationPerHour: 0.5,
  activityLow: USUAL_ACTIVITY.low,
  activityHigh: USUAL_ACTIVITY.high,
  ph: 7.8,
  ammoniaMgL: null,
  pumpOffAtMs: null,
};

/** Least and most of each; what lies outside is not taken. */
export const BOUNDS: Record<Exclude<keyof WellChoices, 'pumpOffAtMs'>, readonly [number, number]> = {
  volumeL: [5, 2000],
  lakeCelsius: [0, 40],
  wellCelsius: [0, 40],
  altitudeM: [-400, 4500],
  saltPercent: [0, 1],
  measuredMgL: [0, 20],
  pumpLPerHour: [0, 20_000],
  aerationPerHour: [0, 20],
  activityLow: [0.5, 10],
  activityHigh: [0.5, 10],
  ph: [5, 10],
  ammoniaMgL: [0, 20],
};

/** What an older version or another hand left in the store is taken as far as it fits. */
export function parseWell(text: string | null): WellChoices {
  const fields = z.record(z.string(), z.unknown()).catch({}).parse(jsonOf(text));
  const chosen: WellChoices = { ...USUAL_WELL };
  for (const name of keysOf(BOUNDS)) {
    const [least, most] = BOUNDS[name];
    const value = fields[name];
    if (typeof value === 'number' && value >= least && value <= most) chosen[name] = value;
  }
  const off = fields['pumpOffAtMs'];
  return { ...chosen, pumpOffAtMs: typeof off === 'number' && off > 0 ? off : null };
}

const CHOICES: Preference<WellChoices> = { key: 'lauta-well-water', parse: parseWell };

export function changeWell(part: Partial<WellChoices>): void {
  writeStored(CHOICES, { ...readStored(CHOICES), ...part });
}

export function useWellChoices(): WellChoices {
  return useStored(CHOICES);
}
