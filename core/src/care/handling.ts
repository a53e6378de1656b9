import type { WaterEvent } from './catchClock.ts';
import type { HookPlace } from './hazards.ts';
import type { WaterConditions } from './limits.ts';
import type { SignSeen, VitalitySign } from './vitality.ts';

/** How a fish was treated from hook-up to release: what goes into its record. */
export interface Handling extends WaterConditions {
  events: readonly WaterEvent[];
  /** The limit of one lift that held, s. */
  airLimitSeconds: number;
  /** A guess while it pulled. */
  guessedMassG: number | null;
  hookPlace: HookPlace | null;
  bleeds: boolean;
  signs: Readonly<Partial<Record<VitalitySign, SignSeen>>>;
}
