import { describe, expect, it } from 'vitest';
import { G_PER_POUND, MM_PER_INCH } from '../units/index.ts';
import { GUESS_WITHIN, judgeWeight, standardWeightsG, weightRange } from './index.ts';

const only = (species: string, lengthMm: number): number => {
  const [weight, ...more] = standardWeightsG(species, lengthMm);
  expect(more).toEqual([]);
  return weight ?? NaN;
};

describe('standard weight', () => {
  // Henson 1991, evaluated at Gabelhouse's (1984) length classes with R 4.2: 10^(-5.528+3.273*log10(TL)).
  it.each([
    [200, 100.7560599],
    [300, 379.8550169],
    [380, 823.4395297],
    [510, 2157.1343094],
    [630, 4307.6619925],
  ])('of a largemouth bass of %d mm', (lengthMm, massG) => {
    expect(only('Largemouth bass', lengthMm)).toBeCloseTo(massG, 6);
  });

  // Published English intercepts (Anderson & Neumann 1996; Neumann et al. 2012; from memory): another form, rounded
  // to three decimals, 0.4 % in weight at the worst.
  it.each([
    ['largemouth bass', -3.587, 3.273],
    ['smallmouth bass', -3.491, 3.2],
    ['spotted bass', -3.533, 3.215],
    ['walleye', -3.642, 3.18],
    ['northern pike', -3.745, 3.096],
    ['muskellunge', -4.052, 3.325],
    ['striped bass', -3.358, 3.007],
    ['yellow perch', -3.506, 3.23],
    ['channel catfish', -3.829, 3.294],
    ['common carp', -3.194, 2.92],
    ['lake trout', -3.778, 3.2462],
  ])('of %s agrees with the form in inches and pounds', (species, a, b) => {
    const pounds = 10 ** (a + b * Math.log10(24));
    expect(only(species, 24 * MM_PER_INCH) / G_PER_POUND / pounds).toBeCloseTo(1, 2);
  });

  it('of a kind that lives in both has one for standing and one for running water', () => {
    // Check values at 500 mm: 1485.7 g (lentic), 1376.2 g (lotic), Simpkins & Hubert 1996.
    expect(standardWeightsG('Rainbow trout', 500).map((one) => Math.round(10 * one) / 10)).toEqual([1485.7, 1376.2]); // prettier-ignore
  });

  it('is not lent to a kind that has none, nor to a fish under the equation’s least length', () => {
    expect(standardWeightsG('European perch', 300)).toEqual([]);
    expect(standardWeightsG('bass', 300)).toEqual([]);
    expect(standardWeightsG('Largemouth bass', 149)).toEqual([]);
    expect(weightRange('Zander', 500)).toBeNull();
  });
});

describe('a weight beside its length', () => {
  const range = (species: string, lengthMm: number) => {
    const found = weightRange(species, lengthMm);
    if (!found) throw new Error('expected an equation');
    return found;
  };

  // Relative weights of the 17 pike of Laengelmaevesi, 34.8 to 68.0 cm (R package rrcov, data set fish): a real, thin population.
  it.each([74.0, 85.9, 79.3, 73.3, 99.5, 76.8, 73.6, 82.3, 85.4, 68.4, 74.1, 86.2, 84.7, 87.0, 89.8, 87.0, 76.7])(
    'fits at a relative weight of %d',
    (wr) => {
      const pike = range('northern pike', 500);
      expect(judgeWeight(pike, (wr / 100) * pike.usualG)).toBe('fits');
    },
  ); // prettier-ignore

  it('of another kind, or read in another unit, does not fit', () => {
    // A pike of 28 in weighs 5.446 lb by its equation; a muskellunge of that length is no such fish, kilograms neither.
    const pike = range('northern pike', 28 * MM_PER_INCH);
    expect(judgeWeight(pike, 5.446 * G_PER_POUND)).toBe('fits');
    expect(judgeWeight(pike, 5446)).toBe('heavy');
    expect(judgeWeight(pike, 2.47 * G_PER_POUND)).toBe('light');
  });

  it('that was only guessed is given more room', () => {
    const bass = range('Largemouth bass', 18 * MM_PER_INCH);
    expect(judgeWeight(bass, 6 * G_PER_POUND)).toBe('heavy');
    expect(judgeWeight(bass, 6 * G_PER_POUND, GUESS_WITHIN)).toBe('fits');
    expect(judgeWeight(bass, 14 * G_PER_POUND, GUESS_WITHIN)).toBe('heavy');
    expect(judgeWeight(bass, G_PER_POUND, GUESS_WITHIN)).toBe('light');
  });
});
