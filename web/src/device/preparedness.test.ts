import { describe, expect, it } from 'vitest';
import { parsePreparedness } from './preparedness.ts';

describe('what is stored of a day’s preparations', () => {
  it('comes back as it was', () => {
    const stored = { craft: 'bank', ticked: ['net', 'mat'], checks: { clock: true, battery: false } };
    expect(parsePreparedness(JSON.stringify(stored))).toEqual(stored);
  });

  it.each([
    ['nothing', null],
    ['what is no JSON', '{'],
    ['another kind of value', '7'],
    ['fields that nobody knows', '{"craft":"airship","ticked":[1,2],"checks":{"clock":"yes","mood":true}}'],
  ])('is empty where the store holds %s', (_, text) => {
    expect(parsePreparedness(text)).toEqual({ craft: 'kayak', ticked: [], checks: {} });
  });
});
