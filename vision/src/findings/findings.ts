import type { Finding as CheckFinding, Tone } from '@lauta/core/evidence';
import { INFRACTIONS, type Infraction } from '@lauta/core/rules';
import type { Point } from '../geometry/point.ts';
import type { BenchReason, BenchReasons } from './reasons.ts';

export type { BenchReason, BenchReasons };

/** What only a person can tell from a photograph. */
const FOR_PEOPLE = ['cord-in-gills', 'craft-missing'] as const;
export type BenchCheck = Exclude<Infraction, (typeof FOR_PEOPLE)[number]>;

/** The checks that a computer answers, out of the catalogue of infractions. */
export const BENCH_CHECKS = INFRACTIONS.filter(
  (infraction): infraction is BenchCheck => !FOR_PEOPLE.some((one) => one === infraction),
);

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

/** The same findings with a look for every check that could not be asked. */
export function withUnanswered(findings: readonly Finding[], reason: BenchReason): Finding[] {
  const missing = BENCH_CHECKS.filter((check) => !findings.some((finding) => finding.check === check));
  return [
    ...findings,
    ...missing.map((check): Finding => ({ ...findingOf(check, 'look', 0.3, reason), isUnanswered: true })),
  ];
}
