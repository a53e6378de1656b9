import { describe, expect, it } from 'vitest';
import { findBoard, type MeasuringBoard } from '../board/board.ts';
import { drawBoardPicture, type BoardView } from '../board/drawnBoard.test-data.ts';
import { projectBoardPoint, type LensPose } from '../camera/lens.ts';
import { colourLookup } from '../image/colourAt.ts';
import { patternOf } from './pattern.ts';
import { smoothTones, tonesOf } from './tones.ts';
import { likeliestZero, movedTo } from './zero.ts';

const birch = findBoard('birch-30in') as MeasuringBoard;
const pattern = patternOf(birch);

/** The pose as it would be fitted if the lines had slipped, and lay some mm across. */
function slipped(pose: LensPose, slips: number, acrossMm = 0): LensPose {
  const { rotation: r, zeroMm } = movedTo(pose, pattern, { shift: -slips, turned: false });
  return { ...pose, zeroMm: [zeroMm[0] + r[1] * acrossMm, zeroMm[1] + r[4] * acrossMm, zeroMm[2] + r[7] * acrossMm] }; // prettier-ignore
}

function zeroIn(view: BoardView, slips: number, acrossMm = 0) {
  const { raster, pose } = drawBoardPicture(birch, { widthPx: 2000, heightPx: 1500, ...view });
  return likeliestZero(
    smoothTones(tonesOf(raster)),
    slipped(pose, slips, acrossMm),
    pattern,
    colourLookup(raster),
  );
}

describe('the zero of fitted lines', () => {
  it.each([0, -2, 3])('is told when they slipped by %i', (slips) => {
    const zero = zeroIn({ seed: 40 }, slips);
    expect([zero.shift, zero.turned]).toEqual([slips, false]);
    expect(zero.odds).toBeGreaterThan(Math.log(100));
  });

  it.each([-3, 3])('is told when they lie %i mm off across the scale', (acrossMm) => {
    const zero = zeroIn({ seed: 41 }, 1, acrossMm);
    expect([zero.shift, zero.turned]).toEqual([1, false]);
    expect(zero.odds).toBeGreaterThan(Math.log(100));
  });

  it('is told by the ends of the face where most of the numerals are hidden', () => {
    const zero = zeroIn({ seed: 42, coveredMm: [60, 560] }, -1);
    expect([zero.shift, zero.turned]).toEqual([-1, false]);
    expect(zero.odds).toBeGreaterThan(Math.log(10));
  });

  it('is open between both ways round where no numeral is printed, and at its place either way', () => {
    const zero = zeroIn({ seed: 43, withNumerals: false }, 2);
    expect(zero.turned ? -zero.shift : zero.shift).toBe(2);
    expect(zero.odds).toBeLessThan(Math.log(10));
  });

  it('half a turn makes the far end the zero, and twice that nothing', () => {
    const { pose } = drawBoardPicture(birch, { seed: 44 });
    const turned = movedTo(pose, pattern, { shift: 0, turned: true });
    const [x, y] = projectBoardPoint(turned, 0, 0);
    const [u, v] = projectBoardPoint(pose, pattern.lengthMm, pattern.widthMm);
    expect(Math.hypot(x - u, y - v)).toBeLessThan(1e-6);
    const back = movedTo(turned, pattern, { shift: 0, turned: true });
    back.zeroMm.forEach((value, i) => expect(value).toBeCloseTo(pose.zeroMm[i] ?? NaN, 6));
  });
});
