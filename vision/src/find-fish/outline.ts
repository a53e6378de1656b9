import type { FaceView } from './faceView.ts';
import type { Piece } from './pieces.ts';
import { columnMiddle, rowStart } from '../grid/planeGrid.ts';

/** The fish's course along the board, mm; columns where a hand comes in over an edge are bridged. */
export interface FishOutline {
  /** Places along the board, one each `STEP_MM`. */
  xMm: readonly number[];
  upperMm: readonly number[];
  lowerMm: readonly number[];
  /** Where along the board something reaches from the fish over the face's edge: a hand or an arm. */
  handMm: readonly (readonly [number, number])[];
}

const STEP_MM = 2;
/** A piece that comes so near to the face's edge is taken to go on over it. */
const EDGE_MM = 7;

export function outlineOf(view: FaceView, labels: Int32Array, piece: Piece, widthMm: number): FishOutline {
  const { cellsPerMm, columns } = view;
  const stride = Math.max(1, Math.round(STEP_MM * cellsPerMm));
  const xMm: number[] = [];
  const upper: number[] = [];
  const lower: number[] = [];
  const touches: boolean[] = [];
  for (let column = piece.fromColumn; column <= piece.toColumn; column += stride) {
    const run = extentOf(labels, columns, column, piece);
    if (!run) continue;
    xMm.push(columnMiddle(view, column));
    upper.push(rowStart(view, run[0]));
    lower.push(rowStart(view, run[1] + 1));
    touches.push(rowStart(view, run[0]) < EDGE_MM || rowStart(view, run[1] + 1) > widthMm - EDGE_MM);
  }
  bridge(upper, touches);
  bridge(lower, touches);
  return { xMm, upperMm: upper, lowerMm: lower, handMm: runs(xMm, touches) };
}

/** First and last row of the piece in a column: a forked tail has both lobes. */
function extentOf(
  labels: Int32Array,
  columns: number,
  column: number,
  piece: Piece,
): [number, number] | null {
  let first = -1;
  let last = -1;
  for (let row = piece.fromRow; row <= piece.toRow; row++) {
    if (labels[row * columns + column] !== piece.label) continue;
    if (first < 0) first = row;
    last = row;
  }
  return first < 0 ? null : [first, last];
}

/** Replaces what a hand made of the outline by a straight line between both sides of it. */
function bridge(values: number[], touched: readonly boolean[]): void {
  let i = 0;
  while (i < values.length) {
    if (!touched[i]) {
      i++;
      continue;
    }
    let end = i;
    while (end < values.length && touched[end]) end++;
    const before = values[i - 1] ?? values[end];
    const after = values[end] ?? values[i - 1];
    if (before !== undefined && after !== undefined) {
      for (let k = i; k < end; k++) values[k] = before + ((after - before) * (k - i + 1)) / (end - i + 1);
    }
    i = end;
  }
}

function runs(xMm: readonly number[], touched: readonly boolean[]): (readonly [number, number])[] {
  const out: [number, number][] = [];
  touched.forEach((touch, i) => {
    if (!touch) return;
    const at = xMm[i];
    const last = out.at(-1);
    if (last && at - last[1] <= 2 * STEP_MM) last[1] = at;
    else out.push([at, at]);
  });
  // Fins brush against the edge for a few millimetres; a hand is broader.
  return out.filter(([from, to]) => to - from >= 8);
}

/** Height of the body's axis at the stop: the middle of the outline's first half, drawn on to x = 0, mm across. */
export function axisAtStop({ xMm, upperMm, lowerMm }: FishOutline): number {
  const half = Math.max(3, Math.floor(xMm.length * 0.5));
  let [n, sx, sy, sxx, sxy] = [0, 0, 0, 0, 0];
  for (let i = 0; i < Math.min(half, xMm.length); i++) {
    const x = xMm[i];
    const y = (upperMm[i] + lowerMm[i]) / 2;
    n++;
    sx += x;
    sy += y;
    sxx += x * x;
    sxy += x * y;
  }
  const spread = n * sxx - sx * sx;
  const slope = spread > 0 ? (n * sxy - sx * sy) / spread : 0;
  return sy / n - Math.max(-0.15, Math.min(0.15, slope)) * (sx / n);
}

/** How much wider the fish's end is than the wrist before it: over 1 for a tail, under 1 for a head. */
export function flareAt({ upperMm, lowerMm }: FishOutline, end: 'far' | 'stop'): number {
  const widths = upperMm.map((upper, i) => lowerMm[i] - upper);
  if (end === 'stop') widths.reverse();
  const n = widths.length;
  const part = (from: number, to: number): number[] => widths.slice(Math.floor(n * from), Math.ceil(n * to));
  const last = Math.max(...part(0.86, 1));
  const wrist = Math.min(...part(0.62, 0.9));
  return wrist > 0 ? last / wrist : 1;
}
