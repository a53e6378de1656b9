import { viewFace, type FaceView } from '../fish-search/faceView.ts';
import { boardPointOf, type LensPose } from '../lens.ts';
import type { Raster } from '../rectify.ts';

/** Cards lie on the board or beside it: this height is in the middle, mm over the face. */
const CARD_HEIGHT_MM = -4;
/** Cards are looked for up to this far from the ruled face, mm: a small board in a wide picture has much ground about it. */
const BESIDE_MM = 680;
const CELLS_PER_MM = 0.5;

/** Brighter than this (0-255) nothing is told apart. */
export const GLARE = 252;

/** Brightness (0-255) of the surroundings seen from straight above, and how white each cell is. */
export interface CardView extends FaceView {
  luma: Float32Array;
  /** Difference of the channels over the brightest: 0 is grey or white. */
  chroma: Float32Array;
}

/** The board's surroundings as far as the picture shows them. */
export function viewSurroundings(
  photo: Raster,
  pose: LensPose,
  face: { lengthMm: number; widthMm: number },
): CardView {
  const border: [number, number][] = [];
  for (let i = 0; i <= 8; i++) {
    const [x, y] = [((photo.widthPx - 1) * i) / 8, ((photo.heightPx - 1) * i) / 8];
    border.push([x, 0], [x, photo.heightPx - 1], [0, y], [photo.widthPx - 1, y]);
  }
  const places = border.map(([x, y]) => boardPointOf(pose, x, y, CARD_HEIGHT_MM));
  const bounds = (axis: 0 | 1, mostMm: number): [number, number] => {
    const values = places.map((place) => place[axis]);
    return [Math.max(-BESIDE_MM, Math.min(...values)), Math.min(mostMm + BESIDE_MM, Math.max(...values))];
  };
  const [fromXMm, toXMm] = bounds(0, face.lengthMm);
  const [fromYMm, toYMm] = bounds(1, face.widthMm);
  const view = viewFace(
    photo,
    pose,
    { fromXMm, toXMm, fromYMm, toYMm, cellsPerMm: CELLS_PER_MM },
    2,
    CARD_HEIGHT_MM,
  );
  const count = view.columns * view.rows;
  const luma = new Float32Array(count);
  const chroma = new Float32Array(count);
  for (let i = 0; i < count; i++) {
    const [r, g, b] = [
      view.rgb[3 * i] as number,
      view.rgb[3 * i + 1] as number,
      view.rgb[3 * i + 2] as number,
    ];
    const most = Math.max(r, g, b);
    luma[i] = 0.3 * r + 0.6 * g + 0.1 * b;
    chroma[i] = (most - Math.min(r, g, b)) / (most + 4);
  }
  return { ...view, luma, chroma };
}

/** White is looked for within so many mm of each place: farther than a code's own black reaches. */
const WHITE_REACH_MM = 7;
const FLAT_WHITE = 220;

/** The same view as if all of it lay in one light: a shadow's edge over a card divides its white in two. */
export function inOneLight(view: CardView): CardView {
  const { columns, rows, luma, cellsPerMm } = view;
  const white = whiteAbout(luma, columns, rows, Math.round(WHITE_REACH_MM * cellsPerMm));
  return {
    ...view,
    luma: luma.map((value, i) => (FLAT_WHITE * value) / Math.max(1, white[i] as number)),
  };
}

/** A picture of a code (grey, by its green) as if all of it lay in one light. */
export function codeInOneLight({ widthPx, heightPx, data }: Raster, cellsPerMm: number): Raster {
  const green = Float32Array.from({ length: widthPx * heightPx }, (_, i) => data[4 * i + 1] as number);
  const white = whiteAbout(green, widthPx, heightPx, Math.round(WHITE_REACH_MM * cellsPerMm));
  const flat = new Uint8ClampedArray(data.length).fill(255);
  green.forEach((value, i) => {
    const grey = (FLAT_WHITE * value) / Math.max(1, white[i] as number);
    flat[4 * i] = flat[4 * i + 1] = flat[4 * i + 2] = grey;
  });
  return { widthPx, heightPx, data: flat };
}

/**
 * How bright white is about each cell: the brightest within a square, and of that the darkest within one (a closing,
 * Serra 1982). What is dark and smaller than the square is filled; a shadow's edge stays where it is.
 */
function whiteAbout(values: Float32Array, columns: number, rows: number, reach: number): Float32Array {
  const bright = overSquares(values, columns, rows, reach, Math.max);
  return overSquares(bright, columns, rows, reach, Math.min);
}

/** An extreme over a square about each cell, along the rows and then along the columns. */
function overSquares(
  values: Float32Array,
  columns: number,
  rows: number,
  reach: number,
  extreme: (a: number, b: number) => number,
): Float32Array {
  const out = values.slice();
  const along = (count: number, step: number, lines: number, line: number): void => {
    const cells = new Float32Array(count);
    for (let l = 0; l < lines; l++) {
      for (let i = 0; i < count; i++) cells[i] = out[l * line + i * step] as number;
      overRuns(cells, reach, extreme).forEach((value, i) => (out[l * line + i * step] = value));
    }
  };
  along(columns, 1, rows, columns);
  along(rows, columns, columns, 1);
  return out;
}

/**
 * An extreme over so many cells to both sides of each, at a cost that does not grow with the reach: running extremes from
 * both ends of blocks as long as a window, which lies in two of them (van Herk 1992; Gil and Werman 1993).
 */
export function overRuns(
  cells: Float32Array,
  reach: number,
  extreme: (a: number, b: number) => number,
): Float32Array {
  const count = cells.length;
  const block = 2 * reach + 1;
  const fromStart = cells.slice();
  const fromEnd = cells.slice();
  for (let i = 1; i < count; i++)
    if (i % block > 0) fromStart[i] = extreme(fromStart[i - 1] as number, fromStart[i] as number);
  for (let i = count - 2; i >= 0; i--)
    if ((i + 1) % block > 0) fromEnd[i] = extreme(fromEnd[i + 1] as number, fromEnd[i] as number);
  return cells.map((_, i) => {
    const first = i - reach;
    const last = Math.min(count - 1, i + reach);
    if (first < 0) return Math.floor(last / block) === 0 ? (fromStart[last] as number) : extreme(fromEnd[0] as number, fromStart[last] as number); // prettier-ignore
    // Cut by the end within one block: what lies before the window must not count.
    if (last - first < block - 1 && Math.floor(first / block) === Math.floor(last / block))
      return fromEnd[first] as number;
    return extreme(fromEnd[first] as number, fromStart[last] as number);
  });
}

/** A square about a place, seen closely: for reading a code, whichever way round it lies. */
export function viewCode(
  photo: Raster,
  pose: LensPose,
  [xMm, yMm]: readonly [number, number],
  sideMm: number,
  cellsPerMm: number,
): Raster {
  const view = viewFace(
    photo,
    pose,
    {
      fromXMm: xMm - sideMm / 2,
      toXMm: xMm + sideMm / 2,
      fromYMm: yMm - sideMm / 2,
      toYMm: yMm + sideMm / 2,
      cellsPerMm,
    },
    1,
    CARD_HEIGHT_MM,
  );
  const data = new Uint8ClampedArray(view.columns * view.rows * 4);
  for (let i = 0; i < view.columns * view.rows; i++) {
    data[4 * i] = view.rgb[3 * i] as number;
    data[4 * i + 1] = view.rgb[3 * i + 1] as number;
    data[4 * i + 2] = view.rgb[3 * i + 2] as number;
    data[4 * i + 3] = 255;
  }
  return { widthPx: view.columns, heightPx: view.rows, data };
}
