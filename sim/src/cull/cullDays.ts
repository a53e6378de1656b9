import { simulateDay, type DayOutcome } from './simulateDay.ts';
import type { ScaleQuality } from '@lauta/core/scale';

export interface CullOrder {
  quality: ScaleQuality;
  seeds: number[];
}

/** Simulates days, on a thread of its own. */
export function cullDays({ quality, seeds }: CullOrder): DayOutcome[] {
  return seeds.map((seed) => simulateDay(quality, seed));
}
