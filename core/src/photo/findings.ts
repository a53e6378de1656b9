import type { Point } from './point.ts';

/** The checks that are made of geometry and of the board; ids are stable. */
export const BENCH_CHECKS = [
  'head-cropped',
  'tail-cropped',
  'steep-camera',
  'unsharp',
  'wrong-board',
  'facing-right',
] as const;
export type BenchCheck = (typeof BENCH_CHECKS)[number];

export const VERDICTS = ['clear', 'look', 'fault'] as const;
export type FindingVerdict = (typeof VERDICTS)[number];

/** What the bench says of one check. It informs; people decide. */
export interface Finding {
  check: BenchCheck;
  verdict: FindingVerdict;
  /** How sure the verdict is, 0 to 1. */
  confidence: number;
  why: string;
  /** Where to look, px of the upright picture. */
  place: Point | null;
}
