import type { HeadView } from './headView.ts';
import { logColourAt } from './logColour.ts';
import { columnMiddle, columnsTo, rowMiddle, rowsTo } from '../grid/planeGrid.ts';

export interface EyeSeen {
  /** How much darker the pupil is than what lies about it (log brightness). */
  contrast: number;
  /** On which side of the head it lies: backs are where the eyes are. */
  side: 'far' | 'near';
  /** Its middle, in the plane at the nose's height, mm. */
  placeMm: readonly [number, number];
}

/** A pupil's radius as a share of the length (from memory: eyes are 2 to 4 % of it across, pupils half of that). */
const PUPIL_SHARES = [0.005, 0.007];
/** Where the ring about it is looked at, in its radii, and in how many directions. */
const RING = 1.85;
const DIRECTIONS = 12;
/** So many of them may be as dark as the pupil: a spot beside it, a lid. */
const MOST_DARK = 2;
/** An eye lies within these shares of the length behind the stop, and beside the head's axis. */
const ALONG_SHARES = [0.01, 0.17] as const;
const ASIDE_SHARES = [0.006, 0.065] as const;
/** It stands out by so much, and by so much more than anything on the other side of the axis. */
const LEAST_CONTRAST = 0.9;
const LEAST_AHEAD = 0.3;
/** Share of the head's height beyond which neither side is sure: a hand or a card that merges with the head moves its middle. */
const UNSURE_ACROSS = [0.45, 0.58] as const;

/**
 * Looks for the eye: the darkest small disc with a lighter ring all about it; null where none stands out, or where the
 * head's axis and its outline disagree on the side. Lengths in mm.
 */
export function seeEye({ view, fish, axisMm }: HeadView, lengthMm: number): EyeSeen | null {
  const { columns, rows, cellsPerMm } = view;
  const light = smoothLight(view.rgb, columns, rows);
  const columnAt = (share: number): number => Math.round(columnsTo(view, share * lengthMm));
  const axisRow = rowsTo(view, axisMm);
  const [leastRows, mostRows] = ASIDE_SHARES.map((share) => share * lengthMm * cellsPerMm);
  const best = {
    far: { contrast: -Infinity, column: 0, row: 0 },
    near: { contrast: -Infinity, column: 0, row: 0 },
  };
  for (const share of PUPIL_SHARES) {
    const radius = share * lengthMm * cellsPerMm;
    const disc = offsets(columns, 0.5 * radius, 4);
    const ring = offsets(columns, RING * radius, DIRECTIONS);
    const margin = Math.ceil(RING * radius) + 1;
    const step = Math.max(1, Math.round(radius / 4));
    const fromRow = Math.max(margin, Math.round(axisRow - mostRows));
    const toRow = Math.min(rows - margin, Math.round(axisRow + mostRows));
    const fromColumn = Math.max(margin, columnAt(ALONG_SHARES[0]));
    const toColumn = Math.min(columns - margin, columnAt(ALONG_SHARES[1]));
    for (let row = fromRow; row < toRow; row += step) {
      if (Math.abs(row - axisRow) < leastRows) continue;
      const side = best[row < axisRow ? 'far' : 'near'];
      for (let column = fromColumn; column < toColumn; column += step) {
        const at = row * columns + column;
        if (!fish[at]) continue;
        let inside = light[at];
        for (const by of disc) inside += light[at + by];
        const contrast = ringLight(light, fish, at, ring) - inside / (disc.length + 1);
        if (contrast > side.contrast) Object.assign(side, { contrast, column, row });
      }
    }
  }
  const side = best.far.contrast > best.near.contrast ? 'far' : 'near';
  const { contrast, column, row } = best[side];
  if (contrast < LEAST_CONTRAST || contrast - best[side === 'far' ? 'near' : 'far'].contrast < LEAST_AHEAD)
    return null;
  const across = acrossHead(fish, columns, rows, column, row);
  if (side === 'far' ? across > UNSURE_ACROSS[1] : across < UNSURE_ACROSS[0]) return null;
  return {
    contrast,
    side,
    placeMm: [columnMiddle(view, column), rowMiddle(view, row)],
  };
}

/** The light of a ring's darkest parts, but for a few; −Infinity where it leaves the head. */
function ringLight(light: Float32Array, fish: Uint8Array, at: number, ring: readonly number[]): number {
  const darkest = new Array<number>(MOST_DARK + 1).fill(Infinity);
  let outside = 0;
  for (const by of ring) {
    if (!fish[at + by] && ++outside > 1) return -Infinity;
    let value = light[at + by];
    for (let i = 0; i <= MOST_DARK; i++) {
      const former = darkest[i];
      if (value >= former) continue;
      darkest[i] = value;
      value = former;
    }
  }
  return darkest[MOST_DARK];
}

/** Cells on a circle, as steps in a grid so many columns wide. */
function offsets(columns: number, radius: number, directions: number): number[] {
  return Array.from({ length: directions }, (_, i) => {
    const angle = (2 * Math.PI * i) / directions;
    return Math.round(radius * Math.sin(angle)) * columns + Math.round(radius * Math.cos(angle));
  });
}

/** Log brightness, each cell the mean of itself and its eight neighbours. */
function smoothLight(rgb: Float32Array, columns: number, rows: number): Float32Array {
  const light = Float32Array.from({ length: columns * rows }, (_, i) => logColourAt(rgb, i)[0]);
  const smooth = light.slice();
  for (let row = 1; row < rows - 1; row++) {
    for (let column = 1; column < columns - 1; column++) {
      let sum = 0;
      for (let by = -1; by <= 1; by++) {
        const at = (row + by) * columns + column;
        sum += light[at - 1] + light[at] + light[at + 1];
      }
      smooth[row * columns + column] = sum / 9;
    }
  }
  return smooth;
}

/** Where a cell lies between the head's edges in its column: 0 at the far one, 1 at the near one. */
function acrossHead(fish: Uint8Array, columns: number, rows: number, column: number, row: number): number {
  let [top, bottom] = [row, row];
  while (top > 0 && fish[(top - 1) * columns + column]) top--;
  while (bottom < rows - 1 && fish[(bottom + 1) * columns + column]) bottom++;
  return (row - top) / Math.max(1, bottom - top);
}
