import { EigenvalueDecomposition, Matrix } from 'ml-matrix';
import { undistortPx, type Rotation } from '../camera/lens.ts';
import type { Point } from '../geometry/point.ts';
import { cross, dot, times, unit, type Vector } from '../geometry/vector.ts';
import type { Stroke } from './strokes.ts';

/** Whole and fractional dice handed in, so that the same picture gives the same reading. */
export type Dice = () => number;

/** What is assumed of the lens while a plane is looked for. */
export interface LensGuess {
  focalPx: number;
  k1: number;
  centrePx: Point;
}

/** A plane that carries parallel marks, at a height that is not known yet. */
export interface MarkedPlane {
  lens: LensGuess;
  rotation: Rotation;
  /** The marks' places along (u) and across (v0 to v1) in units of the camera's height over the plane. */
  marks: PlaneMark[];
}

export interface PlaneMark {
  u: number;
  v0: number;
  v1: number;
  weight: number;
}

/** Strokes that meet in one vanishing point, and straight rows of their ends. */
export interface ParallelStrokes {
  strokes: readonly Stroke[];
  direction: Vector;
  /** For each rail the strokes that end on it (by index), and with which end. */
  rails: readonly { ends: readonly number[]; upper: boolean }[];
}

const STEEPEST_SIN = Math.sin((52 * Math.PI) / 180);
const STEEPEST_COS = Math.cos((52 * Math.PI) / 180);
/** A mark's end may lie this far off the line from its middle to the vanishing point, px. */
const END_OFF_PX = 0.8;
const RAIL_OFF_PX = 1.6;
/** While the lens's distortion is not known, a rail may bow by so much, px. */
const RAIL_BOW_PX = 5;
const TRIES = 500;
/** A longer mark counts no more than one of this length. */
const MOST_WORTH_PX = 60;
const RAIL_TRIES = 400;
const MOST_MARKS = 1000;
const RAILS_KEPT = 4;

/** Strokes in normalised, undistorted coordinates: both ends, the line's unit normal, the length in px. */
class Marks {
  readonly count: number;
  readonly x0: Float64Array;
  readonly y0: Float64Array;
  readonly x1: Float64Array;
  readonly y1: Float64Array;
  readonly lengthPx: Float64Array;

  constructor(strokes: readonly Stroke[], lens: LensGuess) {
    this.count = strokes.length;
    this.x0 = new Float64Array(this.count);
    this.y0 = new Float64Array(this.count);
    this.x1 = new Float64Array(this.count);
    this.y1 = new Float64Array(this.count);
    this.lengthPx = new Float64Array(this.count);
    strokes.forEach((stroke, i) => {
      [this.x0[i], this.y0[i]] = undistortPx(lens, stroke.x0, stroke.y0);
      [this.x1[i], this.y1[i]] = undistortPx(lens, stroke.x1, stroke.y1);
      this.lengthPx[i] = stroke.lengthPx;
    });
  }

  normal(i: number): Vector {
    const [x0, y0, x1, y1] = this.at(i);
    return unit([y0 - y1, x1 - x0, x0 * y1 - x1 * y0]);
  }

  at(i: number): [number, number, number, number] {
    return [this.x0[i], this.y0[i], this.x1[i], this.y1[i]];
  }

  /** Each mark's middle, and the way from there to its upper end: four values a mark. */
  halves(): Float64Array {
    const out = new Float64Array(4 * this.count);
    for (let i = 0; i < this.count; i++) {
      const [x0, y0, x1, y1] = this.at(i);
      const [mx, my] = [(x0 + x1) / 2, (y0 + y1) / 2];
      out.set([mx, my, x0 - mx, y0 - my], 4 * i);
    }
    return out;
  }

  /** How far a mark's end lies off the line from its middle to the vanishing point, px. */
  endOffPx(i: number, [dx, dy, dz]: Vector, focalPx: number): number {
    const x0 = this.x0[i];
    const y0 = this.y0[i];
    const mx = (x0 + this.x1[i]) / 2;
    const my = (y0 + this.y1[i]) / 2;
    const a = my * dz - dy;
    const b = dx - mx * dz;
    return (Math.abs(a * (x0 - mx) + b * (y0 - my)) / Math.sqrt(a * a + b * b)) * focalPx;
  }
}

/**
 * The strokes that are parallel on some plane: their vanishing point by RANSAC (Fischler & Bolles 1981), then rails,
 * straight rows of their ends; null where there are too few.
 */
export function findParallels(
  strokes: readonly Stroke[],
  lens: LensGuess,
  dice: Dice,
): ParallelStrokes | null {
  const longest = [...strokes].sort((a, b) => b.lengthPx - a.lengthPx).slice(0, MOST_MARKS);
  const marks = new Marks(longest, lens);
  if (marks.count < 8) return null;
  const direction = vanishingDirection(marks, lens, dice);
  if (!direction) return null;
  const parallel = longest.filter((_, i) => marks.endOffPx(i, direction, lens.focalPx) < 1.6 * END_OFF_PX);
  const inliers = new Marks(parallel, lens);
  const rails = [
    ...findRails(inliers.x0, inliers.y0, true, lens, dice),
    ...findRails(inliers.x1, inliers.y1, false, lens, dice),
  ];
  rails.sort((a, b) => b.ends.length - a.ends.length);
  return { strokes: parallel, direction, rails: rails.slice(0, RAILS_KEPT) };
}

/** The planes of parallel strokes under a lens: one rail, the vanishing point and the focal length give the rotation. */
export function planesOf(found: ParallelStrokes, lens: LensGuess): MarkedPlane[] {
  const marks = new Marks(found.strokes, lens);
  const direction = settledDirection(marks, found.direction, lens);
  const parallel: number[] = [];
  for (let i = 0; i < marks.count; i++)
    if (marks.endOffPx(i, direction, lens.focalPx) < END_OFF_PX) parallel.push(i);
  const planes: MarkedPlane[] = [];
  for (const { ends, upper } of found.rails) {
    const rail = settledRail(upper ? marks.x0 : marks.x1, upper ? marks.y0 : marks.y1, ends, lens);
    if (!rail) continue;
    const along = unit(cross(direction, rail));
    const x = along[0] < 0 ? times(along, -1) : along;
    const z = cross(x, direction);
    if (z[2] < STEEPEST_COS) continue;
    // The rotation's rows are camera axes, its columns the board's.
    const rotation: Rotation = [
      x[0], direction[0], z[0],
      x[1], direction[1], z[1],
      x[2], direction[2], z[2],
    ]; // prettier-ignore
    planes.push({ lens, rotation, marks: parallel.map((i) => onPlane(marks, i, x, direction, z)) });
  }
  return planes;
}

function vanishingDirection(marks: Marks, lens: LensGuess, dice: Dice): Vector | null {
  const sums: number[] = [];
  let total = 0;
  for (let i = 0; i < marks.count; i++) sums.push((total += marks.lengthPx[i]));
  const normals = Array.from({ length: marks.count }, (_, i) => marks.normal(i));
  const pick = (): Vector => normals[lowerBound(sums, dice() * total)];
  const halves = marks.halves();
  const worth = marks.lengthPx.map((lengthPx) => Math.min(lengthPx, MOST_WORTH_PX));
  let best: Vector | null = null;
  let bestScore = 0;
  for (let attempt = 0; attempt < TRIES; attempt++) {
    const candidate = facingDown(cross(pick(), pick()));
    if (!candidate) continue;
    const score = scoreOf(candidate, halves, worth, END_OFF_PX / lens.focalPx);
    if (score > bestScore) [best, bestScore] = [candidate, score];
  }
  return best && settledDirection(marks, best, lens);
}

/** What the marks are worth that meet in a direction: `Marks.endOffPx` without its root and its division. */
function scoreOf([dx, dy, dz]: Vector, halves: Float64Array, worth: Float64Array, within: number): number {
  const squared = within * within;
  let score = 0;
  for (let i = 0, at = 0; i < worth.length; i++, at += 4) {
    const a = halves[at + 1] * dz - dy;
    const b = dx - halves[at] * dz;
    const off = a * halves[at + 2] + b * halves[at + 3];
    if (off * off < squared * (a * a + b * b)) score += worth[i];
  }
  return score;
}

function settledDirection(marks: Marks, start: Vector, lens: LensGuess): Vector {
  let direction = start;
  for (let round = 0; round < 3; round++)
    direction = facingDown(leastAligned(marks, direction, lens)) ?? direction;
  return direction;
}

/** A direction towards the angler (down in the picture), at most 45° off upright there; null for others. */
function facingDown(vector: Vector): Vector | null {
  const size = Math.hypot(vector[0], vector[1], vector[2]);
  if (size < 1e-9) return null;
  const direction = times(vector, (vector[1] < 0 ? -1 : 1) / size);
  if (Math.abs(direction[2]) > STEEPEST_SIN || Math.abs(direction[0]) > 1.05 * direction[1]) return null;
  return direction;
}

/** The unit vector most nearly at right angles to the normals of all marks that agree, longer ones counting more. */
function leastAligned(marks: Marks, around: Vector, lens: LensGuess): Vector {
  const sum = new Float64Array(9);
  for (let i = 0; i < marks.count; i++) {
    if (marks.endOffPx(i, around, lens.focalPx) >= END_OFF_PX) continue;
    const normal = marks.normal(i);
    const weight = Math.min(marks.lengthPx[i], 120) ** 2;
    for (let cell = 0; cell < 9; cell++)
      sum[cell] = sum[cell] + weight * normal[Math.floor(cell / 3)] * normal[cell % 3];
  }
  const eigen = new EigenvalueDecomposition(Matrix.from1DArray(3, 3, sum), { assumeSymmetric: true });
  const smallest = eigen.realEigenvalues.indexOf(Math.min(...eigen.realEigenvalues));
  const [x = 0, y = 0, z = 1] = eigen.eigenvectorMatrix.getColumn(smallest);
  return [x, y, z];
}

/** Straight rows of ends, the fullest first; each end is counted within a bow that the lens may give it. */
function findRails(
  x: Float64Array,
  y: Float64Array,
  upper: boolean,
  lens: LensGuess,
  dice: Dice,
): { ends: number[]; upper: boolean }[] {
  const found: { slope: number; offset: number; score: number }[] = [];
  const pick = (): number => Math.floor(dice() * x.length);
  const within = RAIL_OFF_PX / lens.focalPx;
  for (let attempt = 0; attempt < RAIL_TRIES; attempt++) {
    const [i, j] = [pick(), pick()];
    const run = x[j] - x[i];
    const rise = y[j] - y[i];
    if (Math.abs(run) * lens.focalPx < 80 || Math.abs(rise) > Math.abs(run)) continue;
    const slope = rise / run;
    const offset = y[i] - slope * x[i];
    const reach = within * Math.sqrt(1 + slope * slope);
    let score = 0;
    for (let k = 0; k < x.length; k++) if (Math.abs(y[k] - slope * x[k] - offset) < reach) score++;
    if (score < 6) continue;
    const same = found.find(
      (other) => Math.abs(other.offset - offset) * lens.focalPx < 8 && Math.abs(other.slope - slope) < 0.03,
    );
    if (!same) found.push({ slope, offset, score });
    else if (score > same.score) Object.assign(same, { slope, offset, score });
  }
  found.sort((a, b) => b.score - a.score);
  const bow = RAIL_BOW_PX / lens.focalPx;
  return found.slice(0, RAILS_KEPT).map(({ slope, offset }) => {
    const ends: number[] = [];
    for (let k = 0; k < x.length; k++) if (Math.abs(y[k] - slope * x[k] - offset) < bow) ends.push(k);
    return { ends, upper };
  });
}

/** A line a x + b y + c = 0 through ends, least squares with those far off left out step by step. */
function settledRail(
  x: Float64Array,
  y: Float64Array,
  ends: readonly number[],
  lens: LensGuess,
): Vector | null {
  let used = ends;
  let slope = 0;
  let offset = 0;
  for (const allowedPx of [RAIL_BOW_PX, 3, RAIL_OFF_PX, RAIL_OFF_PX]) {
    if (used.length < 5) return null;
    const mx = used.reduce((sum, i) => sum + x[i], 0) / used.length;
    const my = used.reduce((sum, i) => sum + y[i], 0) / used.length;
    let xx = 0;
    let xy = 0;
    for (const i of used) {
      xx += (x[i] - mx) ** 2;
      xy += (x[i] - mx) * (y[i] - my);
    }
    if (xx === 0) return null;
    slope = xy / xx;
    offset = my - slope * mx;
    const reach = (allowedPx / lens.focalPx) * Math.sqrt(1 + slope * slope);
    used = ends.filter((i) => Math.abs(y[i] - slope * x[i] - offset) < reach);
  }
  const size = Math.sqrt(1 + slope * slope);
  return [slope / size, -1 / size, offset / size];
}

function onPlane(marks: Marks, i: number, x: Vector, y: Vector, z: Vector): PlaneMark {
  const [x0, y0, x1, y1] = marks.at(i);
  const p0: Vector = [x0, y0, 1];
  const p1: Vector = [x1, y1, 1];
  const d0 = dot(z, p0);
  const d1 = dot(z, p1);
  return {
    u: (dot(x, p0) / d0 + dot(x, p1) / d1) / 2,
    v0: dot(y, p0) / d0,
    v1: dot(y, p1) / d1,
    weight: Math.min(marks.lengthPx[i], 40),
  };
}

function lowerBound(sums: readonly number[], value: number): number {
  let low = 0;
  let high = sums.length - 1;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sums[middle] < value) low = middle + 1;
    else high = middle;
  }
  return low;
}
