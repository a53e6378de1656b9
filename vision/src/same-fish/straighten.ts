import type { ReachingThing } from '../see-catch/reaching.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import { boardPointOf, projectBoardPoint } from '../camera/lens.ts';
import type { Point } from '../geometry/point.ts';
import { cellAt } from '../grid/planeGrid.ts';

/**
 * The flank drawn in the fish's own frame: columns from behind the gill cover to the tail's wrist, rows from the back to
 * the belly, both in shares of the fish's length, so that scale, place and small bends of the body are gone.
 */
export interface Flank {
  /** Log brightness; NaN where a hand, or the picture's edge, hides the skin. */
  light: Float32Array;
  /** Where its cells are in the photograph. */
  frame: FlankFrame;
}

/** Px of the photograph for a grid of the flank's cells: every `FRAME_STEP`th column and row. */
export interface FlankFrame {
  columns: number;
  rows: number;
  px: readonly (readonly [number, number])[];
}

const FRAME_STEP = 8;

export const FLANK_COLUMNS = 160;
export const FLANK_ROWS = 48;
/** Shares of the length along the fish: gill cover and head are alike within a species. */
export const FLANK_ALONG = [0.28, 0.88] as const;
/** Shares of the length across, from the axis. */
export const FLANK_ACROSS = [-0.09, 0.09] as const;

const FLOOR = 6;
/** How high a flank lies over the board at its thickest, as a share of the length (from memory). */
const THICKNESS = 0.115;
/** Thickness along the fish, as a share of the thickest. */
const THICK_AT = [0, 0.4, 0.1, 0.78, 0.28, 1, 0.48, 1, 0.7, 0.6, 0.88, 0.24, 1, 0.1] as const;
/** The outline lies at about this share of the thickness. */
const EDGE_HEIGHT = 0.35;
/** Half a body's height, as a share of the length, by which its roundness is guessed. */
const HALF_HEIGHT = 0.115;
const HAND_MARGIN_MM = 7;
/** How far along the fish a hand that crosses the edge may reach, mm. */
const REACH_MM = 60;
/** The skin is looked at within this share of the body's half height: beyond it are fins, and the edge's shade. */
const INSIDE = 0.78;
/** Half a body's height along the fish, as a share of that at the gill cover's end (from memory). */
const HALF_AT = [0.28, 1, 0.4, 1.06, 0.5, 1.0, 0.62, 0.78, 0.72, 0.55, 0.8, 0.42, 0.88, 0.4] as const;
/** Outlines are without large fins in these shares of the length. */
const FINLESS = [[0.06, 0.32], [0.77, 0.87]] as const; // prettier-ignore

/** Null when too little of the flank is free. */
export function straightenFlank(seen: SeenCatch, things: readonly ReachingThing[]): Flank | null {
  const { photo, pose, outline, farMm, fish } = seen;
  if (!fish.tip) return null;
  const startMm = Math.max(0, Math.min(outline.xMm[0] ?? 0, 30) - 6);
  const lengthMm = farMm - startMm;
  const axis = bodyAxis(seen, startMm, lengthMm, things);
  if (!axis) return null;
  const light = new Float32Array(FLANK_COLUMNS * FLANK_ROWS).fill(NaN);
  const px: [number, number][] = [];
  for (let row = 0; row <= FLANK_ROWS; row += FRAME_STEP) {
    for (let column = 0; column <= FLANK_COLUMNS; column += FRAME_STEP) {
      const s = FLANK_ALONG[0] + (column / FLANK_COLUMNS) * (FLANK_ALONG[1] - FLANK_ALONG[0]);
      const across = FLANK_ACROSS[0] + (row / FLANK_ROWS) * (FLANK_ACROSS[1] - FLANK_ACROSS[0]);
      const place = seen.toPhoto(
        startMm + s * lengthMm,
        axis.middleAt(s) + across * lengthMm,
        heightAt(s, across) * lengthMm,
      );
      px.push([place[0], place[1]]);
    }
  }
  const frame = { columns: FLANK_COLUMNS / FRAME_STEP + 1, rows: FLANK_ROWS / FRAME_STEP + 1, px };
  let hidden = 0;
  for (let column = 0; column < FLANK_COLUMNS; column++) {
    const s = FLANK_ALONG[0] + ((column + 0.5) / FLANK_COLUMNS) * (FLANK_ALONG[1] - FLANK_ALONG[0]);
    const xMm = startMm + s * lengthMm;
    if (isUnderHand(things, xMm)) {
      hidden++;
      continue;
    }
    const half = INSIDE * axis.halfAt(s);
    const near = things.filter(({ fromMm, toMm }) => xMm > fromMm - REACH_MM && xMm < toMm + REACH_MM);
    for (let row = 0; row < FLANK_ROWS; row++) {
      const across = FLANK_ACROSS[0] + ((row + 0.5) / FLANK_ROWS) * (FLANK_ACROSS[1] - FLANK_ACROSS[0]);
      if (
        Math.abs(across) > half ||
        near.some((thing) => thing.hides(xMm, 0.5 + (0.5 * INSIDE * across) / half))
      )
        continue;
      const zMm = heightAt(s, across) * lengthMm;
      const [x, y] = projectBoardPoint(pose, xMm, axis.middleAt(s) + across * lengthMm, zMm);
      if (x < 1 || y < 1 || x > photo.widthPx - 2 || y > photo.heightPx - 2) continue;
      if (isBareBoard(fish, boardPointOf(pose, x, y, 0))) continue;
      light[row * FLANK_COLUMNS + column] = lightAt(photo.data, photo.widthPx, x, y);
    }
  }
  return hidden > 0.7 * FLANK_COLUMNS ? null : { light, frame };
}

/** Where the search for the fish saw the board's own face there is no skin, whatever the guessed outline says. */
function isBareBoard({ view, labels, piece }: SeenCatch['fish'], [xMm, yMm]: Point): boolean {
  const cell = cellAt(view, xMm, yMm);
  return cell >= 0 && labels[cell] !== piece.label;
}

/** How high the skin lies over the board, as a share of the length. */
function heightAt(s: number, across: number): number {
  const round = Math.sqrt(Math.max(0, 1 - (across / HALF_HEIGHT) ** 2));
  return THICKNESS * thicknessAt(s) * (EDGE_HEIGHT + (1 - EDGE_HEIGHT) * round);
}

/** Px of the photograph where a cell of the flank is seen. */
export function flankPlace(
  { columns, rows, px }: FlankFrame,
  column: number,
  row: number,
): readonly [number, number] {
  const u = Math.min(columns - 1.001, Math.max(0, column / FRAME_STEP));
  const v = Math.min(rows - 1.001, Math.max(0, row / FRAME_STEP));
  const [c, r] = [Math.floor(u), Math.floor(v)];
  const at = (i: number, j: number): readonly [number, number] => px[j * columns + i];
  const mix = (axis: 0 | 1): number =>
    (1 - (v - r)) * ((1 - (u - c)) * at(c, r)[axis] + (u - c) * at(c + 1, r)[axis]) +
    (v - r) * ((1 - (u - c)) * at(c, r + 1)[axis] + (u - c) * at(c + 1, r + 1)[axis]);
  return [mix(0), mix(1)];
}

function isUnderHand(things: readonly ReachingThing[], xMm: number): boolean {
  return things.some(({ overMm, fromMm, toMm, side }) => {
    if (overMm) return xMm > overMm[0] - HAND_MARGIN_MM && xMm < overMm[1] + HAND_MARGIN_MM;
    return side === 'near' && toMm - fromMm > 34 && xMm > fromMm - 20 && xMm < toMm;
  });
}

function thicknessAt(s: number): number {
  return curveAt(THICK_AT, s);
}

/** A curve through x, y pairs, straight between them and level beyond. */
function curveAt(pairs: readonly number[], x: number): number {
  for (let i = 0; i + 3 < pairs.length; i += 2) {
    const [x0, y0, x1, y1] = pairs.slice(i, i + 4);
    if (x <= x1) return y0 + ((y1 - y0) * Math.max(0, x - x0)) / (x1 - x0);
  }
  return pairs[pairs.length - 1];
}

/** The body's middle line across the board, mm, by share of the length: a parabola through the finless parts. */
function bodyAxis(
  { pose, outline }: SeenCatch,
  startMm: number,
  lengthMm: number,
  things: readonly ReachingThing[],
): BodyAxis | null {
  const points: [number, number][] = [];
  const halves: [number, number][] = [];
  outline.xMm.forEach((faceX, i) => {
    // The outline was seen on the face's plane; it lies higher.
    const raise = (yMm: number): [number, number] => {
      const [x, y] = projectBoardPoint(pose, faceX, yMm);
      const s = (faceX - startMm) / lengthMm;
      return boardPointOf(pose, x, y, EDGE_HEIGHT * THICKNESS * lengthMm * thicknessAt(s));
    };
    const [upperX, upperY] = raise(outline.upperMm[i]);
    const [, lowerY] = raise(outline.lowerMm[i]);
    const s = (upperX - startMm) / lengthMm;
    if (!FINLESS.some(([from, to]) => s > from && s < to)) return;
    if (
      outline.handMm.some(([from, to]) => faceX > from - 14 && faceX < to + 14) ||
      isUnderHand(things, faceX)
    )
      return;
    points.push([s, (upperY + lowerY) / 2]);
    halves.push([s, (lowerY - upperY) / 2 / lengthMm]);
  });
  const front = points.filter(([s]) => s < 0.5).length;
  if (points.length < 10) return null;
  // Without both ends a parabola is not held.
  const middleAt = fitCurve(points, front >= 5 && points.length - front >= 4 ? 2 : 1);
  // Two places without fins hold the body's height: behind the gill cover, and at the tail's wrist.
  const median = (from: number, to: number, usual: number): number => {
    const values = halves.filter(([s]) => s > from && s < to).map(([, half]) => half);
    return values.length >= 2 ? values.sort((a, b) => a - b)[values.length >> 1] : usual;
  };
  const front0 = median(0.22, 0.32, 0.1);
  const scaleAt = median(0.77, 0.84, 0.42 * front0) / (0.42 * front0);
  return {
    middleAt,
    halfAt: (s) => {
      const towards = Math.min(1, Math.max(0, (s - 0.4) / 0.4));
      return front0 * curveAt(HALF_AT, s) * (1 + (Math.min(2, scaleAt) - 1) * towards * towards);
    },
  };
}

interface BodyAxis {
  /** Middle of the body across the board, mm, by share of the length. */
  middleAt: (s: number) => number;
  /** Half its height without fins, as a share of the length. */
  halfAt: (s: number) => number;
}

/** Least squares of a polynomial of degree 1 or 2, twice: the second time without what lies far off. */
function fitCurve(points: readonly (readonly [number, number])[], degree: 1 | 2): (s: number) => number {
  let used = points;
  let curve: (s: number) => number = () => 0;
  for (let round = 0; round < 2; round++) {
    const sums = new Float64Array(5);
    const right = new Float64Array(3);
    for (const [s, y] of used) {
      for (let k = 0; k < 5; k++) sums[k] = sums[k] + s ** k;
      for (let k = 0; k < 3; k++) right[k] = right[k] + y * s ** k;
    }
    const [n, s1, s2, s3, s4] = sums;
    const [y0, y1, y2] = right;
    // A little ridge keeps the bow small where the points hardly tell.
    const ridge = degree === 2 ? 1e-3 * n : 1e9;
    const coefficients = solve3([[n, s1, s2], [s1, s2, s3], [s2, s3, s4 + ridge]], [y0, y1, y2]); // prettier-ignore
    curve = (s) => coefficients[0] + coefficients[1] * s + coefficients[2] * s * s;
    const offs = used.map(([s, y]) => Math.abs(y - curve(s))).sort((a, b) => a - b);
    const most = 3 * Math.max(0.5, offs[offs.length >> 1]);
    used = used.filter(([s, y]) => Math.abs(y - curve(s)) < most);
  }
  return curve;
}

/** Cramer's rule. */
function solve3(m: readonly (readonly number[])[], b: readonly number[]): [number, number, number] {
  const det = (x: readonly number[], y: readonly number[], z: readonly number[]): number =>
    x[0] * (y[1] * z[2] - z[1] * y[2]) -
    y[0] * (x[1] * z[2] - z[1] * x[2]) +
    z[0] * (x[1] * y[2] - y[1] * x[2]);
  const [x, y, z] = [0, 1, 2].map((column) => m.map((row) => row[column]));
  const all = det(x, y, z);
  return [det(b, y, z) / all, det(x, b, z) / all, det(x, y, b) / all];
}

function lightAt(data: Uint8ClampedArray, widthPx: number, x: number, y: number): number {
  const [x0, y0] = [Math.floor(x), Math.floor(y)];
  const [fx, fy] = [x - x0, y - y0];
  let sum = 0;
  for (let channel = 0; channel < 3; channel++) {
    const at = (y0 * widthPx + x0) * 4 + channel;
    const below = at + 4 * widthPx;
    const value =
      (1 - fy) * ((1 - fx) * data[at] + fx * data[at + 4]) +
      fy * ((1 - fx) * data[below] + fx * data[below + 4]);
    sum += value * [0.3, 0.6, 0.1][channel];
  }
  return Math.log(sum + FLOOR);
}
