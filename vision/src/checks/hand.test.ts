import { describe, expect, it } from 'vitest';
import type { Finding } from '../findings/findings.ts';
import { viewHead } from './headView.ts';
import { GREEN, SKIN, block, seeDrawn, type Rgb } from './drawnCatch.test-data.ts';
import { seeStripe } from './stripe.ts';
import { handFindings, seeReaching, type FishBox, type ReachingThing } from './hand.ts';

const LENGTH_MM = 402;
/** From beyond the angler's edge onto the fish's axis, over so much of the board. */
const arm = (fromMm: number, toMm: number, colour: Rgb = SKIN, untilYMm = 62) => ({
  outlineMm: block(fromMm, toMm, untilYMm, 260),
  colour,
});

const cover = (thing: ReachingThing | undefined, box: Partial<FishBox>): number =>
  thing?.coverOf({ alongFrom: 0.4, alongTo: 0.5, acrossFrom: 0.4, acrossTo: 0.8, ...box }) ?? NaN;

describe('what reaches in over the edge', () => {
  const held = seeDrawn({ lengthMm: LENGTH_MM, things: [arm(170, 240)] });
  const things = seeReaching(held);
  const hand = things.find(({ side }) => side === 'near');

  it('is found where it crosses the edge', () => {
    expect(Math.abs((hand?.fromMm ?? NaN) - 170)).toBeLessThan(8);
    expect(Math.abs((hand?.toMm ?? NaN) - 240)).toBeLessThan(8);
  });

  it('is told from the fish by its own colour, cell by cell', () => {
    expect(cover(hand, { alongFrom: 0.46, alongTo: 0.56 })).toBeGreaterThan(0.85);
    expect(cover(hand, { alongFrom: 0.7, alongTo: 0.8 })).toBeLessThan(0.1);
    expect(cover(hand, { alongFrom: 0.1, alongTo: 0.3 })).toBeLessThan(0.1);
    expect(hand?.hides(205, 0.6)).toBe(true);
    expect(hand?.hides(320, 0.6)).toBe(false);
  });

  it('lies over the fish as far along as it was drawn', () => {
    const [from, to] = hand?.overMm ?? [NaN, NaN];
    expect(Math.abs(from - 170)).toBeLessThan(14);
    expect(Math.abs(to - 240)).toBeLessThan(14);
  });

  it('is told from a deep fish’s belly that hides the edge beside it, by what goes on outside', () => {
    const belly = { outlineMm: block(30, 330, 100, 152), colour: GREEN };
    const beside = seeReaching(seeDrawn({ lengthMm: LENGTH_MM, things: [belly, arm(60, 130)] }));
    const hand = beside.find(({ side, toMm }) => side === 'near' && toMm < 160);
    expect(Math.abs((hand?.fromMm ?? NaN) - 60)).toBeLessThan(14);
    expect(Math.abs((hand?.toMm ?? NaN) - 130)).toBeLessThan(14);
    // Without the arm nothing of it goes on outside.
    expect(seeReaching(seeDrawn({ lengthMm: LENGTH_MM, things: [belly] }))).toEqual([]);
  });

  it('is nothing on a free fish', () => {
    expect(seeReaching(seeDrawn({ lengthMm: LENGTH_MM }))).toEqual([]);
  });

  it('is found by hidden lines too, when it has the board’s own colour', () => {
    const glove = seeDrawn({
      lengthMm: LENGTH_MM,
      boardId: 'slate-75cm',
      colour: [168, 172, 150],
      things: [arm(60, 130, [38, 46, 54], 30)],
    });
    const found = seeReaching(glove).find(({ side }) => side === 'near');
    expect(found?.fromMm).toBeLessThan(75);
    expect(found?.toMm).toBeGreaterThan(110);
  });
});

describe('what a hand hides', () => {
  const tones = (fromMm: number, toMm: number, untilYMm?: number): Record<string, Finding> => {
    const seen = seeDrawn({ lengthMm: LENGTH_MM, things: [arm(fromMm, toMm, SKIN, untilYMm)] });
    return Object.fromEntries(
      handFindings(seen, seeReaching(seen), viewHead(seen), false).map((finding) => [finding.check, finding]),
    );
  };

  it('in the middle of the body is nothing that a rule asks for', () => {
    const found = tones(180, 250);
    for (const check of ['tail-held', 'eye-covered', 'grip-in-photo'])
      expect(found[check]?.tone).toBe('clear');
  });

  it('over the eye is a fault', () => {
    expect(tones(16, 70, 48)['eye-covered']).toMatchObject({ tone: 'fault' });
  });

  it('over the tail is a fault', () => {
    expect(tones(350, 410, 50)['tail-held']).toMatchObject({
      tone: 'fault',
      measure: { unit: 'share' },
    });
  });

  it('at the gill cover alone is a look: whether fingers are under it is for people', () => {
    expect(tones(78, 118, 60)['hand-in-gills']?.tone).toBe('look');
  });

  it('in the fish’s own colours is told by where it comes in: at the head, where no eye is seen, and at the gill cover', () => {
    const seen = seeDrawn({ lengthMm: LENGTH_MM });
    const coming = (fromMm: number, toMm: number): ReachingThing => ({ fromMm, toMm, side: 'near', coverOf: () => 0, hides: () => false, overMm: null }); // prettier-ignore
    const toneOf = (check: string, fromMm: number, toMm: number, isEyeSeen = false) =>
      handFindings(seen, [coming(fromMm, toMm)], viewHead(seen), isEyeSeen).find((one) => one.check === check)
        ?.tone;
    expect(toneOf('eye-covered', 4, 100)).toBe('look');
    expect(toneOf('eye-covered', 4, 100, true)).toBe('clear');
    expect(toneOf('eye-covered', 60, 130)).toBe('clear');
    // A deep fish's belly hides the edge for longer than a hand does.
    expect(toneOf('eye-covered', 4, 200)).toBe('clear');
    expect(toneOf('hand-in-gills', 80, 150, true)).toBe('look');
    expect(toneOf('hand-in-gills', 120, 190, true)).toBe('clear');
    expect(toneOf('hand-in-gills', 80, 240, true)).toBe('clear');
  });

  it('narrower than four fingers at the head is a tool', () => {
    const found = tones(24, 40, 80);
    expect(found['grip-in-photo']).toMatchObject({ tone: 'fault' });
    expect(found['grip-in-photo']?.place).not.toBeNull();
  });

  const gripOf = (things: Parameters<typeof seeDrawn>[0]['things'] & object) => {
    const seen = seeDrawn({ lengthMm: LENGTH_MM, things });
    return handFindings(seen, seeReaching(seen), viewHead(seen), false).find(
      ({ check }) => check === 'grip-in-photo',
    );
  };

  it('over the stop beside the head is looked at as a tool; the bare stop is not', () => {
    expect(gripOf([])?.tone).toBe('clear');
    const overStop = gripOf([{ outlineMm: block(-60, 2, 108, 124), colour: [40, 90, 220] }]);
    expect(overStop?.tone).toBe('look');
    expect(overStop?.place).not.toBeNull();
  });

  it('beside the head on the ground and next to the edge on the face is a tool’s handle; less of it is not', () => {
    const stick = (fromMm: number, toMm: number, fromYMm = 140) => [{ outlineMm: block(fromMm, toMm, fromYMm, 320), colour: [60, 64, 70] as Rgb }]; // prettier-ignore
    const handle = gripOf(stick(20, 42));
    expect(handle).toMatchObject({ tone: 'fault' });
    expect(handle?.place).not.toBeNull();
    // Less of it on the face is looked at: between 3 and 14 mm inside of the edge 3 mm are covered.
    expect(gripOf(stick(20, 42, 146))?.tone).toBe('look');
    // On the ground alone it may be a seam or a shadow; as broad as an arm, or far from the head, it is something else.
    for (const other of [stick(20, 42, 156), stick(20, 90), stick(300, 322)])
      expect(gripOf(other)?.tone).toBe('clear');
  });

  it.each([
    [10, 30, 20],
    [40, 54, 14],
    [-40, -12, 28],
  ])('from %i to %i mm before the edge is seen where it lies, %i mm broad', (fromMm, toMm, broadMm) => {
    const seen = seeDrawn({
      lengthMm: LENGTH_MM,
      things: [{ outlineMm: block(fromMm, toMm, 155, 330), colour: [200, 60, 40] }],
    });
    const stripe = seeStripe(seen);
    expect(stripe?.score).toBeGreaterThan(0.8);
    expect(Math.abs((stripe?.xMm ?? NaN) - (fromMm + toMm) / 2)).toBeLessThan(5);
    expect(Math.abs((stripe?.widthMm ?? NaN) - broadMm)).toBeLessThan(6);
  });
});
