import { describe, expect, it } from 'vitest';
import { compareHead, keepHead, type ToldHeads } from './index.ts';

describe('heads that a device was told', () => {
  it('are kept in their order, each once, the first and the newest always', () => {
    let told: ToldHeads = [];
    for (let seq = 1; seq <= 200; seq++) told = keepHead(told, { seq, hash: `hash ${seq}` });
    expect(told.length).toBeLessThanOrEqual(12);
    expect(told[0]?.seq).toBe(1);
    expect(told.slice(-5).map(({ seq }) => seq)).toEqual([196, 197, 198, 199, 200]);
    expect(told.map(({ seq }) => seq)).toEqual(told.map(({ seq }) => seq).toSorted((a, b) => a - b));
    expect(keepHead(told, { seq: 200, hash: 'another' })).toBe(told);
  });

  it.each([
    ['stands', 'ab', null],
    ['was written anew', 'cd', { seq: 7, hash: 'ab', now: 'cd' }],
    ['was cut off', null, { seq: 7, hash: 'ab', now: null }],
  ])('a head that %s', (_what, now, found) => {
    expect(compareHead({ seq: 7, hash: 'ab' }, now)).toEqual(found);
  });
});
