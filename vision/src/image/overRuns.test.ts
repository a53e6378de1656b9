import { seededDice } from '@lauta/core/dice';
import { describe, expect, it } from 'vitest';
import { overRuns } from './overRuns.ts';

describe('extremes over runs', () => {
  it.each([
    [1, 3],
    [7, 3],
    [23, 4],
    [64, 9],
    [20, 30],
  ])('of %i cells are those that are found by looking at each, %i to both sides', (count, reach) => {
    const dice = seededDice(count);
    const cells = Float32Array.from({ length: count }, () => dice());
    for (const extreme of [Math.max, Math.min]) {
      const looked = cells.map((_, i) => extreme(...cells.slice(Math.max(0, i - reach), i + reach + 1)));
      expect(overRuns(cells, reach, extreme)).toEqual(looked);
    }
  });
});
