import { seededDice } from '@lauta/core/dice';
import { describe, expect, it } from 'vitest';
import { SummedArea } from './summedArea.ts';

const COLUMNS = 17;
const ROWS = 11;

/** The same by brute force. */
function meanBySumming(values: readonly number[], column: number, row: number, reach: number): number {
  let [sum, count] = [0, 0];
  for (let r = row - reach; r <= row + reach; r++) {
    for (let c = column - reach; c <= column + reach; c++) {
      if (r < 0 || c < 0 || r >= ROWS || c >= COLUMNS) continue;
      const value = values[r * COLUMNS + c];
      if (Number.isNaN(value)) continue;
      sum += value;
      count++;
    }
  }
  return count === 0 ? NaN : sum / count;
}

describe('means over squares of a grid', () => {
  const dice = seededDice(17);
  const values = Array.from({ length: COLUMNS * ROWS }, () => (dice() < 0.2 ? NaN : 200 * dice() - 60));
  const area = new SummedArea(COLUMNS, ROWS, (cell) => values[cell]);

  it.each([0, 1, 3, 20])(
    'are those of summing one by one, unknown cells and borders left out: reach %i',
    (reach) => {
      for (let row = 0; row < ROWS; row++) {
        for (let column = 0; column < COLUMNS; column++) {
          const wanted = meanBySumming(values, column, row, reach);
          const mean = area.meanAround(column, row, reach);
          if (Number.isNaN(wanted)) expect(mean).toBeNaN();
          else expect(mean).toBeCloseTo(wanted, 9);
        }
      }
    },
  );

  it('are unknown where nothing is known', () => {
    expect(new SummedArea(3, 3, () => NaN).meanAround(1, 1, 1)).toBeNaN();
  });
});
