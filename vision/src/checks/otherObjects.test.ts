import { describe, expect, it } from 'vitest';
import {
  GREEN,
  block,
  seeDrawn,
  seenAt,
  type CatchWish,
  type Rgb,
} from '../see-catch/drawnCatch.test-data.ts';
import { viewHead } from '../see-catch/headView.ts';
import { seeNose, type NoseSeen } from '../see-catch/nose.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import { contactFinding, seeFront, type FrontSeen } from './contactHidden.ts';
import { moreFishFinding } from './moreFish.ts';

const LENGTH_MM = 402;
const YELLOW: Rgb = [240, 200, 40];

function contactOf(wish: Partial<CatchWish>) {
  const seen = seeDrawn({ lengthMm: LENGTH_MM, ...wish });
  const head = viewHead(seen);
  const front = seeFront(head, seen.farMm);
  const nose = seeNose(seen, head);
  return { seen, front, nose, finding: contactFinding(seen, front, nose, head.axisMm) };
}

describe('the nose at the stop', () => {
  const free = contactOf({});
  const axisMm = free.seen.pattern.widthMm / 2;
  /** Something before the nose: from so far beyond the stop as its height makes it seem, to so far along the head. */
  const lure = (zMm: number, toMm: number, highMm: number) => {
    const [beyondMm] = seenAt(free.seen, 0, axisMm, zMm);
    return [{ outlineMm: block(beyondMm, toMm, axisMm - highMm / 2, axisMm + highMm / 2), colour: YELLOW }];
  };

  it('is seen when nothing lies over it', () => {
    expect(free.finding).toMatchObject({ tone: 'clear', confidence: 0.75 });
    expect(free.front?.chroma).toBeLessThan(0.2);
  });

  it('is hidden by something of another colour that is as high as the cheek', () => {
    const found = contactOf({ things: lure(18, 20, 56) });
    expect(found.front?.chroma).toBeGreaterThan(0.55);
    expect(found.finding).toMatchObject({ tone: 'fault' });
    expect(found.finding.place).not.toBeNull();
  });

  it('may be hidden by something in the fish’s own colour that covers more of the stop than a nose can', () => {
    // A nose of 402 mm reaches 18 mm high (4.5 %), give or take 3.6: at 36 mm it is something else.
    const found = contactOf({ things: lure(36, 20, 40).map((thing) => ({ ...thing, colour: GREEN })) });
    expect((found.nose?.gapMm ?? NaN) / (found.nose?.sigmaMm ?? NaN)).toBeLessThan(-2.6);
    expect(found.finding).toMatchObject({ tone: 'look', confidence: 0.5 });
  });

  it('weighs colour and height together: both make a fault, one a look', () => {
    const low: NoseSeen = { gapMm: -1, leastGapMm: -1, sigmaMm: 2 };
    const high: NoseSeen = { ...low, gapMm: -6 };
    const same: FrontSeen = { chroma: 0.1, height: 0.4 };
    const other: FrontSeen = { chroma: 0.9, height: 0.3 };
    const toneOf = (front: FrontSeen | null, nose: NoseSeen | null) =>
      contactFinding(free.seen, front, nose, axisMm).tone;
    expect(toneOf(same, low)).toBe('clear');
    expect(toneOf(same, high)).toBe('look');
    expect(toneOf(other, low)).toBe('look');
    expect(toneOf(other, null)).toBe('look');
    expect(toneOf(other, high)).toBe('fault');
    expect(toneOf({ ...other, height: 0.8 }, low)).toBe('fault');
    // Shade explains a little of it, and what is higher than the cheek is no head.
    expect(toneOf({ chroma: 0.6, height: 0.8 }, low)).toBe('look');
    expect(toneOf({ ...other, height: 1.5 }, low)).toBe('look');
    // At a head's own height a fainter difference is enough for a look.
    expect(toneOf({ chroma: 0.45, height: 0.8 }, low)).toBe('look');
    expect(toneOf({ chroma: 0.45, height: 0.3 }, low)).toBe('clear');
    expect(toneOf(null, null)).toBe('clear');
  });
});

describe('a second fish', () => {
  const beside = (fromMm: number, toMm: number, highMm: number): SeenCatch =>
    seeDrawn({
      lengthMm: LENGTH_MM,
      things: [{ outlineMm: block(fromMm, toMm, 76 - highMm / 2, 76 + highMm / 2), colour: GREEN }],
    });

  it('is a long, thick piece beyond the tail, whose length is told', () => {
    const finding = moreFishFinding(beside(440, 590, 34), []);
    expect(finding).toMatchObject({ tone: 'look', measure: { unit: 'mm' } });
    expect(Math.abs((finding.measure?.value ?? NaN) - 150)).toBeLessThan(6);
  });

  it.each([
    ['nothing', []],
    ['a short thing', [460, 530, 34]],
    ['a cord', [440, 590, 5]],
  ] as const)('is not %s', (_, [fromMm, toMm, highMm]) => {
    const seen =
      fromMm === undefined ? seeDrawn({ lengthMm: LENGTH_MM }) : beside(fromMm, toMm ?? 0, highMm ?? 0);
    expect(moreFishFinding(seen, []).tone).toBe('clear');
  });

  it('is not the card, wherever that lies', () => {
    const card = [[440, 50], [590, 50], [590, 104], [440, 104]] as const; // prettier-ignore
    expect(moreFishFinding(beside(440, 590, 34), [card]).tone).toBe('clear');
  });
});
