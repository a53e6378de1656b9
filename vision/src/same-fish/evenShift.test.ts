import { seededDice } from '@lauta/core/dice';
import { describe, expect, it } from 'vitest';
import { fitEvenShift, type BlockFits } from './evenShift.ts';

const REACH = [5, 3] as const;
const [COLUMNS, ROWS] = [2 * REACH[0] + 1, 2 * REACH[1] + 1];

/** Blocks in three rows that fit best where `shiftAt` puts them, one cell off for half as well; some anywhere. */
function blocks(shiftAt: (along: number, across: number) => [number, number], strays = 0): BlockFits {
  const dice = seededDice(5);
  const places = Array.from(
    { length: 45 },
    (_, i) => [(i % 15) / 14 - 0.5, Math.floor(i / 15) / 4 - 0.25] as const,
  );
  const alike = new Float64Array(places.length * ROWS * COLUMNS);
  places.forEach(([along, across], i) => {
    const [x, y] = dice() < strays ? [10 * dice() - 5, 6 * dice() - 3] : shiftAt(along, across);
    for (let row = 0; row < ROWS; row++)
      for (let column = 0; column < COLUMNS; column++)
        alike[(i * ROWS + row) * COLUMNS + column] = 0.8 * Math.exp(-0.7 * ((column - REACH[0] - x) ** 2 + (row - REACH[1] - y) ** 2)); // prettier-ignore
  });
  return { reach: REACH, places, alike, energy: new Float64Array(alike.length).fill(1000) };
}

describe('the even shift by which a flank lies otherwise', () => {
  const stretched = (along: number, across: number): [number, number] => [
    1 + 3 * along - across,
    -0.5 + 2 * along,
  ];

  it.each([
    { strays: 0, withinCells: 0.7 },
    { strays: 0.33, withinCells: 1 },
  ])(
    'is found to $withinCells cells where a share of $strays fits best anywhere',
    ({ strays, withinCells }) => {
      const fits = blocks(stretched, strays);
      const shiftOf = fitEvenShift(fits);
      fits.places.forEach(([along, across], i) => {
        const [x, y] = shiftOf(i);
        const [trueX, trueY] = stretched(along, across);
        expect(Math.hypot(x - trueX, y - trueY)).toBeLessThan(withinCells);
      });
    },
  );

  it('is none where nothing is known', () => {
    const fits = blocks(stretched);
    const shiftOf = fitEvenShift({ ...fits, alike: new Float64Array(fits.alike.length).fill(NaN) });
    expect(shiftOf(7)).toEqual([0, 0]);
  });
});
