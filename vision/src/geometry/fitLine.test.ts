import { expect, it } from 'vitest';
import { fitLine } from './fitLine.ts';

it('goes through points of a line, and between points beside it', () => {
  expect(fitLine([[1, 5], [2, 7], [4, 11]])).toMatchObject({ yMean: 23 / 3, slope: expect.closeTo(2, 12) }); // prettier-ignore
  // By hand: Sxy = 3.5, Sxx = 5 about the means 1.5 and 2.75.
  const fitted = fitLine([[0, 2], [1, 2], [2, 3], [3, 4]]); // prettier-ignore
  expect(fitted).toEqual({ xMean: 1.5, yMean: 2.75, slope: 3.5 / 5 });
});

it('has no slope where all lie over one place', () => {
  expect(fitLine([[3, 1], [3, 2]]).slope).toBeNaN(); // prettier-ignore
});
