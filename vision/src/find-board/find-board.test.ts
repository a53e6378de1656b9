import { seededDice } from '@lauta/core/dice';
import { describe, expect, it } from 'vitest';
import { SHIPPED_BOARDS, boardLines, findBoard, type MeasuringBoard } from '../board/board.ts';
import { drawBoardPicture } from '../board/drawnBoard.test-data.ts';
import { boardPointOf, projectBoardPoint, turnedBy, type LensPose } from '../camera/lens.ts';
import { latticeHeights } from './heights.ts';
import { numeralText, numeralsSeen, voteByNumerals } from './numerals.ts';
import { numeralStepMm, patternOf, slipStepMm } from './pattern.ts';
import { findParallels, planesOf } from './boardPlane.ts';
import { fitSigmaMm, measureLines, refineOutwards, refinePose } from './refine.ts';
import { findStrokes } from './strokes.ts';
import { halveTones, smoothTones, toneAt, tonesOf, type Tones } from './tones.ts';

const board = (id: string): MeasuringBoard => findBoard(id) as MeasuringBoard;
const birch = board('birch-30in');
const slate = board('slate-75cm');

describe('a pattern', () => {
  it.each([
    ['birch-30in', 6.35, 25.4, 25.4, true, 121],
    ['sand-26in', 12.7, 25.4, 25.4, true, 53],
    ['slate-75cm', 5, 50, 50, false, 151],
  ] as const)('of %s has its steps, its ink and each line once', (id, step, numeral, slip, dark, count) => {
    const pattern = patternOf(board(id));
    expect(pattern.stepMm).toBeCloseTo(step, 9);
    expect(numeralStepMm(pattern)).toBeCloseTo(numeral, 9);
    expect(slipStepMm(pattern)).toBeCloseTo(slip, 9);
    expect(pattern.inkDarker).toBe(dark);
    expect(pattern.lines).toHaveLength(count);
    expect(pattern.lines.map(({ xMm }) => xMm)).toEqual(boardLines(board(id)).map(({ xMm }) => xMm));
  });

  it('slips by its coarsest lines where numerals are rarer than they', () => {
    const rare = { ...birch, numerals: { ...birch.numerals, every: 2 } };
    expect(slipStepMm(patternOf(rare))).toBeCloseTo(25.4, 9);
    expect(numeralStepMm(patternOf(rare))).toBeCloseTo(50.8, 9);
  });

  it('tells kinds of line apart by their spans alone', () => {
    const { lines, kinds } = patternOf(birch);
    expect(kinds).toHaveLength(3);
    // Every fourth quarter is a full inch.
    expect(lines.slice(0, 5).map(({ kind }) => kind)).toEqual([0, 1, 2, 1, 0]);
  });
});

/** Tones of a bright ground with straight dark marks about 2 px broad. */
function tonesWith(marks: readonly (readonly [number, number, number, number])[], depth = 0.8): Tones {
  const [widthPx, heightPx] = [200, 120];
  const data = new Float32Array(widthPx * heightPx).fill(5);
  for (const [x0, y0, x1, y1] of marks) {
    for (let row = y0; row <= y1; row++) {
      const middle = x0 + ((x1 - x0) * (row - y0)) / (y1 - y0);
      for (let x = Math.floor(middle) - 4; x <= middle + 5; x++)
        data[row * widthPx + x] = data[row * widthPx + x] - depth * Math.exp(-((x - middle) ** 2) / 2);
    }
  }
  return { widthPx, heightPx, data };
}

describe('strokes', () => {
  it('are found where marks are, to a tenth of a px', () => {
    const marks = [[40.3, 10, 40.3, 60], [90, 20, 98.5, 100], [150.7, 30, 146, 70]] as const; // prettier-ignore
    const strokes = findStrokes(tonesWith(marks), true);
    expect(strokes).toHaveLength(3);
    for (const [x0, y0, x1, y1] of marks) {
      const middle = (x0 + x1) / 2;
      const found = strokes.find((one) => Math.abs((one.x0 + one.x1) / 2 - middle) < 2);
      expect(Math.abs(((found?.x0 ?? NaN) + (found?.x1 ?? NaN)) / 2 - middle)).toBeLessThan(0.1);
      const slope = ((found?.x1 ?? NaN) - (found?.x0 ?? NaN)) / ((found?.y1 ?? NaN) - (found?.y0 ?? NaN));
      expect(Math.abs(slope - (x1 - x0) / (y1 - y0))).toBeLessThan(0.01);
      expect(found?.lengthPx).toBeGreaterThan(0.9 * (y1 - y0));
    }
  });

  it('are dark or light, as the ink is', () => {
    const tones = tonesWith([[60, 10, 60, 90]]);
    expect(findStrokes(tones, false).filter(({ lengthPx }) => lengthPx > 40)).toHaveLength(2);
    const middles = findStrokes(tones, false).map(({ x0 }) => x0);
    expect(middles.every((x) => Math.abs(x - 60) > 1.5)).toBe(true);
  });

  it('are not made of what is short, faint or lying', () => {
    expect(findStrokes(tonesWith([[60, 50, 60, 54]]), true)).toEqual([]);
    expect(findStrokes(tonesWith([[60, 10, 60, 90]], 0.03), true)).toEqual([]);
    expect(findStrokes(tonesWith([[20, 50, 180, 54]]), true)).toEqual([]);
  });

  it('bridge one missing row, and no gap', () => {
    const tones = tonesWith([[60, 10, 60, 90]]);
    const wipe = (from: number, to: number): void => {
      for (let row = from; row <= to; row++) tones.data.fill(5, row * 200 + 50, row * 200 + 70);
    };
    wipe(40, 40);
    expect(findStrokes(tones, true)).toHaveLength(1);
    wipe(40, 46);
    expect(findStrokes(tones, true)).toHaveLength(2);
  });
});

describe('tones', () => {
  it('keep the ratio of two brightnesses in sun and in shade', () => {
    const grey = (value: number) => ({ widthPx: 1, heightPx: 1, data: new Uint8ClampedArray([value, value, value, 255]) }); // prettier-ignore
    const tone = (value: number): number => tonesOf(grey(value)).data[0];
    expect(tone(200) - tone(50)).toBeCloseTo(Math.log(206 / 56), 2);
    expect(Math.abs(tone(200) - tone(50) - (tone(100) - tone(25)))).toBeLessThan(0.15);
  });

  it('are read between px, the border repeated', () => {
    const tones = { widthPx: 2, heightPx: 2, data: Float32Array.of(1, 2, 3, 4) };
    expect(toneAt(tones, 0.5, 0.5)).toBeCloseTo(2.5, 6);
    expect(toneAt(tones, -5, 0)).toBeCloseTo(1, 6);
    expect(toneAt(tones, 9, 9)).toBeCloseTo(4, 2);
  });

  it('are halved by every second px', () => {
    const half = halveTones({ widthPx: 4, heightPx: 2, data: Float32Array.of(1, 2, 3, 4, 5, 6, 7, 8) });
    expect([half.widthPx, half.heightPx, ...half.data]).toEqual([2, 1, 1, 3]);
  });
});

describe('heights of a lattice', () => {
  const marksAt = (heightMm: number, stepMm: number, offMm: number, scatterMm: number) => {
    const dice = seededDice(3);
    return Array.from({ length: 60 }, (_, i) => ({
      u: ((i - 30) * stepMm + offMm + scatterMm * (dice() + dice() - 1)) / heightMm,
      v0: 0,
      v1: 0.1,
      weight: 10 + 20 * dice(),
    }));
  };

  it('are where the marks fall on whole steps', () => {
    const [best] = latticeHeights(marksAt(700, 6.35, 2, 0.3), 6.35, 400, 1200, 3);
    // Half a stride of the search: a fifth of a step at the far marks.
    expect(Math.abs((best?.heightMm ?? NaN) - 700)).toBeLessThan(2.4);
    expect(best?.strength).toBeGreaterThan(0.9);
    // Where a line of the lattice lies, in steps.
    expect(Math.abs((best?.phase ?? NaN) - 2 / 6.35)).toBeLessThan(0.05);
  });

  it('are weak where marks fall anywhere', () => {
    const [best] = latticeHeights(marksAt(700, 6.35, 0, 6), 6.35, 400, 1200, 3);
    expect(best?.strength ?? 0).toBeLessThan(0.6);
  });

  it('are none of fewer than five marks', () => {
    expect(latticeHeights(marksAt(700, 6.35, 0, 0).slice(0, 4), 6.35, 400, 1200, 3)).toEqual([]);
  });
});

describe('the plane of parallel strokes', () => {
  it('has the rotation that its picture was drawn with', () => {
    const picture = drawBoardPicture(birch, { seed: 2, tiltDeg: 18, towardsDeg: 30, rollDeg: 7 });
    const strokes = findStrokes(smoothTones(tonesOf(picture.raster)), true);
    const { focalPx, centrePx, rotation } = picture.pose;
    const lens = { focalPx, k1: 0, centrePx };
    const found = findParallels(strokes, lens, seededDice(5));
    expect(found?.strokes.length ?? 0).toBeGreaterThan(60);
    const offDeg = planesOf(found as NonNullable<typeof found>, lens).map((plane) => {
      // The angle between both normals, whichever way the plane's own axes point.
      const dot = [2, 5, 8].reduce((sum, i) => sum + (plane.rotation[i as 2] * rotation[i as 2]), 0); // prettier-ignore
      return (Math.acos(Math.min(1, Math.abs(dot))) * 180) / Math.PI;
    });
    expect(Math.min(...offDeg)).toBeLessThan(1);
  });

  it('is none of three strokes', () => {
    const lens = { focalPx: 900, k1: 0, centrePx: [800, 600] as const };
    const three = [0, 1, 2].map((i) => ({ x0: 100 * i, y0: 0, x1: 100 * i, y1: 50, lengthPx: 50 }));
    expect(findParallels(three, lens, seededDice(1))).toBeNull();
  });
});

function moved(pose: LensPose, byMm: number, turn: number): LensPose {
  return {
    ...pose,
    rotation: turnedBy(pose.rotation, [turn, -turn, turn]),
    zeroMm: [pose.zeroMm[0] + byMm, pose.zeroMm[1] - byMm, pose.zeroMm[2] + 3 * byMm],
  };
}

describe('a pose is refined', () => {
  const picture = drawBoardPicture(birch, { seed: 21, tiltDeg: 12, rollDeg: 5, k1: -0.03, fieldDeg: 85 });
  const smooth = smoothTones(tonesOf(picture.raster));
  const pattern = patternOf(birch);
  const prior = { focalPx: picture.pose.focalPx, focalLogSigma: 0.01, k1Sigma: 0.03 };

  it('to all lines, lens and all, from a start that is off', () => {
    const start = moved({ ...picture.pose, k1: -0.01 }, 0.8, 0.001);
    const refined = refineOutwards(smooth, start, pattern, prior);
    expect(refined?.seenShare).toBeGreaterThan(0.95);
    expect(refined?.residualPx).toBeLessThan(0.25);
    expect(refined?.pose.k1).toBeCloseTo(-0.03, 2);
    for (const [xMm, yMm] of [
      [0, 0],
      [762, 152],
      [381, 76],
    ] as const) {
      const [x, y] = projectBoardPoint(refined?.pose ?? start, xMm, yMm);
      const [u, v] = projectBoardPoint(picture.pose, xMm, yMm);
      expect(Math.hypot(x - u, y - v)).toBeLessThan(0.4);
    }
  });

  it('and its own doubt holds what it is off by (GUM, JCGM 100:2008, 5.2.2)', () => {
    const refined = refinePose(smooth, moved(picture.pose, 0.3, 0.0003), pattern, prior);
    if (!refined) throw new Error('refined: expected a pose');
    for (const xMm of [50, 250, 450, 650]) {
      const at = projectBoardPoint(picture.pose, xMm, 80);
      const { boardMm, distortionMm } = fitSigmaMm(refined, at);
      const offMm = Math.abs(boardPointOf(refined.pose, ...at)[0] - xMm);
      expect(offMm).toBeLessThan(4 * Math.hypot(boardMm, distortionMm) + 0.02);
      expect(boardMm).toBeLessThan(0.3);
    }
  });

  it('not at all on a picture without lines', () => {
    const grey = { ...smooth, data: new Float32Array(smooth.data.length).fill(5) };
    expect(refinePose(grey, picture.pose, pattern, prior)).toBeNull();
    expect(measureLines(grey, picture.pose, pattern, { mostPx: 3, coarse: false }).sights).toEqual([]);
  });

  it('and lines under a cloth are looked for, but not seen', () => {
    const hidden = drawBoardPicture(birch, { seed: 22, coveredMm: [200, 500] });
    const tones = smoothTones(tonesOf(hidden.raster));
    const { sights, looked } = measureLines(tones, hidden.pose, pattern, { mostPx: 2, coarse: false });
    const under = sights.filter(({ xMm }) => xMm > 203 && xMm < 497);
    expect(under.length).toBeLessThan(0.02 * looked);
    expect(sights.length / looked).toBeGreaterThan(0.55);
    expect(sights.length / looked).toBeLessThan(0.68);
  });
});

describe('numerals', () => {
  const picture = drawBoardPicture(birch, { seed: 30, widthPx: 2000, heightPx: 1500 });
  const smooth = smoothTones(tonesOf(picture.raster));

  it('are read in their places', () => {
    const seen = numeralsSeen(smooth, picture.pose, patternOf(birch)).flat();
    expect(seen.filter((fit) => fit !== null && fit > 0.6).length / seen.length).toBeGreaterThan(0.95);
  });

  it.each([
    ['where they are', 0, false],
    ['an inch before', -1, false],
    ['three inches after', 3, false],
  ] as const)('vote for the zero %s', (_, slips, turned) => {
    const r = picture.pose.rotation;
    const byMm = -25.4 * slips;
    const pose = {
      ...picture.pose,
      zeroMm: picture.pose.zeroMm.map(
        (value, i) => value + (r[(3 * i) as 0] ?? 0) * byMm,
      ) as unknown as LensPose['zeroMm'],
    };
    const [best, next] = voteByNumerals(smooth, pose, patternOf(birch), 6).toSorted(
      (a, b) => b.support - a.support,
    );
    expect([best?.shift, best?.turned]).toEqual([slips, turned]);
    expect((best?.support ?? 0) - (next?.support ?? 0)).toBeGreaterThan(3);
    expect(best?.cells).toBeGreaterThan(40);
  });

  it('say nothing where none are printed', () => {
    const plain = drawBoardPicture(slate, { seed: 31, withNumerals: false });
    const votes = voteByNumerals(smoothTones(tonesOf(plain.raster)), plain.pose, patternOf(slate), 4);
    const [best, next] = votes.toSorted((a, b) => b.support - a.support);
    expect((best?.support ?? 0) - (next?.support ?? 0)).toBeLessThan(1.5);
  });

  it('are written without needless digits', () => {
    expect([1, 0.5, 2.5000000001, 10].map(numeralText)).toEqual(['1', '0.5', '2.5', '10']);
  });
});

it('every shipped board has a pattern whose numerals stand within its face', () => {
  for (const one of SHIPPED_BOARDS) {
    const { numeralBandsMm, widthMm } = patternOf(one);
    for (const [from, to] of numeralBandsMm) expect(from > 0 && to < widthMm).toBe(true);
  }
});
