import type { LensPose } from '../camera/lens.ts';
import type { PlaneGrid } from '../grid/planeGrid.ts';
import type { Raster } from '../image/raster.ts';

/** The ruled face and its surroundings seen straight from above, three values (0-255) a cell. */
export interface FaceView extends PlaneGrid {
  rgb: Float32Array;
  /** 1 where the photograph shows the place. */
  inPhoto: Uint8Array;
}

export interface FaceWindow extends Omit<PlaneGrid, 'columns' | 'rows'> {
  toXMm: number;
  toYMm: number;
}

/** Draws a window of the plane `zMm` over the face through the camera; each cell is the mean of `rays`² bilinear samples. */
export function viewFace(photo: Raster, pose: LensPose, window: FaceWindow, rays = 1, zMm = 0): FaceView {
  const { cellsPerMm, fromXMm, fromYMm } = window;
  const columns = Math.round((window.toXMm - fromXMm) * cellsPerMm);
  const rows = Math.round((window.toYMm - fromYMm) * cellsPerMm);
  const rgb = new Float32Array(columns * rows * 3);
  const inPhoto = new Uint8Array(columns * rows);
  const { widthPx, heightPx, data } = photo;
  const lineBytes = widthPx * 4;
  const [endX, endY] = [widthPx - 1, heightPx - 1];
  const { focalPx, k1 } = pose;
  const [centreX, centreY] = pose.centrePx;
  const [r0, r1, r2, r3, r4, r5, r6, r7, r8] = pose.rotation;
  const [tx, ty, tz] = pose.zeroMm;
  const rayStepMm = 1 / (rays * cellsPerMm);
  const share = 1 / (rays * rays);
  const sums = new Float64Array(columns * 3);
  const hits = new Uint8Array(columns);
  for (let row = 0; row < rows; row++) {
    sums.fill(0);
    hits.fill(0);
    for (let line = row * rays; line < (row + 1) * rays; line++) {
      // projectBoardPoint, written out with what is the same along a line: half of the time of a call for each place.
      const yMm = fromYMm + (line + 0.5) * rayStepMm;
      const uLine = r1 * yMm - r2 * zMm + tx;
      const vLine = r4 * yMm - r5 * zMm + ty;
      const wLine = r7 * yMm - r8 * zMm + tz;
      for (let ray = 0, column = 0, left = rays; column < columns; ray++) {
        const xMm = fromXMm + (ray + 0.5) * rayStepMm;
        const nearness = 1 / (r6 * xMm + wLine);
        const u = (r0 * xMm + uLine) * nearness;
        const v = (r3 * xMm + vLine) * nearness;
        const bend = focalPx * (1 + k1 * (u * u + v * v));
        const x = centreX + bend * u;
        const y = centreY + bend * v;
        if (x >= 0 && y >= 0 && x < endX && y < endY) {
          const x0 = x | 0;
          const y0 = y | 0;
          const fx = x - x0;
          const fy = y - y0;
          const d = fx * fy;
          const b = fx - d;
          const c = fy - d;
          const a = 1 - fx - c;
          const i = y0 * lineBytes + x0 * 4;
          const j = i + lineBytes;
          const at = column * 3;
          hits[column] = hits[column] + 1;
          sums[at] = sums[at] + a * data[i] + b * data[i + 4] + c * data[j] + d * data[j + 4];
          sums[at + 1] = sums[at + 1] + a * data[i + 1] + b * data[i + 5] + c * data[j + 1] + d * data[j + 5];
          sums[at + 2] = sums[at + 2] + a * data[i + 2] + b * data[i + 6] + c * data[j + 2] + d * data[j + 6];
        }
        if (--left === 0) {
          column++;
          left = rays;
        }
      }
    }
    for (let column = 0; column < columns; column++) {
      if (hits[column] !== rays * rays) continue;
      const cell = row * columns + column;
      inPhoto[cell] = 1;
      rgb[cell * 3] = sums[column * 3] * share;
      rgb[cell * 3 + 1] = sums[column * 3 + 1] * share;
      rgb[cell * 3 + 2] = sums[column * 3 + 2] * share;
    }
  }
  return { columns, rows, cellsPerMm, fromXMm, fromYMm, rgb, inPhoto };
}
