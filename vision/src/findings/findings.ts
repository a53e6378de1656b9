import type { Finding as CheckFinding, Tone } from '@lauta/core/evidence';
import type { Infraction } from '@lauta/core/rules';
import type { Point } from '../geometry/point.ts';
import type { BenchReason, BenchReasons } from './reasons.ts';

export type { BenchReason, BenchReasons };

/** What a computer answers; the others only a person can tell from a photograph. */
export type BenchCheck = Exclude<Infraction, 'cord-in-gills' | 'craft-missing'>;

/** What was measured for a check. */
export interface FindingMeasure {
  value: number;
  unit: 'mm' | 'deg' | 'share';
}

/** What the bench says of one check. It informs; people decide. */
export interface Finding extends CheckFinding<BenchCheck, BenchReasons> {
  /** Where to look, px of the upright picture. */
  place: Point | null;
  measure?: FindingMeasure;
  /** The bench could not ask this at all: a person has to look. */
  isUnanswered?: true;
}

/** A finding whose place matters only when there is something to look at. */
export function findingOf(
  check: BenchCheck,
  tone: Tone,
  confidence: number,
  reason: BenchReason,
  place: Point | null = null,
  measure?: FindingMeasure,
): Finding {
  return {
    check,
    tone,
    confidence,
    reason,
    place: tone === 'clear' ? null : place,
    ...(measure ? { measure } : {}),
  };
}
