import { CholeskyDecomposition, Matrix, inverse } from 'ml-matrix';
import { boardPointOf, projectBoardPoint, turnedBy, type LensPose } from '../camera/lens.ts';
import type { Point } from '../geometry/point.ts';
import type { Pattern, PatternLine } from './pattern.ts';
import { toneAt, type Tones } from './tones.ts';

/** One place of the pattern found in the picture: where it should be, where it is, across which direction. */
interface Sight {
  xMm: number;
  yMm: number;
  /** Unit direction in which the place was measured. */
  nx: number;
  ny: number;
  /** Measured place along that direction, px: n · p. */
  atPx: number;
  sigmaPx: number;
}

/** What is known of the lens beforehand. */
export interface LensPrior {
  focalPx: number;
  /** Standard uncertainty of ln(focal length). */
  focalLogSigma: number;
  k1Sigma: number;
  /** Where k1 is expected; 0 by default. */
  k1?: number;
}

export interface RefinedPose {
  pose: LensPose;
  /** Covariance of the pose's eight parameters: turn (3), zero (3, mm), ln focal, k1. */
  covariance: Matrix;
  /** Share of the looked-for places across lines that were seen. */
  seenShare: number;
  seenCount: number;
  /** Robust root mean square of what is left over, px. */
  residualPx: number;
}

interface Round {
  mostPx: number;
  /** Only lines this far from their neighbours, mm; the finest are added once the rest fits. */
  coarse: boolean;
  /** Only lines between these places along the board, mm. */
  betweenMm?: readonly [number, number];
  /** Steps of the fit; the next round measures anew anyway. */
  mostSteps?: number;
}

const ROUNDS: readonly Round[] = [
  { mostPx: 9, coarse: true },
  { mostPx: 7, coarse: false },
  { mostPx: 4, coarse: false },
  { mostPx: 2.2, coarse: false },
];
/** Never over this share of the distance to the next line, or the far end slips by one. */
const WINDOW_SHARE = 0.42;
const PIECE_MM = 5;
const LEAST_RIDGE = 0.12;
const LINE_SIGMA_PX = 0.2;
const END_SIGMA_PX = 0.5;
const PARAMETERS = 8;

/**
 * Fits pose, focal length and k1 to all visible lines by Levenberg-Marquardt with Cauchy weights: line centres along
 * their normals, and the ends of their spans along the lines.
 */
export function refinePose(
  smooth: Tones,
  start: LensPose,
  pattern: Pattern,
  prior: LensPrior,
  rounds: readonly Round[] = ROUNDS,
): RefinedPose | null {
  let pose = start;
  let fit: { pose: LensPose; normal: Matrix; residualPx: number } | null = null;
  let looked = 0;
  let seen = 0;
  for (const round of rounds) {
    const lines = measureLines(smooth, pose, pattern, round);
    const ends = measureEnds(smooth, pose, pattern, round);
    looked = lines.looked;
    seen = lines.sights.length;
    if (seen < 20) return null;
    fit = levenbergMarquardt(
      pose,
      [...lines.sights, ...ends],
      prior,
      Math.max(0.4, round.mostPx / 5),
      round.mostSteps ?? 12,
    );
    if (!fit) return null;
    pose = fit.pose;
  }
  if (!fit) return null;
  const variance = Math.max(1, (fit.residualPx / LINE_SIGMA_PX) ** 2);
  const covariance = inverseOf(fit.normal);
  if (!covariance) return null;
  return {
    pose,
    covariance: covariance.mul(variance),
    seenShare: looked ? seen / looked : 0,
    seenCount: seen,
    residualPx: fit.residualPx,
  };
}

const GROWTH_START = 0.35;
const GROWTH_STEP = 0.1;

/**
 * Fits from the part of the board that agrees best outwards, so that no end slips to a neighbouring line while the
 * lens is not known yet.
 */
export function refineOutwards(
  smooth: Tones,
  start: LensPose,
  pattern: Pattern,
  prior: LensPrior,
): RefinedPose | null {
  const { sights } = measureLines(smooth, start, pattern, { mostPx: 2.5, coarse: false });
  const held = { ...prior, k1: start.k1, k1Sigma: 0.015 };
  const lengthMm = GROWTH_START * pattern.lengthMm;
  let bestFrom = 0;
  let bestCount = -1;
  for (let from = 0; from <= pattern.lengthMm - lengthMm; from += pattern.lengthMm / 20) {
    const count = sights.filter(
      (sight) => sight.xMm >= from && sight.xMm <= from + lengthMm && Math.abs(offPx(start, sight)) < 1.5,
    ).length;
    if (count > bestCount) [bestFrom, bestCount] = [from, count];
  }
  let pose = start;
  let [from, to] = [bestFrom, bestFrom + lengthMm];
  for (;;) {
    const fitted = refinePose(smooth, pose, pattern, held, [
      { mostPx: 3, coarse: false, betweenMm: [from, to], mostSteps: 3 },
    ]);
    if (fitted) pose = fitted.pose;
    if (from <= 0 && to >= pattern.lengthMm) break;
    from -= GROWTH_STEP * pattern.lengthMm;
    to += GROWTH_STEP * pattern.lengthMm;
  }
  return refinePose(smooth, pose, pattern, prior, [
    { mostPx: 4, coarse: false, mostSteps: 4 },
    { mostPx: 2.2, coarse: false },
  ]);
}

/** Places where the pattern's lines should be seen, and whether they are: for whoever asks what lies on the face. */
export function measureLines(
  smooth: Tones,
  pose: LensPose,
  pattern: Pattern,
  { mostPx, coarse, betweenMm }: Round,
): { sights: Sight[]; looked: number } {
  const sights: Sight[] = [];
  let looked = 0;
  pattern.lines.forEach((line, index) => {
    if (betweenMm && (line.xMm < betweenMm[0] || line.xMm > betweenMm[1])) return;
    for (const [fromMm, toMm] of line.spansMm) {
      const pieces = Math.max(1, Math.floor((toMm - fromMm - 1) / PIECE_MM));
      for (let piece = 0; piece < pieces; piece++) {
        const yMm = fromMm + ((toMm - fromMm) * (piece + 0.5)) / pieces;
        const spacingMm = spacingAt(pattern, index, yMm);
        if (coarse && spacingMm < 1.9 * pattern.stepMm && pattern.kinds.length > 1) continue;
        const sight = lookAcross(smooth, pose, pattern, line, yMm, spacingMm, mostPx);
        if (sight === 'outside') continue;
        looked++;
        if (sight) sights.push(sight);
      }
    }
  });
  return { sights, looked };
}

/** Distance to the nearest neighbour that is drawn at this place across the face, mm. */
function spacingAt({ lines, stepMm, lengthMm }: Pattern, index: number, yMm: number): number {
  const here = lines[index];
  let nearest = lengthMm;
  for (const way of [-1, 1]) {
    for (let i = index + way; i >= 0 && i < lines.length; i += way) {
      const other = lines[i];
      if (!other.spansMm.some(([from, to]) => yMm > from - 2 && yMm < to + 2)) continue;
      nearest = Math.min(nearest, Math.abs(other.xMm - here.xMm));
      break;
    }
  }
  return Math.max(stepMm, nearest);
}

/** Each line is looked at in three places, so far from each other along it. */
const BESIDE_MM = 1.4;
/** Lines are looked at a hundred thousand times a picture: nothing is left behind to collect. */
const PROFILE = new Float64Array(256);

function lookAcross(
  smooth: Tones,
  pose: LensPose,
  pattern: Pattern,
  line: PatternLine,
  yMm: number,
  spacingMm: number,
  mostPx: number,
): Sight | 'outside' | null {
  const p = projectBoardPoint(pose, line.xMm, yMm);
  const margin = 3;
  if (p[0] < margin || p[1] < margin || p[0] > smooth.widthPx - margin || p[1] > smooth.heightPx - margin)
    return 'outside';
  const below = projectBoardPoint(pose, line.xMm, yMm + 1);
  const beside = projectBoardPoint(pose, line.xMm + 1, yMm);
  const [bx, by] = [below[0] - p[0], below[1] - p[1]];
  const size = Math.hypot(bx, by);
  let nx = by / size;
  let ny = -bx / size;
  let pxPerMm = (beside[0] - p[0]) * nx + (beside[1] - p[1]) * ny;
  if (pxPerMm < 0) [nx, ny, pxPerMm] = [-nx, -ny, -pxPerMm];
  const windowPx = Math.min(mostPx, WINDOW_SHARE * spacingMm * pxPerMm);
  if (windowPx < 0.8) return 'outside';
  const reach = Math.max(1.5, 0.5 * line.strokeMm * pxPerMm + 1);
  const stride = 0.5;
  const half = Math.ceil(windowPx / stride);
  const flank = Math.round(reach / stride);
  const count = 2 * (half + flank) + 1;
  const profile = count <= PROFILE.length ? PROFILE : new Float64Array(count);
  const [px, py] = p;
  for (let i = 0; i < count; i++) {
    const s = (i - half - flank) * stride;
    const [x, y] = [px + nx * s, py + ny * s];
    profile[i] =
      (toneAt(smooth, x - BESIDE_MM * bx, y - BESIDE_MM * by) +
        toneAt(smooth, x, y) +
        toneAt(smooth, x + BESIDE_MM * bx, y + BESIDE_MM * by)) /
      3;
  }
  const sign = pattern.inkDarker ? 1 : -1;
  const ridgeAt = (i: number): number => sign * (profile[i - flank] + profile[i + flank] - 2 * profile[i]);
  let best = -1;
  let bestRidge = LEAST_RIDGE;
  for (let i = flank; i < count - flank; i++) {
    const ridge = ridgeAt(i);
    if (ridge > bestRidge) [best, bestRidge] = [i, ridge];
  }
  if (best <= flank || best >= count - flank - 1) return null;
  const left = sign * (profile[best - flank] - profile[best]);
  const right = sign * (profile[best + flank] - profile[best]);
  // A step (an edge of fish or shadow) is no line.
  if (Math.min(left, right) < 0.3 * Math.max(left, right)) return null;
  const before = ridgeAt(best - 1);
  const after = ridgeAt(best + 1);
  const curve = before - 2 * bestRidge + after;
  const offset = curve < 0 ? Math.max(-1, Math.min(1, (0.5 * (before - after)) / curve)) : 0;
  const s = (best - half - flank + offset) * stride;
  return { xMm: line.xMm, yMm, nx, ny, atPx: p[0] * nx + p[1] * ny + s, sigmaPx: LINE_SIGMA_PX };
}

/** Ends of spans: along a line its contrast falls from ink to none; half of it is the end. */
function measureEnds(smooth: Tones, pose: LensPose, pattern: Pattern, { mostPx, betweenMm }: Round): Sight[] {
  const sights: Sight[] = [];
  for (const line of pattern.lines) {
    if (betweenMm && (line.xMm < betweenMm[0] || line.xMm > betweenMm[1])) continue;
    for (const [fromMm, toMm] of line.spansMm) {
      for (const [endMm, outwards] of [
        [fromMm, -1],
        [toMm, 1],
      ] as const) {
        const sight = lookAlong(smooth, pose, pattern, line, endMm, outwards, mostPx, toMm - fromMm);
        if (sight) sights.push(sight);
      }
    }
  }
  return sights;
}

function lookAlong(
  smooth: Tones,
  pose: LensPose,
  pattern: Pattern,
  line: PatternLine,
  endMm: number,
  outwards: -1 | 1,
  mostPx: number,
  spanMm: number,
): Sight | null {
  const p = projectBoardPoint(pose, line.xMm, endMm);
  const margin = 4;
  if (p[0] < margin || p[1] < margin || p[0] > smooth.widthPx - margin || p[1] > smooth.heightPx - margin)
    return null;
  const inner = projectBoardPoint(pose, line.xMm, endMm - outwards);
  const [ux, uy] = [p[0] - inner[0], p[1] - inner[1]];
  const size = Math.hypot(ux, uy);
  const [dx, dy] = [ux / size, uy / size];
  const beside = projectBoardPoint(pose, line.xMm + 1, endMm);
  const acrossPx = Math.abs((beside[0] - p[0]) * -dy + (beside[1] - p[1]) * dx);
  const windowPx = Math.max(2, Math.min(1.6 * mostPx, 0.45 * spanMm * size));
  const reach = Math.max(2, 0.5 * line.strokeMm * acrossPx + 1.2);
  const sign = pattern.inkDarker ? 1 : -1;
  const half = Math.ceil(windowPx);
  // Contrast of ink against both sides; a smaller one counts, so that the edge of something else is no ink.
  const contrast = (s: number): number => {
    const x = p[0] + dx * s;
    const y = p[1] + dy * s;
    const middle = toneAt(smooth, x, y);
    const a = sign * (toneAt(smooth, x - dy * reach, y + dx * reach) - middle);
    const b = sign * (toneAt(smooth, x + dy * reach, y - dx * reach) - middle);
    return Math.min(a, b);
  };
  const values: number[] = [];
  for (let s = -half - 3; s <= half + 3; s++) values.push(contrast(s));
  const plateau = (values[0] + values[1] + values[2]) / 3;
  const beyond = (values[values.length - 1] + values[values.length - 2] + values[values.length - 3]) / 3;
  if (plateau < LEAST_RIDGE || beyond > 0.35 * plateau) return null;
  const level = 0.5 * (plateau + Math.max(0, beyond));
  for (let i = 2; i + 1 < values.length; i++) {
    const here = values[i];
    const next = values[i + 1];
    if (here < level || next >= level) continue;
    const s = i - half - 3 + (here - level) / (here - next);
    if (Math.abs(s) > windowPx) return null;
    return {
      xMm: line.xMm,
      yMm: endMm,
      nx: dx,
      ny: dy,
      atPx: p[0] * dx + p[1] * dy + s,
      sigmaPx: END_SIGMA_PX,
    };
  }
  return null;
}

function moved(pose: LensPose, step: readonly number[]): LensPose {
  const [wx = 0, wy = 0, wz = 0, tx = 0, ty = 0, tz = 0, logFocal = 0, k1 = 0] = step;
  return {
    rotation: turnedBy(pose.rotation, [wx, wy, wz]),
    zeroMm: [pose.zeroMm[0] + tx, pose.zeroMm[1] + ty, pose.zeroMm[2] + tz],
    focalPx: pose.focalPx * Math.exp(logFocal),
    k1: pose.k1 + k1,
    centrePx: pose.centrePx,
  };
}

const PROBE = [1e-5, 1e-5, 1e-5, 1e-2, 1e-2, 1e-2, 1e-5, 1e-5];

function levenbergMarquardt(
  start: LensPose,
  sights: readonly Sight[],
  prior: LensPrior,
  cauchyPx: number,
  mostSteps: number,
): { pose: LensPose; normal: Matrix; residualPx: number } | null {
  let pose = start;
  let damping = 1e-4;
  let cost = costOf(pose, sights, prior, cauchyPx);
  for (let iteration = 0; iteration < mostSteps; iteration++) {
    const { normal, gradient } = equations(pose, sights, prior, cauchyPx);
    let improved = false;
    for (let attempt = 0; attempt < 6; attempt++) {
      const damped = normal.clone();
      for (let i = 0; i < PARAMETERS; i++) damped.set(i, i, normal.get(i, i) * (1 + damping));
      const solver = new CholeskyDecomposition(damped);
      if (!solver.isPositiveDefinite()) return null;
      const candidate = moved(pose, solver.solve(gradient).getColumn(0));
      const candidateCost = costOf(candidate, sights, prior, cauchyPx);
      if (candidateCost < cost) {
        const gain = (cost - candidateCost) / cost;
        [pose, cost] = [candidate, candidateCost];
        damping = Math.max(1e-9, damping / 5);
        improved = gain > 1e-5;
        break;
      }
      damping *= 8;
    }
    if (!improved) break;
  }
  const { normal } = equations(pose, sights, prior, cauchyPx);
  let squares = 0;
  let weights = 0;
  for (const sight of sights) {
    if (sight.sigmaPx !== LINE_SIGMA_PX) continue;
    const off = offPx(pose, sight);
    const weight = 1 / (1 + (off / cauchyPx) ** 2);
    squares += weight * off * off;
    weights += weight;
  }
  return { pose, normal, residualPx: Math.sqrt(squares / Math.max(1, weights)) };
}

function offPx(pose: LensPose, sight: Sight): number {
  return sight.atPx - alongPx(pose, sight);
}

function costOf(pose: LensPose, sights: readonly Sight[], prior: LensPrior, cauchyPx: number): number {
  let cost = 0;
  for (const sight of sights) {
    const off = offPx(pose, sight);
    const c = cauchyPx * (sight.sigmaPx / LINE_SIGMA_PX);
    cost += ((c * c) / (sight.sigmaPx * sight.sigmaPx)) * Math.log1p((off * off) / (c * c));
  }
  return (
    cost +
    (Math.log(pose.focalPx / prior.focalPx) / prior.focalLogSigma) ** 2 +
    ((pose.k1 - (prior.k1 ?? 0)) / prior.k1Sigma) ** 2
  );
}

function equations(
  pose: LensPose,
  sights: readonly Sight[],
  prior: LensPrior,
  cauchyPx: number,
): { normal: Matrix; gradient: Matrix } {
  const normal = new Float64Array(PARAMETERS * PARAMETERS);
  const gradient = new Float64Array(PARAMETERS);
  const probes = PROBE.map((size, i) =>
    moved(
      pose,
      PROBE.map((_, j) => (i === j ? size : 0)),
    ),
  );
  const row = new Float64Array(PARAMETERS);
  for (const sight of sights) {
    const here = alongPx(pose, sight);
    const off = sight.atPx - here;
    const c = cauchyPx * (sight.sigmaPx / LINE_SIGMA_PX);
    const weight = 1 / (1 + (off / c) ** 2) / (sight.sigmaPx * sight.sigmaPx);
    for (let i = 0; i < PARAMETERS; i++) row[i] = (alongPx(probes[i], sight) - here) / PROBE[i];
    for (let i = 0; i < PARAMETERS; i++) {
      const wi = weight * row[i];
      gradient[i] = gradient[i] + wi * off;
      for (let j = i; j < PARAMETERS; j++)
        normal[i * PARAMETERS + j] = normal[i * PARAMETERS + j] + wi * row[j];
    }
  }
  for (let i = 0; i < PARAMETERS; i++)
    for (let j = 0; j < i; j++) normal[i * PARAMETERS + j] = normal[j * PARAMETERS + i];
  const priors: readonly [number, number, number][] = [
    [6, Math.log(prior.focalPx / pose.focalPx), prior.focalLogSigma],
    [7, (prior.k1 ?? 0) - pose.k1, prior.k1Sigma],
  ];
  for (const [i, off, sigma] of priors) {
    normal[i * PARAMETERS + i] = normal[i * PARAMETERS + i] + 1 / (sigma * sigma);
    gradient[i] = gradient[i] + off / (sigma * sigma);
  }
  return {
    normal: Matrix.from1DArray(PARAMETERS, PARAMETERS, normal),
    gradient: Matrix.columnVector(gradient),
  };
}

/** Where a sight's place of the board falls along its direction, px: n · p, without a pair for each of millions. */
function alongPx({ rotation: r, zeroMm: t, focalPx, k1, centrePx }: LensPose, sight: Sight): number {
  const { xMm, yMm } = sight;
  const w = r[6] * xMm + r[7] * yMm + t[2];
  const u = (r[0] * xMm + r[1] * yMm + t[0]) / w;
  const v = (r[3] * xMm + r[4] * yMm + t[1]) / w;
  const bend = focalPx * (1 + k1 * (u * u + v * v));
  return (centrePx[0] + bend * u) * sight.nx + (centrePx[1] + bend * v) * sight.ny;
}

/** What the fit's own doubt does to a place along the board, mm (GUM, JCGM 100:2008, 5.2.2: correlated inputs). */
export function fitSigmaMm(
  { pose, covariance }: RefinedPose,
  at: Point,
): { boardMm: number; distortionMm: number } {
  const here = boardPointOf(pose, at[0], at[1])[0];
  const slopes = PROBE.map((size, i) => {
    const probe = moved(
      pose,
      PROBE.map((_, j) => (i === j ? size : 0)),
    );
    return (boardPointOf(probe, at[0], at[1])[0] - here) / size;
  });
  let variance = 0;
  for (let i = 0; i < PARAMETERS; i++)
    for (let j = 0; j < PARAMETERS; j++) variance += slopes[i] * slopes[j] * covariance.get(i, j);
  // The part of the distortion that the other parameters don't take up: its variance given them.
  const precision = inverse(covariance).get(7, 7);
  const distortion = Math.min(variance, slopes[7] ** 2 / precision);
  return { boardMm: Math.sqrt(Math.max(0, variance - distortion)), distortionMm: Math.sqrt(distortion) };
}

function inverseOf(normal: Matrix): Matrix | null {
  const solver = new CholeskyDecomposition(normal);
  return solver.isPositiveDefinite() ? solver.solve(Matrix.eye(PARAMETERS)) : null;
}
