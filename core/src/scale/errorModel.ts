/**
 * What a hanging scale shows of a weight: reading = gain · weight + zero + noise, shown in whole divisions.
 * Gain and zero are uncertain and the zero wanders; checks with a known weight narrow both. All is normal, so that
 * what checks say of later readings is plain conditioning (Gaussian process regression).
 */
import { Matrix, inverse } from 'ml-matrix';

/** What is known of a kind of scale before anybody checks it. Standard deviations. */
export interface ScaleKind {
  divisionG: number;
  capacityG: number;
  /** Of one reading of the same weight, the division's own rounding left out. */
  repeatabilityG: number;
  /** Of the gain about 1. */
  gainSigma: number;
  zeroSigmaG: number;
  /** How far the zero wanders in an hour, as a random walk. */
  driftGPerRootHour: number;
}

/** A weight put on the scale to see what it shows; an empty hook is a weight of zero. */
export interface ScaleCheck {
  atMs: number;
  trueG: number;
  readG: number;
}

/** The same thing weighed several times, each time lifted off. */
export type Repeat = readonly number[];

export interface ScaleRecord {
  kind: ScaleKind;
  checks: readonly ScaleCheck[];
  repeats: readonly Repeat[];
}

export interface Shown {
  readG: number;
  atMs: number;
}

export interface ErrorModel {
  /** What to take off a reading, g. */
  biasG(shown: Shown): number;
  /** How two readings' biases vary together, g². */
  biasCovariance(a: Shown, b: Shown): number;
  /** Of one reading's own scatter with its rounding, g². */
  noiseVariance: number;
}

const MS_PER_HOUR = 3_600_000;
/**
 * How many repeats the maker's figure is worth. Our own choice: a deviation of three readings is itself uncertain by half,
 * one of ten by a quarter (GUM, table E.1).
 */
const PRIOR_REPEATS = 12;

/** A rectangular digit d has a standard uncertainty of d/√12 (GUM, F.2.2.1). */
export const roundingVariance = (divisionG: number): number => divisionG ** 2 / 12;

/**
 * How far readings of one weight scatter, g², by what is known of the kind and the repeats that were weighed: both
 * pooled by their degrees of freedom. Shown repeats carry their rounding already.
 */
export function noiseVarianceOf({ kind, repeats }: Pick<ScaleRecord, 'kind' | 'repeats'>): number {
  const prior = kind.repeatabilityG ** 2 + roundingVariance(kind.divisionG);
  let squares = PRIOR_REPEATS * prior;
  let freedom = PRIOR_REPEATS;
  for (const readings of repeats) {
    if (readings.length < 2) continue;
    const mean = readings.reduce((sum, one) => sum + one, 0) / readings.length;
    squares += readings.reduce((sum, one) => sum + (one - mean) ** 2, 0);
    freedom += readings.length - 1;
  }
  return squares / freedom;
}

/** What a scale's readings are off by, after its checks. */
export function errorModelOf(record: ScaleRecord): ErrorModel {
  const { kind, checks } = record;
  const noiseVariance = noiseVarianceOf(record);
  const fromMs = Math.min(...checks.map(({ atMs }) => atMs), Infinity);
  const walked = (atMs: number): number =>
    Number.isFinite(fromMs) ? (Math.max(0, atMs - fromMs) / MS_PER_HOUR) * kind.driftGPerRootHour ** 2 : 0;
  // The gain's part goes by the weight; what is shown stands for it, which is right to the second order.
  const prior = (a: Shown, b: Shown): number =>
    kind.gainSigma ** 2 * a.readG * b.readG + kind.zeroSigmaG ** 2 + Math.min(walked(a.atMs), walked(b.atMs));
  if (checks.length === 0) return { biasG: () => 0, biasCovariance: prior, noiseVariance };
  const points = checks.map(({ trueG, atMs }): Shown => ({ readG: trueG, atMs }));
  const precision = inverse(
    new Matrix(points.map((a, i) => points.map((b, j) => prior(a, b) + (i === j ? noiseVariance : 0)))),
  );
  const seen = Matrix.columnVector(checks.map(({ readG, trueG }) => readG - trueG));
  const weights = precision.mmul(seen).to1DArray();
  const against = (shown: Shown): number[] => points.map((point) => prior(shown, point));
  const dot = (a: readonly number[], b: readonly number[]): number =>
    a.reduce((sum, one, i) => sum + one * (b[i] ?? 0), 0);
  return {
    biasG: (shown) => dot(against(shown), weights),
    biasCovariance: (a, b) =>
      prior(a, b) - dot(against(a), precision.mmul(Matrix.columnVector(against(b))).to1DArray()),
    noiseVariance,
  };
}
