import type { Pattern } from '../find-board/pattern.ts';
import { projectBoardPoint, type LensPose } from '../camera/lens.ts';
import { medianOf } from '../image/median.ts';
import type { Raster } from '../image/raster.ts';

/** The stop's face (x = 0) seen straight on, and what stands before it. Rows run up from the board. */
export interface PlateView {
  columns: number;
  rows: number;
  cellsPerMm: number;
  fromYMm: number;
  /** 1 where something of another colour than the plate's is seen; darker shades may be shadow and are not counted. */
  other: Uint8Array;
  /** 1 where anything differs, shadows too. */
  differs: Uint8Array;
}

const CELLS_PER_MM = 2;
/** The plate is looked at up to this height, mm: no nose touches it higher. */
const MOST_MM = 44;
/** What lies so near to the nose tells nothing of the bare plate, mm. */
const NOSE_REACH_MM = 30;
/** Steps of log chroma and log brightness that count as another colour. */
const CHROMA_STEP = 0.13;
const LIGHTER_STEP = 0.35;
const DARKER_STEP = 0.28;
const FLOOR = 6;

/**
 * Looks which parts of the plate are hidden, row by row against the row's usual colour: bands, grain and light change
 * with height far more than along the plate.
 * @param noseYMm where across the board the nose is
 */
export function viewPlate(
  photo: Raster,
  pose: LensPose,
  pattern: Pattern,
  noseYMm: number,
  cellsPerMm = CELLS_PER_MM,
): PlateView | null {
  const heightMm = Math.min(pattern.board.stop.heightMm - 1, MOST_MM);
  const rows = Math.floor(heightMm * cellsPerMm);
  const fromYMm = Math.max(1, noseYMm - 75);
  const toYMm = Math.min(pattern.widthMm - 1, noseYMm + 75);
  const columns = Math.floor((toYMm - fromYMm) * cellsPerMm);
  if (rows < 8 || columns < 40) return null;
  const light = new Float32Array(columns * rows);
  const warm = new Float32Array(columns * rows);
  const cool = new Float32Array(columns * rows);
  const known = new Uint8Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    const zMm = (row + 0.5) / cellsPerMm;
    for (let column = 0; column < columns; column++) {
      const [x, y] = projectBoardPoint(pose, 0, fromYMm + (column + 0.5) / cellsPerMm, zMm);
      const [x0, y0] = [Math.round(x), Math.round(y)];
      if (x0 < 1 || y0 < 1 || x0 >= photo.widthPx - 1 || y0 >= photo.heightPx - 1) continue;
      // Mean of a cross: single px are noisy in the dark.
      let [r, g, b] = [0, 0, 0];
      for (const [dx, dy] of CROSS) {
        const at = ((y0 + dy) * photo.widthPx + x0 + dx) * 4;
        r += photo.data[at];
        g += photo.data[at + 1];
        b += photo.data[at + 2];
      }
      const i = row * columns + column;
      const [lr, lg, lb] = [Math.log(r / 5 + FLOOR), Math.log(g / 5 + FLOOR), Math.log(b / 5 + FLOOR)];
      light[i] = 0.3 * lr + 0.6 * lg + 0.1 * lb;
      warm[i] = lr - lg;
      cool[i] = lb - lg;
      known[i] = 1;
    }
  }
  const other = new Uint8Array(columns * rows);
  const differs = new Uint8Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    const away: number[] = [];
    for (let column = 0; column < columns; column++) {
      const yMm = fromYMm + (column + 0.5) / cellsPerMm;
      if (known[row * columns + column] && Math.abs(yMm - noseYMm) > NOSE_REACH_MM)
        away.push(row * columns + column);
    }
    if (away.length < 16) continue;
    const [l, w, c] = [light, warm, cool].map((values) => medianOf(away.map((i) => values[i])));
    const noise = Math.max(0.04, 1.6 * medianOf(away.map((i) => Math.hypot(warm[i] - w, cool[i] - c))));
    for (let column = 0; column < columns; column++) {
      const i = row * columns + column;
      if (!known[i]) continue;
      const chroma = Math.hypot(warm[i] - w, cool[i] - c);
      const lighter = light[i] - l;
      // In the dark a step of the 8-bit value is a large step of the log.
      const coarse = 3 / Math.exp(light[i]);
      if (chroma > Math.max(CHROMA_STEP, 2.2 * noise) + coarse || lighter > LIGHTER_STEP + coarse)
        other[i] = 1;
      if (other[i] || -lighter > DARKER_STEP + coarse) differs[i] = 1;
    }
  }
  return { columns, rows, cellsPerMm, fromYMm, other, differs };
}

const CROSS = [[0, 0], [1, 0], [-1, 0], [0, 1], [0, -1]] as const; // prettier-ignore
