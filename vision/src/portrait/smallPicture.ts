import type { Raster } from '../image/raster.ts';

/** A picture made so small that each cell is the mean of many pixels: what a portrait is judged by. */
export interface SmallPicture {
  columns: number;
  rows: number;
  /** Means of red, green and blue, 0-255. */
  red: Float32Array;
  green: Float32Array;
  blue: Float32Array;
  /** Rec. 601 luma of the means (ITU-R BT.601). */
  luma: Float32Array;
}

/** @param longSide cells along the longer side */
export function smallPicture(raster: Raster, longSide: number): SmallPicture {
  const { widthPx, heightPx, data } = raster;
  const pxPerCell = Math.max(1, Math.max(widthPx, heightPx) / longSide);
  const columns = Math.floor(widthPx / pxPerCell);
  const rows = Math.floor(heightPx / pxPerCell);
  const cells = columns * rows;
  const [red, green, blue] = [new Float32Array(cells), new Float32Array(cells), new Float32Array(cells)];
  const luma = new Float32Array(cells);
  for (let row = 0; row < rows; row++) {
    const [y0, y1] = [Math.floor(row * pxPerCell), Math.max(1, Math.floor((row + 1) * pxPerCell))];
    for (let column = 0; column < columns; column++) {
      const [x0, x1] = [Math.floor(column * pxPerCell), Math.max(1, Math.floor((column + 1) * pxPerCell))];
      let [r, g, b, count] = [0, 0, 0, 0];
      for (let y = y0; y < Math.max(y1, y0 + 1); y++) {
        for (let x = x0; x < Math.max(x1, x0 + 1); x++) {
          const at = 4 * (y * widthPx + x);
          r += data[at];
          g += data[at + 1];
          b += data[at + 2];
          count++;
        }
      }
      const cell = row * columns + column;
      red[cell] = r / count;
      green[cell] = g / count;
      blue[cell] = b / count;
      luma[cell] = (0.299 * r + 0.587 * g + 0.114 * b) / count;
    }
  }
  return { columns, rows, red, green, blue, luma };
}

/**
 * Where skin may be seen, by its chromaticity: light changes that little, tone not much (skin locus, Soriano et al.
 * 2000; the bounds here are our own). A bronze fish lies beyond it: more green in it.
 */
export function skinMask({ columns, rows, red, green, blue }: SmallPicture): Uint8Array {
  const mask = new Uint8Array(columns * rows);
  for (let cell = 0; cell < mask.length; cell++) {
    const [r, g, b] = [red[cell], green[cell], blue[cell]];
    const sum = r + g + b;
    if (sum < 60) continue;
    const [rShare, gShare] = [r / sum, g / sum];
    if (rShare > 0.365 && rShare < 0.5 && gShare > 0.27 && gShare < 0.338) mask[cell] = 1;
  }
  return mask;
}
