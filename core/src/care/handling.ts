import type { WaterEvent } from './catchClock.ts';
import type { HookPlace } from './hazards.ts';
import type { WaterConditions } from './limits.ts';
import type { SignSeen, VitalitySign } from './vitality.ts';

/** What a fish may leave with, noted at its release. */
export const LEFT_WITH = ['hook', 'torn-jaw', 'lost-scales', 'hurt-eye', 'dressed-wound'] as const;
export type LeftWith = (typeof LEFT_WITH)[number];

/** How a fish was treated from hook-up to release: what goes into its record. */
export interface Handling extends WaterConditions {
  events: readonly WaterEvent[];
  /** The limit of one lift that held, s. */
  airLimitSeconds: number;
  /** A guess while it pulled. */
  guessedMassG: number | null;
  hookPlace: HookPlace | null;
  bleeds: boolean;
  /** What it left with; absent where nobody told, as in versions before. */
  leftWith?: readonly LeftWith[] | undefined;
  signs: Readonly<Partial<Record<VitalitySign, SignSeen>>>;
}
