import { expect, it } from 'vitest';
import { countWords } from './count.ts';

it.each([
  [0, '0 fields are'],
  [1, '1 field is'],
  [2, '2 fields are'],
  [21, '21 fields are'],
])('%i takes its form', (count, words) => {
  expect(countWords(count, 'field is', 'fields are')).toBe(words);
});
