import { viewFace, type FaceView } from '../find-fish/faceView.ts';
import { boardPointOf, type LensPose } from '../camera/lens.ts';
import type { Raster } from '../image/raster.ts';
import { lumaOf } from '../image/luma.ts';

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
    const [r, g, b] = [view.rgb[3 * i], view.rgb[3 * i + 1], view.rgb[3 * i + 2]];
    luma[i] = lumaOf(r, g, b);
    chroma[i] = chromaOf(r, g, b);
  }
  return { ...view, luma, chroma };
}

export function chromaOf(r: number, g: number, b: number): number {
  const most = Math.max(r, g, b);
  return (most - Math.min(r, g, b)) / (most + 4);
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
    data[4 * i] = view.rgb[3 * i];
    data[4 * i + 1] = view.rgb[3 * i + 1];
    data[4 * i + 2] = view.rgb[3 * i + 2];
    data[4 * i + 3] = 255;
  }
  return { widthPx: view.columns, heightPx: view.rows, data };
}
