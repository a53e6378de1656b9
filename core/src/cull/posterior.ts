/**
 * What the fish aboard weigh, after all readings and comparisons: a sample of weights, each with a share.
 *
 * Readings make a normal (see `scale/errorModel`). A comparison on the beam says of a difference of two weights that it
 * is over, under or within what the beam can tell. Such factors are first matched by normals (expectation propagation:
 * Minka 2001, Expectation propagation for approximate Bayesian inference), then a fixed low-discrepancy sample of that
 * normal is weighed by what the matched factors leave over (importance sampling), so that the answer is the same every
 * time and tends to the exact one.
 */
import { CholeskyDecomposition, Matrix, inverse } from 'ml-matrix';
import { errorModelOf, type ErrorModel, type ScaleRecord } from '../scale/index.ts';
import { phi, probit } from './probit.ts';
import type { FishId, ScaleId } from '../ids.ts';

/** A fish's weight as a scale showed it. */
export interface MassReading {
  scaleId: ScaleId;
  readG: number;
  atMs: number;
}

/** What is known of a fish besides its readings: by its length, or only that it is a fish. Standard deviation. */
export interface MassGuess {
  meanG: number;
  sigmaG: number;
}

export interface WeighedFish {
  fishId: FishId;
  readings: readonly MassReading[];
  guess: MassGuess;
}

export const BEAM_OUTCOMES = ['left', 'right', 'level'] as const;
/** The side that hangs lower. */
export type BeamOutcome = (typeof BEAM_OUTCOMES)[number];

/** Two fish hung on the balance beam. */
export interface Comparison {
  leftId: FishId;
  rightId: FishId;
  outcome: BeamOutcome;
}

/** What a beam can tell: under `sensitivityG` of difference it stays level, give or take `sigmaG`. */
export interface Beam {
  sensitivityG: number;
  sigmaG: number;
}

/** Shipped assumption: a simple beam answers to a few grams. Common practice, no source; a person can set another. */
export const USUAL_BEAM: Beam = { sensitivityG: 3, sigmaG: 1.5 };

export interface Posterior {
  fishIds: readonly FishId[];
  meanG: readonly number[];
  sigmaG: readonly number[];
  /** Rows are draws, columns fish, g. */
  drawsG: readonly (readonly number[])[];
  /** One a draw, adding to 1. */
  shares: readonly number[];
  /** Of a fair sample of how many the weighted draws are worth (Kish). */
  effectiveDraws: number;
  /** The comparisons that the readings make improbable, each with how probable its outcome was before it. */
  contradictions: { comparison: Comparison; probability: number }[];
}

export interface PosteriorOptions {
  beam: Beam;
  draws: number;
  /**
   * Fish that were let go. Those that hung with one aboard are reckoned along: a fish that stayed because it hung lower
   * weighs more than its reading alone says.
   */
  gone: readonly WeighedFish[];
}

const DRAWS = 2048;
/** An outcome that was less probable than this contradicts the readings. Our own choice. */
const CONTRADICTION = 0.01;
const SWEEPS = 6;

/** How probable each outcome is at a difference of left less right, in the order of `BEAM_OUTCOMES`. */
export function outcomeProbabilities(
  differenceG: number,
  { sensitivityG, sigmaG }: Beam,
): [number, number, number] {
  const left = phi((differenceG - sensitivityG) / sigmaG);
  const right = phi((-differenceG - sensitivityG) / sigmaG);
  return [left, right, Math.max(0, 1 - left - right)];
}

/** How probable one outcome is at a difference of left less right. */
export function outcomeProbability(outcome: BeamOutcome, differenceG: number, beam: Beam): number {
  return outcomeProbabilities(differenceG, beam)[BEAM_OUTCOMES.indexOf(outcome)] ?? 0;
}

interface Normal {
  mean: Matrix;
  covariance: Matrix;
}

/** Weights of all fish by their readings alone. */
function byReadings(fish: readonly WeighedFish[], scales: ReadonlyMap<string, ScaleRecord>): Normal {
  const models = new Map<string, ErrorModel>([...scales].map(([id, record]) => [id, errorModelOf(record)]));
  const observed = fish.flatMap(({ readings }, column) =>
    readings.flatMap((reading) => {
      const model = models.get(reading.scaleId);
      if (!model) throw new RangeError(`scaleId: expected one of the scales, got ${reading.scaleId}`);
      return [{ column, reading, model }];
    }),
  );
  const precision = Matrix.diag(fish.map(({ guess }) => 1 / guess.sigmaG ** 2));
  const pull = Matrix.columnVector(fish.map(({ guess }) => guess.meanG / guess.sigmaG ** 2));
  if (observed.length > 0) {
    const spread = inverse(
      new Matrix(
        observed.map((a, i) =>
          observed.map((b, j) => {
            const shared = a.model === b.model ? a.model.biasCovariance(a.reading, b.reading) : 0;
            return shared + (i === j ? a.model.noiseVariance : 0);
          }),
        ),
      ),
    );
    const design = new Matrix(observed.map(({ column }) => fish.map((_, i) => (i === column ? 1 : 0))));
    const seen = Matrix.columnVector(
      observed.map(({ reading, model }) => reading.readG - model.biasG(reading)),
    );
    const through = design.transpose().mmul(spread);
    precision.add(through.mmul(design));
    pull.add(through.mmul(seen));
  }
  const covariance = inverse(precision);
  return { mean: covariance.mmul(pull), covariance };
}

/** A factor of a difference as a normal: its precision and precision times mean. */
interface Site {
  left: number;
  right: number;
  outcome: BeamOutcome;
  precision: number;
  pull: number;
}

const ROUND = 1e-12;

/** Of the fish let go, the last ones that hung with those aboard are enough: each costs time. */
const MOST_GONE = 6;

function hungWith(
  fish: readonly WeighedFish[],
  gone: readonly WeighedFish[],
  comparisons: readonly Comparison[],
): WeighedFish[] {
  const aboard = new Set(fish.map(({ fishId }) => fishId));
  const partners = new Set(
    comparisons.flatMap(({ leftId, rightId }) => [
      ...(aboard.has(leftId) ? [rightId] : []),
      ...(aboard.has(rightId) ? [leftId] : []),
    ]),
  );
  return gone.filter(({ fishId }) => partners.has(fishId) && !aboard.has(fishId)).slice(-MOST_GONE);
}

/** Weights of the fish aboard by readings and comparisons. The same input gives the same answer. */
export function posteriorOf(
  fish: readonly WeighedFish[],
  scales: ReadonlyMap<string, ScaleRecord>,
  comparisons: readonly Comparison[],
  { beam = USUAL_BEAM, draws = DRAWS, gone = [] }: Partial<PosteriorOptions> = {},
): Posterior {
  const known = [...fish, ...hungWith(fish, gone, comparisons)];
  const fishIds = known.map(({ fishId }) => fishId);
  const prior = byReadings(known, scales);
  const sites = comparisons.flatMap(({ leftId, rightId, outcome }): Site[] => {
    const left = fishIds.indexOf(leftId);
    const right = fishIds.indexOf(rightId);
    // Of a fish that is not reckoned with, a comparison says nothing.
    return left < 0 || right < 0 || left === right ? [] : [{ left, right, outcome, precision: 0, pull: 0 }];
  });
  const contradictions = comparisons.flatMap((comparison) => {
    const left = fishIds.indexOf(comparison.leftId);
    const right = fishIds.indexOf(comparison.rightId);
    if (left < 0 || right < 0 || left === right) return [];
    // Those of fish that are gone can't be weighed again: nobody is told.
    if (Math.max(left, right) >= fish.length) return [];
    const { mean, variance } = differenceOf(prior, left, right);
    const probability = momentsOf(comparison.outcome, mean, variance, beam).mass;
    return probability < CONTRADICTION ? [{ comparison, probability }] : [];
  });
  const matched = match(prior, sites, beam);
  const all = weighDraws(matched, sites, beam, draws);
  const aboard = fish.length;
  return {
    ...all,
    fishIds: fishIds.slice(0, aboard),
    meanG: all.meanG.slice(0, aboard),
    sigmaG: all.sigmaG.slice(0, aboard),
    drawsG: all.drawsG.map((draw) => draw.slice(0, aboard)),
    contradictions,
  };
}

function differenceOf(
  { mean, covariance }: Normal,
  left: number,
  right: number,
): { mean: number; variance: number } {
  return {
    mean: mean.get(left, 0) - mean.get(right, 0),
    variance: Math.max(
      ROUND,
      covariance.get(left, left) + covariance.get(right, right) - 2 * covariance.get(left, right),
    ),
  };
}

const POINTS = 241;
const REACH = 7;

/**
 * Mass, mean and variance of a normal times a factor, by the trapezoidal rule over seven deviations of both: where
 * a comparison contradicts the readings, what is left lies at the factor's edge.
 */
function momentsOf(
  outcome: BeamOutcome,
  mean: number,
  variance: number,
  beam: Beam,
): { mass: number; mean: number; variance: number } {
  const sigma = Math.sqrt(variance);
  const edge = beam.sensitivityG + REACH * beam.sigmaG;
  const from = Math.min(mean - REACH * sigma, -edge);
  const step = (Math.max(mean + REACH * sigma, edge) - from) / (POINTS - 1);
  const points = Array.from({ length: POINTS }, (_, i) => from + i * step);
  const logs = points.map(
    (d) => logOf(outcomeProbability(outcome, d, beam)) - (d - mean) ** 2 / (2 * variance),
  );
  const top = Math.max(...logs);
  const shares = logs.map((log) => Math.exp(log - top));
  const total = shares.reduce((sum, one) => sum + one, 0);
  const at = points.reduce((sum, d, i) => sum + (shares[i] ?? 0) * d, 0) / total;
  const spread = points.reduce((sum, d, i) => sum + (shares[i] ?? 0) * (d - at) ** 2, 0) / total;
  return {
    mass: (Math.exp(top) * total * step) / Math.sqrt(2 * Math.PI * variance),
    mean: at,
    variance: Math.max(spread, 1e-3 * Math.min(variance, beam.sigmaG ** 2)),
  };
}

const logOf = (probability: number): number => Math.log(Math.max(1e-300, probability));

/** Adds a normal factor of a difference to a normal: a rank-one update (Sherman & Morrison 1950). */
function include(
  { mean, covariance }: Normal,
  { left, right }: Site,
  precision: number,
  pull: number,
): Normal {
  const column = covariance.getColumnVector(left).sub(covariance.getColumnVector(right));
  const { mean: difference, variance } = differenceOf({ mean, covariance }, left, right);
  const scale = 1 + precision * variance;
  return {
    mean: Matrix.add(mean, Matrix.mul(column, (pull - precision * difference) / scale)),
    covariance: Matrix.sub(covariance, column.mmul(column.transpose()).mul(precision / scale)),
  };
}

/** The normal that comes nearest; the sites keep their parts of it. */
function match(prior: Normal, sites: readonly Site[], beam: Beam): Normal {
  let matched = prior;
  for (let sweep = 0; sweep < (sites.length === 0 ? 0 : SWEEPS); sweep++) {
    for (const site of sites) {
      const now = differenceOf(matched, site.left, site.right);
      const freePrecision = 1 / now.variance - site.precision;
      // Where others hold the difference tighter than the site's own part, it is left for this sweep.
      if (freePrecision <= ROUND) continue;
      const freePull = now.mean / now.variance - site.pull;
      const free = { mean: freePull / freePrecision, variance: 1 / freePrecision };
      const tilted = momentsOf(site.outcome, free.mean, free.variance, beam);
      const precision = Math.max(0, 1 / tilted.variance - freePrecision);
      const pull = precision === 0 ? 0 : tilted.mean / tilted.variance - freePull;
      matched = include(matched, site, precision - site.precision, pull - site.pull);
      site.precision = precision;
      site.pull = pull;
    }
  }
  return matched;
}

/**
 * Draws of independent standard normals that fill their space evenly: multiples of powers of the root of
 * x^(d+1) = x + 1, which is the golden ratio for one dimension (Roberts 2018, The unreasonable effectiveness of
 * quasirandom sequences), each with its mirror image, so that their means are exactly zero.
 */
function evenNormals(count: number, dimensions: number): readonly (readonly number[])[] {
  const key = `${count} ${dimensions}`;
  const known = EVEN_NORMALS.get(key);
  if (known) return known;
  let root = 1.5;
  for (let i = 0; i < 40; i++) root = (1 + root) ** (1 / (dimensions + 1));
  const steps = Array.from({ length: dimensions }, (_, k) => (1 / root) ** (k + 1) % 1);
  const draws = Array.from({ length: count / 2 }, (_, i) => {
    const one = steps.map((step) => probit(Math.min(1 - EDGE, Math.max(EDGE, (0.5 + step * (i + 1)) % 1))));
    return [one, one.map((z) => -z)];
  }).flat();
  EVEN_NORMALS.set(key, draws);
  return draws;
}

const EDGE = 1e-9;
/** They follow from their count and dimensions alone. */
const EVEN_NORMALS = new Map<string, readonly (readonly number[])[]>();

function weighDraws(
  { mean, covariance }: Normal,
  sites: readonly Site[],
  beam: Beam,
  count: number,
): Omit<Posterior, 'fishIds' | 'contradictions'> {
  const size = mean.rows;
  const rows = new CholeskyDecomposition(symmetric(covariance)).lowerTriangularMatrix.to2DArray();
  const centre = mean.to1DArray();
  const drawsG: number[][] = [];
  const logs: number[] = [];
  for (const z of evenNormals(count, size)) {
    const draw = rows.map((row, i) => {
      let value = centre[i] ?? 0;
      for (let k = 0; k <= i; k++) value += (row[k] ?? 0) * (z[k] ?? 0);
      return value;
    });
    let log = 0;
    for (const { left, right, outcome, precision, pull } of sites) {
      const difference = (draw[left] ?? 0) - (draw[right] ?? 0);
      log += logOf(outcomeProbability(outcome, difference, beam));
      log += (precision * difference ** 2) / 2 - pull * difference;
    }
    drawsG.push(draw);
    logs.push(log);
  }
  const top = Math.max(...logs);
  const raw = logs.map((log) => Math.exp(log - top));
  const total = raw.reduce((sum, one) => sum + one, 0);
  const shares = raw.map((one) => one / total);
  const means = Array.from({ length: size }, (_, i) => weighted(drawsG, shares, (draw) => draw[i] ?? 0));
  return {
    meanG: means,
    sigmaG: means.map((m, i) => Math.sqrt(weighted(drawsG, shares, (draw) => ((draw[i] ?? 0) - m) ** 2))),
    drawsG,
    shares,
    effectiveDraws: 1 / shares.reduce((sum, one) => sum + one * one, 0),
  };
}

const symmetric = (matrix: Matrix): Matrix => Matrix.add(matrix, matrix.transpose()).mul(0.5);

/** Mean of a function over the draws. */
export function weighted(
  draws: readonly (readonly number[])[],
  shares: readonly number[],
  of: (draw: readonly number[]) => number,
): number {
  return draws.reduce((sum, draw, i) => sum + (shares[i] ?? 0) * of(draw), 0);
}
