import { describe, expect, it } from 'vitest';
import type { Finding } from '../findings/findings.ts';
import type { Point } from '../geometry/point.ts';
import { seeDarkMouth, type DarkMouth } from './darkMouth.ts';
import { block, seeDrawn, seenAt, type CatchWish, type Rgb } from '../see-catch/drawnCatch.test-data.ts';
import { viewHead } from '../see-catch/headView.ts';
import { mouthFinding, seeMouth } from './mouthOpen.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';

const LENGTH_MM = 402;
const RED: Rgb = [150, 40, 36];
const BLACK: Rgb = [22, 24, 18];
const shut = seeDrawn({ lengthMm: LENGTH_MM });
const AXIS_MM = shut.pattern.widthMm / 2;

type Corner = readonly [xMm: number, offMm: number];

/** The head with something drawn on it, given in mm from nose and axis, at the nose's height. */
function headWith(corners: readonly Corner[], colour: Rgb): SeenCatch {
  const outlineMm = corners.map(([x, off]): Point => seenAt(shut, x, AXIS_MM + off, 0.045 * LENGTH_MM));
  return seeDrawn({ lengthMm: LENGTH_MM, things: [{ outlineMm, colour }] });
}

/** A wedge from `fromMm` backwards. */
function wedge(highMm: number, deepMm: number, fromMm = 0): Corner[] {
  return [[fromMm, -highMm / 2], [fromMm + deepMm, 0], [fromMm, highMm / 2]]; // prettier-ignore
}

function findingIn(seen: SeenCatch, side?: 'far' | 'near'): Finding {
  const head = viewHead(seen);
  return mouthFinding(seen, seeMouth(head, seen.farMm, side), seeDarkMouth(head, seen.farMm, side));
}

describe('flesh in an open mouth', () => {
  it('is a fault whose gap is about what was drawn', () => {
    const finding = findingIn(headWith(wedge(16, 42), RED));
    expect(finding.tone).toBe('fault');
    expect(finding.measure?.value).toBeGreaterThan(7);
    expect(finding.measure?.value).toBeLessThan(18);
    expect(finding.place).not.toBeNull();
  });

  it('is not a red spot that reaches back for less than a mouth does', () => {
    expect(findingIn(headWith(wedge(5, 7), RED)).tone).not.toBe('fault');
  });

  it('is not seen in a head of one colour, nor in a red patch behind the cheek', () => {
    expect(findingIn(shut).tone).toBe('clear');
    const things: CatchWish['things'] = [{ outlineMm: block(90, 130, 66, 86), colour: RED }];
    expect(findingIn(seeDrawn({ lengthMm: LENGTH_MM, things })).tone).toBe('clear');
  });

  it('is not a red eye: eyes lie towards the back', () => {
    const tone = (offMm: number, side: 'far' | 'near'): string => {
      const outlineMm = block(4, 22, AXIS_MM + offMm - 5, AXIS_MM + offMm + 5);
      return findingIn(seeDrawn({ lengthMm: LENGTH_MM, things: [{ outlineMm, colour: RED }] }), side).tone;
    };
    expect([tone(-15, 'far'), tone(15, 'near')]).toEqual(['clear', 'clear']);
    expect(tone(8, 'far')).toBe('fault');
  });

  it('is not a red thing that is higher than any gape', () => {
    const huge = { gapMm: 70, deepMm: 40, placeMm: [10, 76] as const };
    expect(mouthFinding(shut, huge, null)).toMatchObject({ tone: 'clear' });
    expect(mouthFinding(shut, { ...huge, gapMm: 14 }, null)).toMatchObject({ tone: 'fault' });
    expect(mouthFinding(shut, { ...huge, gapMm: 3.2, deepMm: 9 }, null)).toMatchObject({ tone: 'look' });
    const none = { tone: 'clear', measure: { value: 0, unit: 'mm' } };
    expect(mouthFinding(shut, null, null)).toMatchObject(none);
  });
});

describe('an open mouth that is dark inside', () => {
  it.each([
    [8, 50],
    [13, 44],
  ])('of %i mm at the nose and %i mm deep is found, and read to a fifth', (highMm, deepMm) => {
    const seen = headWith(wedge(highMm, deepMm, 2), BLACK);
    const dark = seeDarkMouth(viewHead(seen), seen.farMm);
    // A wedge narrows by similar triangles: what is seen of it from 3 mm farther back on is lower by its share.
    expect(Math.abs((dark?.gapMm ?? NaN) - highMm)).toBeLessThan(0.2 * highMm);
    const finding = findingIn(seen);
    expect(finding.tone).not.toBe('clear');
    expect(finding.place).not.toBeNull();
  });

  it('is a fault from 8 mm on where its height falls evenly, and a look where it is lower or less even', () => {
    const dark: DarkMouth = { gapMm: 9, deepMm: 40, unevenness: 0.03, placeMm: [4, 76] };
    expect(mouthFinding(shut, null, dark)).toMatchObject({ tone: 'fault', measure: { value: 9 } });
    expect(mouthFinding(shut, null, { ...dark, gapMm: 7 }).tone).toBe('look');
    expect(mouthFinding(shut, null, { ...dark, unevenness: 0.07 }).tone).toBe('look');
    expect(mouthFinding(shut, null, { ...dark, gapMm: 4 }).tone).toBe('clear');
  });

  // The line of a shut mouth is about a millimetre broad, fish have bars and hands throw shadows: from memory.
  it.each<[string, readonly Corner[]]>([
    [
      'the line of a shut mouth',
      [
        [0, -0.6],
        [48, 0.4],
        [48, 1.6],
        [0, 0.6],
      ],
    ],
    [
      'a bar along the head',
      [
        [0, -4],
        [90, -4],
        [90, 4],
        [0, 4],
      ],
    ],
    [
      'a wedge that opens backwards',
      [
        [0, 0],
        [50, -7],
        [50, 7],
      ],
    ],
    ['a spot behind the nose', wedge(12, 40, 30)],
    [
      'a shadow over both jaws',
      [
        [-5, -40],
        [40, -40],
        [15, 40],
        [-5, 40],
      ],
    ],
  ])('is not %s', (_, corners) => {
    const seen = headWith(corners, BLACK);
    expect(seeDarkMouth(viewHead(seen), seen.farMm)).toBeNull();
    expect(findingIn(seen).tone).toBe('clear');
  });
});
