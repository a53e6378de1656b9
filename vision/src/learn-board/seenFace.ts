import { projectBoardPoint, type LensPose } from '../camera/lens.ts';
import type { Raster } from '../image/raster.ts';
import { quantile } from './lineContrast.ts';

/** What strokes, numerals, edges and colours are measured in: the picture itself, and where the face lies in it. */
export interface SeenFace {
  photo: Raster;
  pose: LensPose;
}

export type Rgb = readonly [number, number, number];

/** Colour of the picture's nearest px, 0 to 255; null outside. */
export function colourAt({ photo, pose }: SeenFace, xMm: number, yMm: number, zMm = 0): Rgb | null {
  const [x, y] = projectBoardPoint(pose, xMm, yMm, zMm);
  const column = Math.round(x);
  const row = Math.round(y);
  if (!(column >= 0 && row >= 0 && column < photo.widthPx && row < photo.heightPx)) return null;
  const at = (row * photo.widthPx + column) * 4;
  return [photo.data[at], photo.data[at + 1], photo.data[at + 2]];
}

/** The median of each channel; black for none. */
export function medianColour(colours: readonly Rgb[]): Rgb {
  const middle = (channel: 0 | 1 | 2): number =>
    quantile(
      colours.map((colour) => colour[channel]),
      0.5,
    );
  return [middle(0), middle(1), middle(2)];
}

/** Rec. 601 luma, 0 to 255. */
export const lumaOf = ([r, g, b]: Rgb): number => 0.299 * r + 0.587 * g + 0.114 * b;
