import { describe, expect, it } from 'vitest';
import { findBoard, type MeasuringBoard } from '../board/board.ts';
import { patternOf } from '../find-board/pattern.ts';
import { drawBoardPicture, flatFish, insideOf } from '../board/drawnBoard.test-data.ts';
import type { FishOutline } from '../find-fish/outline.ts';
import type { SeenFish } from '../find-fish/locateFish.ts';
import type { Point, Quad } from '../geometry/point.ts';
import { GREEN, block, see } from '../see-catch/drawnCatch.test-data.ts';
import type { EyeSeen } from '../see-catch/eye.ts';
import { dorsalFinding } from './dorsal.ts';
import { facingFinding } from './facing.ts';
import { curledFinding } from './tailCurled.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import { isOfStandingTail, seeTailShadow } from './tailShadow.ts';

const LENGTH_MM = 400;
const pattern = patternOf(findBoard('birch-30in') as MeasuringBoard);
const AXIS_MM = pattern.widthMm / 2;

/** Half a fish's height at a share of its length: a body, a wrist, a tail that flares. */
function halfAt(s: number): number {
  if (s > 0.86) return 16 + 130 * (s - 0.86);
  return Math.max(14, 52 * Math.sin(Math.PI * Math.min(1, s / 0.9)) ** 0.8);
}

interface Lie {
  isReversed?: boolean;
  /** How far the middle lies beside the axis, by share of the length, mm. */
  asideAt?: (s: number) => number;
  handMm?: readonly (readonly [number, number])[];
}

function outlineOfLie({ isReversed = false, asideAt = () => 0, handMm = [] }: Lie): FishOutline {
  const xMm = Array.from({ length: LENGTH_MM / 2 }, (_, i) => 2 * i + 1);
  const half = xMm.map((x) => halfAt(isReversed ? 1 - x / LENGTH_MM : x / LENGTH_MM));
  const middle = xMm.map((x) => AXIS_MM + asideAt(x / LENGTH_MM));
  return {
    xMm,
    upperMm: middle.map((y, i) => y - half[i]),
    lowerMm: middle.map((y, i) => y + half[i]),
    handMm,
  };
}

const NO_PIECE = { label: 1, area: 0, fromColumn: 0, toColumn: -1, fromRow: 0, toRow: -1 };

/** A catch of which only the outline and the colours of the flank matter. */
function seenLie(
  lie: Lie,
  rgbAt: (s: number, across: number) => readonly [number, number, number],
): SeenCatch {
  const outline = outlineOfLie(lie);
  const [columns, rows] = [LENGTH_MM + 40, Math.ceil(pattern.widthMm) + 24];
  const [fromXMm, fromYMm] = [-20, -12];
  const rgb = new Float32Array(columns * rows * 3);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const s = (fromXMm + column + 0.5) / LENGTH_MM;
      const i = Math.max(0, Math.min(outline.xMm.length - 1, Math.round((s * LENGTH_MM - 1) / 2)));
      const [upper, lower] = [outline.upperMm[i], outline.lowerMm[i]];
      rgb.set(rgbAt(s, (fromYMm + row + 0.5 - upper) / (lower - upper)), 3 * (row * columns + column));
    }
  }
  const view = {
    columns,
    rows,
    cellsPerMm: 1,
    fromXMm,
    fromYMm,
    rgb,
    inPhoto: new Uint8Array(columns * rows).fill(1),
  };
  return {
    outline,
    pattern,
    farMm: LENGTH_MM,
    // No cell belongs to the fish: there is no tail whose shadow could be looked for.
    fish: { view, labels: new Int32Array(columns * rows), piece: NO_PIECE } as unknown as SeenFish,
    toPhoto: (x: number, y: number) => [x, y],
  } as unknown as SeenCatch;
}

const DARK = [60, 72, 40] as const;
const PALE = [214, 208, 188] as const;
const MIDDLE = [130, 136, 96] as const;
const backUp = (_: number, across: number): readonly [number, number, number] =>
  across < 0.45 ? DARK : across < 0.6 ? MIDDLE : PALE;
const backDown = (s: number, across: number): readonly [number, number, number] => backUp(s, 1 - across);
const plain = (): readonly [number, number, number] => MIDDLE;

describe('which way round a fish lies', () => {
  const CORNERS: Quad = [[100, 100], [900, 110], [890, 300], [95, 290]]; // prettier-ignore

  it('is right with the stop at the left and the flare at the far end', () => {
    expect(facingFinding(CORNERS, outlineOfLie({})).tone).toBe('clear');
    expect(facingFinding(CORNERS, null)).toMatchObject({ tone: 'clear', confidence: 0.6 });
  });

  it('is wrong with the stop at the right of the picture, whatever lies on the board', () => {
    const turned: Quad = [CORNERS[2], CORNERS[3], CORNERS[0], CORNERS[1]];
    expect(facingFinding(turned, outlineOfLie({}))).toMatchObject({ tone: 'fault', place: turned[0] });
    expect(facingFinding(turned, null).tone).toBe('fault');
  });

  it('is wrong with the tail at the stop, a little less surely under a hand', () => {
    const free = facingFinding(CORNERS, outlineOfLie({ isReversed: true }));
    // With an eye at the stop the outline may be of half a fish: a person looks.
    expect(facingFinding(CORNERS, outlineOfLie({ isReversed: true }), true).tone).toBe('look');
    const held = facingFinding(CORNERS, outlineOfLie({ isReversed: true, handMm: [[150, 210]] }));
    expect([free.tone, held.tone]).toEqual(['fault', 'fault']);
    expect(held.confidence).toBeLessThan(free.confidence);
  });
});

describe('back and belly', () => {
  it('lie as they should when the lighter side is the angler’s', () => {
    expect(dorsalFinding(seenLie({}, backUp), null)).toMatchObject({ tone: 'clear', confidence: 0.9 });
  });

  it('lie the wrong way when the far side is lighter and no more colourful', () => {
    expect(dorsalFinding(seenLie({}, backDown), null)).toMatchObject({ tone: 'fault' });
  });

  it('are a look when light alone speaks: a colourful far side in the sun', () => {
    const sunlit = (_: number, across: number) =>
      across < 0.5 ? ([230, 190, 60] as const) : ([120, 118, 112] as const);
    expect(dorsalFinding(seenLie({}, sunlit), null).tone).toBe('look');
  });

  it('of a plain fish are not called wrong', () => {
    expect(dorsalFinding(seenLie({}, plain), null).tone).not.toBe('fault');
  });

  it('are judged beside a hand, not under it', () => {
    const hand = [[130, 220]] as const;
    const underHand = (s: number, across: number) => (s > 0.3 && s < 0.57 ? PALE : backUp(s, across));
    expect(dorsalFinding(seenLie({ handMm: hand }, underHand), null).tone).toBe('clear');
    const covered = [[10, 390]] as const;
    expect(dorsalFinding(seenLie({ handMm: covered }, backUp), null)).toMatchObject({
      tone: 'clear',
      confidence: 0.4,
    });
  });

  it('are judged by cheek and wrist where hands and fins leave nothing of the flank’s middle', () => {
    const covered = [[100, 300]] as const;
    expect(dorsalFinding(seenLie({ handMm: covered }, backUp), null)).toMatchObject({ tone: 'clear' });
    expect(dorsalFinding(seenLie({ handMm: covered }, backDown), null)).toMatchObject({ tone: 'fault' });
  });
});

describe('back and belly beside the eye, which lies towards the back', () => {
  const eye = (side: 'far' | 'near'): EyeSeen => ({ contrast: 1.4, side, placeMm: [30, AXIS_MM] });
  const sunFromFar = (_: number, across: number) =>
    across < 0.5 ? ([140, 150, 100] as const) : ([120, 128, 86] as const);

  it('are the wrong way round with the eye at the near side and the light side far', () => {
    expect(dorsalFinding(seenLie({}, backDown), eye('near'))).toMatchObject({ tone: 'fault', confidence: 0.88 }); // prettier-ignore
    expect(dorsalFinding(seenLie({}, sunFromFar), eye('near')).tone).toBe('fault');
  });

  it('are a look where eye and light disagree', () => {
    expect(dorsalFinding(seenLie({}, plain), eye('near')).tone).toBe('look');
    expect(dorsalFinding(seenLie({}, backDown), eye('far')).tone).toBe('look');
    // A belly that is plainly at the near side is believed more than what was taken for an eye.
    expect(dorsalFinding(seenLie({}, backUp), eye('near')).tone).toBe('clear');
  });

  it('are no look for the sun’s sake alone', () => {
    expect(dorsalFinding(seenLie({}, sunFromFar), null).tone).toBe('look');
    expect(dorsalFinding(seenLie({}, sunFromFar), eye('far')).tone).toBe('clear');
  });

  it('are told by the eye alone where hands leave no flank', () => {
    const covered = { handMm: [[10, 390]] } as const;
    expect(dorsalFinding(seenLie(covered, backUp), eye('far'))).toMatchObject({ tone: 'clear', confidence: 0.85 }); // prettier-ignore
    expect(dorsalFinding(seenLie(covered, backUp), eye('near')).tone).toBe('look');
  });
});

describe('a tail', () => {
  it('in the body’s line is straight, also on a fish that lies askew', () => {
    expect(curledFinding(seenLie({}, plain)).tone).toBe('clear');
    expect(curledFinding(seenLie({ asideAt: (s) => 12 * s }, plain)).tone).toBe('clear');
  });

  it('that is bent beside it by more than a hundredth of the length is a look, with how far', () => {
    const bent = curledFinding(seenLie({ asideAt: (s) => 40 * Math.max(0, s - 0.78) * 5 }, plain));
    expect(bent).toMatchObject({ tone: 'look', measure: { unit: 'mm' } });
    // At 94 % of the length it lies 40·0.16·5 = 32 mm aside; the wrist, which bends with it, takes some of that.
    expect(Math.abs((bent.measure?.value ?? NaN) - 32)).toBeLessThan(9);
  });

  it('is not judged when hands hide the body', () => {
    expect(curledFinding(seenLie({ handMm: [[60, 330]] }, plain))).toMatchObject({
      tone: 'clear',
      confidence: 0.4,
    });
  });
});

describe('a tail that stands up', () => {
  const SHADE = 0.45;

  /** The tail's outline thrown aside, the farther the nearer to its end, as the sun throws what rises there. */
  function thrown(awayMm: readonly [number, number], fromShare = 0.8): Point[] {
    return flatFish(LENGTH_MM, AXIS_MM)
      .filter(([x]) => x > fromShare * LENGTH_MM)
      .map(([x, y]): Point => {
        const rise = (x / LENGTH_MM - fromShare) / (1 - fromShare);
        return [x + rise * awayMm[0], y + rise * awayMm[1]];
      });
  }

  function seeShaded(shadow: Point[] | null): SeenCatch {
    const board = findBoard('birch-30in') as MeasuringBoard;
    const outlineMm = flatFish(LENGTH_MM, AXIS_MM);
    const isShaded = shadow ? insideOf(shadow) : () => false;
    const isFish = insideOf(outlineMm);
    return see(
      drawBoardPicture(board, {
        seed: 3,
        widthPx: 1000,
        heightPx: 750,
        lightAt: (x, y) => (isShaded(x, y) && !isFish(x, y) ? SHADE : 1),
        things: [{ outlineMm, colour: GREEN }],
      }),
    );
  }

  it.each([
    [18, -8],
    [10, 12],
  ])('is told by its shadow, thrown by %i mm along and %i mm across', (along, across) => {
    const seen = seeShaded(thrown([along, across]));
    const shadow = seeTailShadow(seen);
    expect(shadow?.seenShare).toBeGreaterThan(0.9);
    expect(Math.hypot((shadow?.awayMm[0] ?? NaN) - along, (shadow?.awayMm[1] ?? NaN) - across)).toBeLessThan(
      6,
    );
    expect(shadow?.step).toBeCloseTo(-Math.log(SHADE), 0);
    expect(curledFinding(seen)).toMatchObject({ tone: 'look' });
    expect(curledFinding(seen).place).not.toBeNull();
  });

  it.each([
    ['nearly all of a faint one', 0.92, 0.16, 12, true],
    ['most of a sharp one', 0.79, 0.32, 12, true],
    ['most of a faint one', 0.79, 0.2, 12, false],
    ['a half of a sharp one', 0.53, 0.39, 12, false],
    ['one so near that the tail may lie', 1, 0.5, 7, false],
  ])('shows by its shadow or not: %s', (_, seenShare, step, awayMm, isStanding) => {
    expect(isOfStandingTail({ seenShare, step, awayMm: [awayMm, 0] })).toBe(isStanding);
  });

  it('is none without a shadow, with the narrow one of a tail that lies, or before a shadow’s straight edge', () => {
    const straight = block(330, 440, AXIS_MM + 22, AXIS_MM + 70);
    for (const shadow of [null, thrown([4, 2]), straight])
      expect(curledFinding(seeShaded(shadow)).tone).toBe('clear');
  });
});
