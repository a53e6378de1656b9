import type { Raster } from '../image/raster.ts';
import { SummedArea } from '../image/summedArea.ts';

/** How strongly a picture is sharpened: by so many times what a place differs from the mean about it. */
export interface Sharpening {
  aboutMm: number;
  by: number;
}

/**
 * The picture's green as grey, sharpened (unsharp masking): a lens, the reduction to px and the drawing in another scale
 * have mixed each module of a small code with its neighbours. The mean is a mean of means, so that it has no corners.
 */
export function sharpened(
  { widthPx, heightPx, data }: Raster,
  cellsPerMm: number,
  { aboutMm, by }: Sharpening,
): Raster {
  const reach = Math.max(1, Math.round(aboutMm * cellsPerMm));
  const greenAt = (cell: number): number => data[4 * cell + 1];
  const once = new SummedArea(widthPx, heightPx, greenAt);
  const twice = new SummedArea(widthPx, heightPx, (cell) => once.meanAround(cell % widthPx, Math.floor(cell / widthPx), reach)); // prettier-ignore
  const grey = new Uint8ClampedArray(data.length).fill(255);
  for (let cell = 0; cell < widthPx * heightPx; cell++) {
    const here = greenAt(cell);
    const mean = twice.meanAround(cell % widthPx, Math.floor(cell / widthPx), reach);
    grey[4 * cell] = grey[4 * cell + 1] = grey[4 * cell + 2] = here + by * (here - mean);
  }
  return { widthPx, heightPx, data: grey };
}
