import type { Point } from './point.ts';

/** The checks that a computer answers; ids are stable. */
export const BENCH_CHECKS = [
  'nose-gap',
  'mouth-open',
  'head-cropped',
  'tail-cropped',
  'tail-curled',
  'tail-held',
  'identifier-missing',
  'identifier-cropped',
  'identifier-wrong',
  'identifier-glare',
  'identifier-over-reading',
  'facing-right',
  'dorsal-near',
  'eye-covered',
  'hand-in-gills',
  'grip-in-photo',
  'contact-hidden',
  'more-fish',
  'screen-photo',
  'steep-camera',
  'unsharp',
  'wrong-board',
] as const;
export type BenchCheck = (typeof BENCH_CHECKS)[number];

export const VERDICTS = ['clear', 'look', 'fault'] as const;
export type FindingVerdict = (typeof VERDICTS)[number];

/** What was measured for a check. */
export interface FindingMeasure {
  value: number;
  unit: 'mm' | 'deg' | 'share';
}

/** What the bench says of one check. It informs; people decide. */
export interface Finding {
  check: BenchCheck;
  verdict: FindingVerdict;
  /** How sure the verdict is, 0 to 1. */
  confidence: number;
  why: string;
  /** Where to look, px of the upright picture. */
  place: Point | null;
  measure?: FindingMeasure;
}

/** A finding whose place matters only when there is something to look at. */
export function findingOf(
  check: BenchCheck,
  verdict: FindingVerdict,
  confidence: number,
  why: string,
  place: Point | null = null,
  measure?: FindingMeasure,
): Finding {
  return {
    check,
    verdict,
    confidence,
    why,
    place: verdict === 'clear' ? null : place,
    ...(measure ? { measure } : {}),
  };
}
