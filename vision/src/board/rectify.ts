import { faceLengthMm, type MeasuringBoard } from './board.ts';
import { boardMap, type BoardLens } from './boardMap.ts';
import type { Raster } from '../image/raster.ts';
import type { Quad } from '../geometry/point.ts';

/** A rectangle of the board's plane, board coordinates. */
export interface StripFrame {
  fromMm: number;
  toMm: number;
  fromYMm: number;
  toYMm: number;
  pxPerMm: number;
}

/** The whole ruled face and a little beyond: the stop at the left, the end at the right, both edges. */
export function stripFrame(board: MeasuringBoard, pxPerMm: number): StripFrame {
  return { fromMm: -25, toMm: faceLengthMm(board) + 10, fromYMm: -6, toYMm: board.widthMm + 6, pxPerMm };
}

/**
 * The ruled face seen straight from above, with a constant scale: the photograph drawn through the map that its four
 * corners and its lens fix, bilinear. Parts outside of the photograph stay transparent.
 * @param lens null for a lens without distortion
 */
export function rectifyStrip(
  photo: Raster,
  board: MeasuringBoard,
  corners: Quad,
  frame: StripFrame,
  lens: BoardLens | null = null,
): Raster {
  const widthPx = Math.round((frame.toMm - frame.fromMm) * frame.pxPerMm);
  const heightPx = Math.round((frame.toYMm - frame.fromYMm) * frame.pxPerMm);
  const data = new Uint8ClampedArray(widthPx * heightPx * 4);
  const map = boardMap(board, corners, lens, photo);
  for (let row = 0; row < heightPx; row++) {
    const yMm = (row + 0.5) / frame.pxPerMm + frame.fromYMm;
    for (let column = 0; column < widthPx; column++) {
      const [x, y] = map.toPhoto([(column + 0.5) / frame.pxPerMm + frame.fromMm, yMm]);
      sampleInto(data, (row * widthPx + column) * 4, photo, x, y);
    }
  }
  return { widthPx, heightPx, data };
}

function sampleInto(out: Uint8ClampedArray, at: number, photo: Raster, x: number, y: number): void {
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  if (!(x0 >= 0 && y0 >= 0 && x0 < photo.widthPx - 1 && y0 < photo.heightPx - 1)) return;
  const fx = x - x0;
  const fy = y - y0;
  const source = photo.data;
  const topLeft = (y0 * photo.widthPx + x0) * 4;
  const bottomLeft = topLeft + photo.widthPx * 4;
  for (let channel = 0; channel < 3; channel++) {
    const top = (source[topLeft + channel] ?? 0) * (1 - fx) + (source[topLeft + 4 + channel] ?? 0) * fx;
    const bottom =
      (source[bottomLeft + channel] ?? 0) * (1 - fx) + (source[bottomLeft + 4 + channel] ?? 0) * fx;
    out[at + channel] = top * (1 - fy) + bottom * fy;
  }
  out[at + 3] = 255;
}
