import { expect, it } from 'vitest';
import { chanceWords } from './chance.ts';

it.each([
  [1, 'over 99 %'],
  [0.9999, 'over 99 %'],
  [0.99, '99 %'],
  [0.5, '50 %'],
  [0.006, '1 %'],
  [0, 'under 1 %'],
])('a chance of %d is told as %s', (share, words) => {
  expect(chanceWords(share)).toBe(words);
});
