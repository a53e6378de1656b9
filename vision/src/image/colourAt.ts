import type { Raster } from './raster.ts';

/** Colour at a place of a picture, 0-255; null outside of it. */
export type ColourAt = (xPx: number, yPx: number) => readonly [number, number, number] | null;

/** The nearest px's colour. */
export function colourLookup({ widthPx, heightPx, data }: Raster): ColourAt {
  return (xPx, yPx) => {
    const [column, row] = [Math.round(xPx), Math.round(yPx)];
    // A place that is no number lies nowhere.
    if (!(column >= 0 && row >= 0 && column < widthPx && row < heightPx)) return null;
    const at = 4 * (row * widthPx + column);
    return [data[at], data[at + 1], data[at + 2]];
  };
}
