import { overRuns } from '../image/overRuns.ts';
import type { Raster } from '../image/raster.ts';
import type { CardView } from './cardView.ts';

/** White is looked for within so many mm of each place: farther than a code's own black reaches. */
const WHITE_REACH_MM = 7;
const FLAT_WHITE = 220;

/** The same view as if all of it lay in one light: a shadow's edge over a card divides its white in two. */
export function inOneLight(view: CardView): CardView {
  const { columns, rows, luma, cellsPerMm } = view;
  const white = whiteAbout(luma, columns, rows, Math.round(WHITE_REACH_MM * cellsPerMm));
  return {
    ...view,
    luma: luma.map((value, i) => (FLAT_WHITE * value) / Math.max(1, white[i])),
  };
}

/** A picture of a code (grey, by its green) as if all of it lay in one light. */
export function codeInOneLight({ widthPx, heightPx, data }: Raster, cellsPerMm: number): Raster {
  const green = greenOf(data);
  const white = whiteAbout(green, widthPx, heightPx, Math.round(WHITE_REACH_MM * cellsPerMm));
  const flat = green.map((value, i) => (FLAT_WHITE * value) / Math.max(1, white[i]));
  return greyPicture(flat, widthPx, heightPx);
}

const greenOf = (data: Raster['data']): Float32Array =>
  Float32Array.from({ length: data.length / 4 }, (_, i) => data[4 * i + 1]);

function greyPicture(values: Float32Array, widthPx: number, heightPx: number): Raster {
  const data = new Uint8ClampedArray(4 * values.length).fill(255);
  values.forEach((value, i) => data.fill(value, 4 * i, 4 * i + 3));
  return { widthPx, heightPx, data };
}

/**
 * A picture of a code (grey, by its green) with its ink wider: white that is brighter than the picture can tell runs over
 * into what is black (an erosion, Serra 1982).
 */
export function withWiderInk({ widthPx, heightPx, data }: Raster, cellsPerMm: number, byMm: number): Raster {
  const reach = Math.max(1, Math.round(byMm * cellsPerMm));
  return greyPicture(overSquares(greenOf(data), widthPx, heightPx, reach, Math.min), widthPx, heightPx);
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
      for (let i = 0; i < count; i++) cells[i] = out[l * line + i * step];
      overRuns(cells, reach, extreme).forEach((value, i) => (out[l * line + i * step] = value));
    }
  };
  along(columns, 1, rows, columns);
  along(rows, columns, columns, 1);
  return out;
}
