import type { LensPose } from '../lens.ts';
import type { Raster } from '../rectify.ts';

/** The ruled face and its surroundings seen straight from above, three values (0-255) a cell. */
export interface FaceView {
  columns: number;
  rows: number;
  cellsPerMm: number;
  fromXMm: number;
  fromYMm: number;
  rgb: Float32Array;
  /** 1 where the photograph shows the place. */
  inPhoto: Uint8Array;
}

export interface FaceWindow {
  fromXMm: number;
  toXMm: number;
  fromYMm: number;
  toYMm: number;
  cellsPerMm: number;
}

/** Draws a window of the plane `zMm` over the face through the camera; each cell is the mean of `rays`² bilinear samples. */
export function viewFace(photo: Raster, pose: LensPose, window: FaceWindow, rays = 1, zMm = 0): FaceView {
  const { cellsPerMm, fromXMm, fromYMm } = window;
  const columns = Math.round((window.toXMm - fromXMm) * cellsPerMm);
  const rows = Math.round((window.toYMm - fromYMm) * cellsPerMm);
  const rgb = new Float32Array(columns * rows * 3);
  const inPhoto = new Uint8Array(columns * rows);
  const { widthPx, heightPx, data } = photo;
  const share = 1 / (rays * rays);
  const r = pose.rotation;
  const t = pose.zeroMm;
  const { focalPx, k1, centrePx } = pose;
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      let red = 0;
      let green = 0;
      let blue = 0;
      let inside = true;
      for (let ray = 0; ray < rays * rays; ray++) {
        const xMm = fromXMm + (column + ((ray % rays) + 0.5) / rays) / cellsPerMm;
        const yMm = fromYMm + (row + (Math.floor(ray / rays) + 0.5) / rays) / cellsPerMm;
        // projectBoardPoint, written out: half a million calls would leave as many pairs to collect.
        const w = r[6] * xMm + r[7] * yMm - r[8] * zMm + t[2];
        const u = (r[0] * xMm + r[1] * yMm - r[2] * zMm + t[0]) / w;
        const v = (r[3] * xMm + r[4] * yMm - r[5] * zMm + t[1]) / w;
        const bend = focalPx * (1 + k1 * (u * u + v * v));
        const x = centrePx[0] + bend * u;
        const y = centrePx[1] + bend * v;
        const x0 = Math.floor(x);
        const y0 = Math.floor(y);
        if (!(x0 >= 0 && y0 >= 0 && x0 < widthPx - 1 && y0 < heightPx - 1)) {
          inside = false;
          break;
        }
        const fx = x - x0;
        const fy = y - y0;
        const a = (1 - fx) * (1 - fy);
        const b = fx * (1 - fy);
        const c = (1 - fx) * fy;
        const d = fx * fy;
        const i = (y0 * widthPx + x0) * 4;
        const j = i + widthPx * 4;
        red +=
          a * (data[i] as number) +
          b * (data[i + 4] as number) +
          c * (data[j] as number) +
          d * (data[j + 4] as number);
        green +=
          a * (data[i + 1] as number) +
          b * (data[i + 5] as number) +
          c * (data[j + 1] as number) +
          d * (data[j + 5] as number);
        blue +=
          a * (data[i + 2] as number) +
          b * (data[i + 6] as number) +
          c * (data[j + 2] as number) +
          d * (data[j + 6] as number);
      }
      if (!inside) continue;
      const cell = row * columns + column;
      inPhoto[cell] = 1;
      rgb[cell * 3] = red * share;
      rgb[cell * 3 + 1] = green * share;
      rgb[cell * 3 + 2] = blue * share;
    }
  }
  return { columns, rows, cellsPerMm, fromXMm, fromYMm, rgb, inPhoto };
}
