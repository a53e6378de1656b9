import { describe, expect, it } from 'vitest';
import { cardAbout } from './codeSeen.ts';

describe('the card about a code', () => {
  it('is an ID-1 card, 85.6 × 54 mm (ISO/IEC 7810), with the code 7 mm from three of its edges', () => {
    // A symbol of version 3 has 29 modules and 4 quiet ones at each side (ISO/IEC 18004): of 40 mm it fills 29/37.
    const from = 7 + (40 * 4) / 37;
    const to = from + (40 * 29) / 37;
    const [a, , c] = cardAbout([[from, from], [to, from], [to, to], [from, to]]); // prettier-ignore
    expect(a[0]).toBeCloseTo(0, 9);
    expect(a[1]).toBeCloseTo(0, 9);
    expect(c[0]).toBeCloseTo(85.6, 9);
    expect(c[1]).toBeCloseTo(54, 9);
  });

  it('turns and grows with the code', () => {
    const [a, b] = cardAbout([[0, 0], [0, 62.7], [-62.7, 62.7], [-62.7, 0]]); // prettier-ignore
    // A quarter turn at about twice the size.
    expect(Math.abs(b[0] - a[0])).toBeLessThan(1e-9);
    expect(b[1] - a[1]).toBeCloseTo((85.6 * 62.7) / ((40 * 29) / 37), 6);
  });
});
