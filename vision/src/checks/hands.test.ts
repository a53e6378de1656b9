import { describe, expect, it } from 'vitest';
import type { Finding } from '../findings/findings.ts';
import { SKIN, block, seeDrawn, type Rgb } from '../see-catch/drawnCatch.test-data.ts';
import { viewHead } from '../see-catch/headView.ts';
import { seeReaching, type ReachingThing } from '../see-catch/reaching.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import { eyeCoveredFinding } from './eyeCovered.ts';
import { gripFinding } from './gripInPhoto.ts';
import { handInGillsFinding } from './handInGills.ts';
import { seeStripe } from './stripe.ts';
import { tailHeldFinding } from './tailHeld.ts';

const LENGTH_MM = 402;
/** From beyond the angler's edge onto the fish's axis, over so much of the board. */
const arm = (fromMm: number, toMm: number, colour: Rgb = SKIN, untilYMm = 62) => ({
  outlineMm: block(fromMm, toMm, untilYMm, 260),
  colour,
});

/** What is said of hands and tools where no eye is seen. */
function answersOf(seen: SeenCatch): Finding[] {
  const things = seeReaching(seen);
  const { plate, axisMm } = viewHead(seen);
  return [
    tailHeldFinding(seen, things),
    eyeCoveredFinding(seen, things, false),
    handInGillsFinding(seen, things),
    gripFinding(seen, things, plate, axisMm),
  ];
}

describe('what a hand hides', () => {
  const tones = (fromMm: number, toMm: number, untilYMm?: number): Record<string, Finding> => {
    const seen = seeDrawn({ lengthMm: LENGTH_MM, things: [arm(fromMm, toMm, SKIN, untilYMm)] });
    return Object.fromEntries(answersOf(seen).map((finding) => [finding.check, finding]));
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
    const eyeTone = (fromMm: number, toMm: number, isEyeSeen = false) =>
      eyeCoveredFinding(seen, [coming(fromMm, toMm)], isEyeSeen).tone;
    const gillTone = (fromMm: number, toMm: number) => handInGillsFinding(seen, [coming(fromMm, toMm)]).tone;
    expect(eyeTone(4, 100)).toBe('look');
    expect(eyeTone(4, 100, true)).toBe('clear');
    expect(eyeTone(60, 130)).toBe('clear');
    // A deep fish's belly hides the edge for longer than a hand does.
    expect(eyeTone(4, 200)).toBe('clear');
    expect(gillTone(80, 150)).toBe('look');
    expect(gillTone(120, 190)).toBe('clear');
    expect(gillTone(80, 240)).toBe('clear');
  });

  it('narrower than four fingers at the head is a tool', () => {
    const found = tones(24, 40, 80);
    expect(found['grip-in-photo']).toMatchObject({ tone: 'fault' });
    expect(found['grip-in-photo']?.place).not.toBeNull();
  });

  const gripOf = (things: Parameters<typeof seeDrawn>[0]['things'] & object) => {
    const seen = seeDrawn({ lengthMm: LENGTH_MM, things });
    return answersOf(seen).find(({ check }) => check === 'grip-in-photo');
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
