import { describe, expect, it } from 'vitest';
import { block, GREEN, seeDrawn, seenAt, type CatchWish } from './drawnCatch.test-data.ts';
import type { Point } from '../point.ts';
import { viewHead } from './headView.ts';
import { mouthFinding, seeMouth } from './mouth.ts';
import { noseFinding, seeNose, type NoseSeen } from './nose.ts';
import type { SeenCatch } from './seenCatch.ts';

const RED = [150, 40, 36] as const;

function noseOf(wish: CatchWish): { seen: SeenCatch; nose: NoseSeen; verdict: string } {
  const seen = seeDrawn(wish);
  const head = viewHead(seen);
  const nose = seeNose(seen, head);
  if (!nose) throw new Error('nose: expected to be seen');
  return { seen, nose, verdict: noseFinding(seen, nose, head.axisMm).verdict };
}

describe('the nose’s gap', () => {
  // A nose at height h that touches is seen beyond the stop by h·x/(H − h): similar triangles.
  it.each([
    [0, 'clear'],
    [12, 'fault'],
    [22, 'fault'],
  ])('of %i mm is read to within three standard uncertainties: %s', (noseGapMm, verdict) => {
    const found = noseOf({ lengthMm: 402, noseGapMm });
    expect(Math.abs(found.nose.gapMm - noseGapMm)).toBeLessThan(3 * found.nose.sigmaMm);
    expect(found.verdict).toBe(verdict);
  });

  it('is as doubtful as the height of the nose, which goes with the fish’s length', () => {
    const short = noseOf({ lengthMm: 300 }).nose.sigmaMm;
    const long = noseOf({ lengthMm: 520 }).nose.sigmaMm;
    expect(long / short).toBeGreaterThan(1.4);
    expect(long / short).toBeLessThan(520 / 300 + 0.1);
  });

  it('of a fish that carries its nose low is a look or clear, never a fault', () => {
    const { verdict } = noseOf({ lengthMm: 402, noseHeightMm: 0.033 * 402 });
    expect(['clear', 'look']).toContain(verdict);
  });

  it('is told with its place, at the nose', () => {
    const { seen, nose } = noseOf({ lengthMm: 402, noseGapMm: 18 });
    const finding = noseFinding(seen, nose, seen.pattern.widthMm / 2);
    const [x, y] = seen.toPhoto(18, seen.pattern.widthMm / 2, 0.045 * 402);
    expect(Math.hypot((finding.place?.[0] ?? NaN) - x, (finding.place?.[1] ?? NaN) - y)).toBeLessThan(12);
    expect(finding.measure).toMatchObject({ unit: 'mm' });
    expect(finding.why).toMatch(/^The nose lies about \d+ mm from the stop\.$/);
  });

  it('is at least as wide as a blunt head begins, and less where a pointed snout may go on into the dark', () => {
    const blunt = noseOf({ lengthMm: 402, noseGapMm: 16 });
    expect(blunt.nose.leastGapMm).toBeCloseTo(blunt.nose.gapMm, 0);
    expect(blunt.verdict).toBe('fault');
    // A snout before it, from 5 mm wide on: it goes on narrowing to the stop.
    const axisMm = blunt.seen.pattern.widthMm / 2;
    const snout: Point[] = [[4, axisMm - 2.5], [20, axisMm - 8], [20, axisMm + 8], [4, axisMm + 2.5]]; // prettier-ignore
    const pointed = noseOf({ lengthMm: 402, noseGapMm: 16, things: [{ outlineMm: snout, colour: GREEN }] });
    expect(pointed.nose.leastGapMm).toBeLessThan(pointed.nose.gapMm - 4);
    const narrow: NoseSeen = { gapMm: 9, leastGapMm: 2.9, sigmaMm: 1.6 };
    expect(noseFinding(pointed.seen, narrow, axisMm).verdict).toBe('look');
    expect(noseFinding(pointed.seen, { ...narrow, leastGapMm: 5 }, axisMm).verdict).toBe('fault');
  });

  it('of less than four mm is not told from none, nor more where the nose’s height is doubtful', () => {
    const { seen } = noseOf({ lengthMm: 402 });
    const verdictOf = (gapMm: number, sigmaMm: number) =>
      noseFinding(seen, { gapMm, leastGapMm: gapMm, sigmaMm }, 76).verdict;
    expect([verdictOf(3.8, 0.8), verdictOf(4.1, 0.8), verdictOf(4.6, 0.8)]).toEqual([
      'clear',
      'look',
      'fault',
    ]);
    expect([verdictOf(6, 4), verdictOf(7.5, 4), verdictOf(11, 4)]).toEqual(['clear', 'look', 'fault']);
  });

  it('is a look when shadow alone joins nose and stop', () => {
    const apart: NoseSeen = { gapMm: 9, leastGapMm: 0, sigmaMm: 1.5 };
    expect(noseFinding(seeDrawn({ lengthMm: 402 }), apart, 76).verdict).toBe('look');
  });

  it('says nothing from a camera that does not see the stop’s face', () => {
    expect(noseFinding(seeDrawn({ lengthMm: 402 }), null, 76)).toMatchObject({
      verdict: 'clear',
      confidence: 0.3,
    });
  });
});

describe('an open mouth', () => {
  /** A red wedge from the nose backwards, at the nose's height. */
  function wedge(seen: SeenCatch, highMm: number, deepMm: number): CatchWish {
    const axisMm = seen.pattern.widthMm / 2;
    const zMm = 0.045 * 402;
    const at = (x: number, y: number) => seenAt(seen, x, axisMm + y, zMm);
    return {
      lengthMm: 402,
      things: [{ outlineMm: [at(0, -highMm / 2), at(deepMm, 0), at(0, highMm / 2)], colour: RED }],
    };
  }

  const shut = seeDrawn({ lengthMm: 402 });

  it('is a fault whose gap is about what was drawn', () => {
    const seen = seeDrawn(wedge(shut, 16, 42));
    const finding = mouthFinding(seen, seeMouth(viewHead(seen), seen.farMm));
    expect(finding.verdict).toBe('fault');
    expect(finding.measure?.value).toBeGreaterThan(7);
    expect(finding.measure?.value).toBeLessThan(18);
    expect(finding.place).not.toBeNull();
  });

  it('is not a red spot that reaches back for less than a mouth does', () => {
    const seen = seeDrawn(wedge(shut, 5, 7));
    expect(mouthFinding(seen, seeMouth(viewHead(seen), seen.farMm)).verdict).not.toBe('fault');
  });

  it('is not seen in a head of one colour, nor in a red patch behind the cheek', () => {
    expect(mouthFinding(shut, seeMouth(viewHead(shut), shut.farMm)).verdict).toBe('clear');
    const marked = seeDrawn({
      lengthMm: 402,
      things: [{ outlineMm: block(90, 130, 66, 86), colour: RED }],
    });
    expect(mouthFinding(marked, seeMouth(viewHead(marked), marked.farMm)).verdict).toBe('clear');
  });

  it('is not a red eye: eyes lie towards the back', () => {
    const axisMm = shut.pattern.widthMm / 2;
    const red = (offMm: number) => seeDrawn({ lengthMm: 402, things: [{ outlineMm: block(4, 22, axisMm + offMm - 5, axisMm + offMm + 5), colour: RED }] }); // prettier-ignore
    const verdict = (offMm: number, side: 'far' | 'near'): string => {
      const seen = red(offMm);
      return mouthFinding(seen, seeMouth(viewHead(seen), seen.farMm, side)).verdict;
    };
    expect([verdict(-15, 'far'), verdict(15, 'near')]).toEqual(['clear', 'clear']);
    expect(verdict(8, 'far')).toBe('fault');
  });

  it('is not a red thing that is higher than any gape', () => {
    const huge = { gapMm: 70, deepMm: 40, placeMm: [10, 76] as const };
    expect(mouthFinding(shut, huge)).toMatchObject({ verdict: 'clear' });
    expect(mouthFinding(shut, { ...huge, gapMm: 14 })).toMatchObject({ verdict: 'fault' });
    expect(mouthFinding(shut, { ...huge, gapMm: 3.2, deepMm: 9 })).toMatchObject({ verdict: 'look' });
    expect(mouthFinding(shut, null)).toMatchObject({ verdict: 'clear', measure: { value: 0, unit: 'mm' } });
  });
});
