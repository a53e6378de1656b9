import { describe, expect, it } from 'vitest';
import type { Point } from '../geometry/point.ts';
import { seeDrawn, seenAt, type CatchWish, type Rgb } from './drawnCatch.test-data.ts';
import { seeEye, type EyeSeen } from './eye.ts';
import { viewHead } from './headView.ts';

const LENGTH_MM = 402;
const BLACK: Rgb = [14, 14, 12];
const AMBER: Rgb = [190, 130, 40];
const DARK_GREEN: Rgb = [40, 52, 26];
const plain = seeDrawn({ lengthMm: LENGTH_MM });
const AXIS_MM = plain.pattern.widthMm / 2;

/** A disc at the nose's height, seen on the face's plane. */
function disc(xMm: number, offMm: number, radiusMm: number): Point[] {
  return Array.from({ length: 16 }, (_, i) => {
    const angle = (2 * Math.PI * i) / 16;
    const [x, y] = [xMm + radiusMm * Math.cos(angle), AXIS_MM + offMm + radiusMm * Math.sin(angle)];
    return seenAt(plain, x, y, 0.045 * LENGTH_MM);
  });
}

function eyeOf(things: CatchWish['things'], wish: Partial<CatchWish> = {}): EyeSeen | null {
  const seen = seeDrawn({ lengthMm: LENGTH_MM, ...(things ? { things } : {}), ...wish });
  return seeEye(viewHead(seen), seen.farMm);
}

// An eye is 2 to 4 % of a fish's length across, the pupil half of that: from memory.
const eyeAt = (xMm: number, offMm: number) => [
  { outlineMm: disc(xMm, offMm, 6), colour: AMBER },
  { outlineMm: disc(xMm, offMm, 3), colour: BLACK },
];

describe('an eye', () => {
  it.each([
    ['far', -8],
    ['near', 8],
  ] as const)('is seen at the %s side, where it was drawn', (side, offMm) => {
    const eye = eyeOf(eyeAt(38, offMm));
    expect(eye?.side).toBe(side);
    const [x, y] = eye?.placeMm ?? [NaN, NaN];
    expect(Math.hypot(x - 38, y - AXIS_MM - offMm)).toBeLessThan(4);
  });

  it('is seen without a light ring too: the skin about a pupil is lighter', () => {
    expect(eyeOf([{ outlineMm: disc(38, -8, 2.6), colour: BLACK }])?.side).toBe('far');
  });

  it('is none on a plain head, nor a faint spot, nor a bar across the head', () => {
    expect(eyeOf(undefined)).toBeNull();
    expect(eyeOf([{ outlineMm: disc(38, -8, 3), colour: DARK_GREEN }])).toBeNull();
    const bar = [[36, -14], [40, -14], [40, 14], [36, 14]].map(([x, y]) => seenAt(plain, x as number, AXIS_MM + (y as number), 0.045 * LENGTH_MM)); // prettier-ignore
    expect(eyeOf([{ outlineMm: bar, colour: BLACK }])).toBeNull();
  });

  it('is not told where both sides show one, nor from a spot on the body', () => {
    expect(eyeOf([...eyeAt(38, -8), ...eyeAt(38, 8)])).toBeNull();
    expect(eyeOf(eyeAt(110, -10))).toBeNull();
  });
});
