import { describe, expect, it } from 'vitest';
import { formatPayload, issueCodes, parsePayload } from './index.ts';

function dice(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

describe('the payload', () => {
  it('reads back what it writes', () => {
    const identifier = { eventCode: 'K7Q4M', entrantNumber: 930, code: 'YT1P' };
    expect(formatPayload(identifier)).toBe('lauta:1:K7Q4M:930:YT1P');
    expect(parsePayload('lauta:1:K7Q4M:930:YT1P')).toEqual(identifier);
  });

  it.each([
    '',
    'hello',
    'lauta:2:K7Q4M:930:YT1P',
    'lauta:1:K7Q4M:x:YT1P',
    'lauta:1:KIO4M:930:YT1P',
    'lauta:1:K7Q4M:930:YT1P:9',
    'lauta:1:K7Q4M:930:',
  ])('%j is none', (text) => {
    expect(parsePayload(text)).toBeNull();
  });
});

describe('the codes of a day', () => {
  it('differ in two places or more, never by look-alikes or a swap of neighbours alone', () => {
    const shape = (code: string) =>
      code.replace(/[DQ]/g, '0').replace(/S/g, '5').replace(/B/g, '8').replace(/Z/g, '2');
    const codes = issueCodes(200, dice(42));
    expect(new Set(codes).size).toBe(200);
    for (const a of codes) {
      expect(a).toMatch(/^[0-9A-HJ-NP-TV-Z]{4}$/);
      for (const b of codes) {
        if (a === b) continue;
        const [x, y] = [shape(a), shape(b)];
        const places = [0, 1, 2, 3].filter((i) => x[i] !== y[i]);
        expect(places.length).toBeGreaterThanOrEqual(2);
        const [p = 0, q = 0] = places;
        expect(places.length === 2 && q === p + 1 && x[p] === y[q] && x[q] === y[p]).toBe(false);
      }
    }
  });

  it('refuses more codes than can be told apart', () => {
    expect(() => issueCodes(100, dice(1), 2)).toThrow(RangeError);
  });
});
