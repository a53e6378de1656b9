import { SummedArea } from '../image/summedArea.ts';
import { FLANK_COLUMNS, FLANK_ROWS, type Flank } from './straighten.ts';

/**
 * What is kept of a flank: its pattern without light, shading and what all fish of a kind have in common, as whole
 * numbers of −127 to 127, row by row; `HIDDEN` where nothing is known. 7,680 bytes.
 */
export type FlankDescriptor = Int8Array;

export const HIDDEN = -128;
/** Waves longer than this are light and roundness, cells. */
const WIDE_CELLS = 11;
const FINE_CELLS = 1;
/** A local deviation under this is noise, logs. */
const LEAST_DEVIATION = 0.035;
const STEPS = 42;

/** Describes a flank: log brightness less its local mean, over the local deviation, less each row's own mean. */
export function describeFlank({ light }: Flank): FlankDescriptor {
  const fine = boxMean(boxMean(light, FINE_CELLS), FINE_CELLS);
  const wide = boxMean(fine, WIDE_CELLS);
  const left = fine.map((value, i) => value - wide[i]);
  const squares = boxMean(
    left.map((value) => value * value),
    WIDE_CELLS,
  );
  const pattern = left.map((value, i) => value / Math.hypot(Math.sqrt(squares[i]), LEAST_DEVIATION));
  const out = new Int8Array(FLANK_COLUMNS * FLANK_ROWS).fill(HIDDEN);
  for (let row = 0; row < FLANK_ROWS; row++) {
    let [sum, count] = [0, 0];
    for (let column = 0; column < FLANK_COLUMNS; column++) {
      const value = pattern[row * FLANK_COLUMNS + column];
      if (Number.isNaN(value)) continue;
      sum += value;
      count++;
    }
    const mean = count ? sum / count : 0;
    for (let column = 0; column < FLANK_COLUMNS; column++) {
      const i = row * FLANK_COLUMNS + column;
      const value = pattern[i];
      if (!Number.isNaN(value) && !Number.isNaN(light[i]))
        out[i] = Math.max(-127, Math.min(127, Math.round((value - mean) * STEPS)));
    }
  }
  return out;
}

/**
 * The pattern in cells that are `by` times as wide and high: means of what is known, hidden where less than half is.
 * @param by a divisor of both sides
 */
export function coarserFlank(flank: FlankDescriptor, by: number): FlankDescriptor {
  if (by === 1) return flank;
  const [columns, rows] = [FLANK_COLUMNS / by, FLANK_ROWS / by];
  const coarse = new Int8Array(columns * rows).fill(HIDDEN);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      let [sum, count] = [0, 0];
      for (let r = 0; r < by; r++) {
        const from = (row * by + r) * FLANK_COLUMNS + column * by;
        for (let c = 0; c < by; c++) {
          const value = flank[from + c];
          if (value === HIDDEN) continue;
          sum += value;
          count++;
        }
      }
      if (count >= (by * by) / 2) coarse[row * columns + column] = Math.round(sum / count);
    }
  }
  return coarse;
}

/** Means over squares of known cells; NaN where none is known. */
function boxMean(values: Float32Array, reach: number): Float32Array {
  const area = new SummedArea(FLANK_COLUMNS, FLANK_ROWS, (cell) => values[cell]);
  return values.map((_, cell) =>
    area.meanAround(cell % FLANK_COLUMNS, Math.floor(cell / FLANK_COLUMNS), reach),
  );
}
