import { describe, expect, it } from 'vitest';
import { GREEN, seeDrawn, type CatchWish } from '../see-catch/drawnCatch.test-data.ts';
import type { Point } from '../geometry/point.ts';
import { viewHead } from '../see-catch/headView.ts';
import { seeNose, type NoseSeen } from '../see-catch/nose.ts';
import { noseFinding } from './noseGap.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';

function noseOf(wish: CatchWish): { seen: SeenCatch; nose: NoseSeen; tone: string } {
  const seen = seeDrawn(wish);
  const head = viewHead(seen);
  const nose = seeNose(seen, head);
  if (!nose) throw new Error('nose: expected to be seen');
  return { seen, nose, tone: noseFinding(seen, nose, head.axisMm).tone };
}

describe('the nose’s gap', () => {
  // A nose at height h that touches is seen beyond the stop by h·x/(H − h): similar triangles.
  it.each([
    [0, 'clear'],
    [12, 'fault'],
    [22, 'fault'],
  ])('of %i mm is read to within three standard uncertainties: %s', (noseGapMm, tone) => {
    const found = noseOf({ lengthMm: 402, noseGapMm });
    expect(Math.abs(found.nose.gapMm - noseGapMm)).toBeLessThan(3 * found.nose.sigmaMm);
    expect(found.tone).toBe(tone);
  });

  it('is as doubtful as the height of the nose, which goes with the fish’s length', () => {
    const short = noseOf({ lengthMm: 300 }).nose.sigmaMm;
    const long = noseOf({ lengthMm: 520 }).nose.sigmaMm;
    expect(long / short).toBeGreaterThan(1.4);
    expect(long / short).toBeLessThan(520 / 300 + 0.1);
  });

  it('of a fish that carries its nose low is a look or clear, never a fault', () => {
    const { tone } = noseOf({ lengthMm: 402, noseHeightMm: 0.033 * 402 });
    expect(['clear', 'look']).toContain(tone);
  });

  it('is told with its place, at the nose', () => {
    const { seen, nose } = noseOf({ lengthMm: 402, noseGapMm: 18 });
    const finding = noseFinding(seen, nose, seen.pattern.widthMm / 2);
    const [x, y] = seen.toPhoto(18, seen.pattern.widthMm / 2, 0.045 * 402);
    expect(Math.hypot((finding.place?.[0] ?? NaN) - x, (finding.place?.[1] ?? NaN) - y)).toBeLessThan(12);
    expect(finding.measure).toMatchObject({ unit: 'mm' });
  });

  it('is at least as wide as a blunt head begins, and less where a pointed snout may go on into the dark', () => {
    const blunt = noseOf({ lengthMm: 402, noseGapMm: 16 });
    expect(blunt.nose.leastGapMm).toBeCloseTo(blunt.nose.gapMm, 0);
    expect(blunt.tone).toBe('fault');
    // A snout before it, from 5 mm wide on: it goes on narrowing to the stop.
    const axisMm = blunt.seen.pattern.widthMm / 2;
    const snout: Point[] = [[4, axisMm - 2.5], [20, axisMm - 8], [20, axisMm + 8], [4, axisMm + 2.5]]; // prettier-ignore
    const pointed = noseOf({ lengthMm: 402, noseGapMm: 16, things: [{ outlineMm: snout, colour: GREEN }] });
    expect(pointed.nose.leastGapMm).toBeLessThan(pointed.nose.gapMm - 4);
    const narrow: NoseSeen = { gapMm: 9, leastGapMm: 2.9, sigmaMm: 1.6 };
    expect(noseFinding(pointed.seen, narrow, axisMm).tone).toBe('look');
    expect(noseFinding(pointed.seen, { ...narrow, leastGapMm: 5 }, axisMm).tone).toBe('fault');
  });

  it('of less than four mm is not told from none, nor more where the nose’s height is doubtful', () => {
    const { seen } = noseOf({ lengthMm: 402 });
    const toneOf = (gapMm: number, sigmaMm: number) =>
      noseFinding(seen, { gapMm, leastGapMm: gapMm, sigmaMm }, 76).tone;
    expect([toneOf(3.8, 0.8), toneOf(4.1, 0.8), toneOf(4.6, 0.8)]).toEqual(['clear', 'look', 'fault']);
    expect([toneOf(6, 4), toneOf(7.5, 4), toneOf(11, 4)]).toEqual(['clear', 'look', 'fault']);
  });

  it('is a look when shadow alone joins nose and stop', () => {
    const apart: NoseSeen = { gapMm: 9, leastGapMm: 0, sigmaMm: 1.5 };
    expect(noseFinding(seeDrawn({ lengthMm: 402 }), apart, 76).tone).toBe('look');
  });

  it('says nothing from a camera that does not see the stop’s face', () => {
    expect(noseFinding(seeDrawn({ lengthMm: 402 }), null, 76)).toMatchObject({
      tone: 'clear',
      confidence: 0.3,
    });
  });
});
