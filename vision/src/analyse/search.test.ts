import { seededDice } from '@lauta/core/dice';
import { beforeAll, describe, expect, it } from 'vitest';
import { cv, openCvReady } from '../camera/openCv.test-data.ts';
import { label } from '../find-fish/pieces.ts';
import { smoothTones, shrinkFactor, shrinkRaster } from '../find-board/tones.ts';
import { drawBoardPicture, flatFish, type BoardPicture } from '../board/drawnBoard.test-data.ts';
import {
  SHIPPED_BOARDS,
  analysePhoto,
  analysisSteps,
  faceCornersMm,
  faceLengthMm,
  findBoard,
  lensTiltDeg,
  projectBoardPoint,
  type MeasuringBoard,
  type PhotoAnalysis,
  type Point,
  type Quad,
  type Raster,
} from '../index.ts';

beforeAll(openCvReady);

const board = (id: string): MeasuringBoard => findBoard(id) as MeasuringBoard;
const birch = board('birch-30in');

/** Farthest distance of a found corner from its true place, px. */
function cornersOff(analysis: PhotoAnalysis, { pose, board: drawn }: BoardPicture): number {
  const truth = faceCornersMm(drawn).map(([x, y]) => projectBoardPoint(pose, x, y));
  const found = analysis.found?.corners;
  if (!found) return Infinity;
  return Math.max(...found.map(([x, y], i) => Math.hypot(x - truth[i][0], y - truth[i][1])));
}

const read = (picture: BoardPicture, claimed = picture.board): PhotoAnalysis =>
  analysePhoto(picture.raster, claimed, { focal35Mm: picture.focal35Mm, otherBoards: SHIPPED_BOARDS });

describe('a bare board is found', () => {
  it.each([
    ['from above', 'birch-30in', {}],
    ['turned by 20°', 'birch-30in', { rollDeg: 20 }],
    ['turned half round', 'sand-26in', { rollDeg: 178 }],
    ['tilted by 35° along its length', 'birch-30in', { tiltDeg: 35, towardsDeg: 10 }],
    ['tilted by 38° across', 'slate-75cm', { tiltDeg: 38, towardsDeg: 90 }],
    ['through a barrel lens of 92°', 'sand-26in', { fieldDeg: 92, k1: -0.045 }],
    ['through a cushion lens', 'slate-75cm', { fieldDeg: 62, k1: 0.03 }],
    ['small', 'slate-75cm', { fillShare: 0.52 }],
  ] as const)('%s', (_, id, view) => {
    const picture = drawBoardPicture(board(id), { seed: 5, ...view });
    const analysis = read(picture);
    // 0.3 % of the width is what is asked for; half a px is what a clean picture gives.
    expect(cornersOff(analysis, picture)).toBeLessThan(0.5);
    expect(analysis.found?.boardId).toBe(id);
    expect(analysis.found?.tiltDeg).toBeCloseTo(lensTiltDeg(picture.pose), 0);
    expect(analysis.found?.lens.k1).toBeCloseTo(picture.pose.k1, 2);
    expect(analysis.trouble).toBe('no-fish');
    expect(analysis.lengthMm).toBeNull();
  });

  it('and its kind is told, whichever was claimed', () => {
    for (const drawn of SHIPPED_BOARDS) {
      const picture = drawBoardPicture(drawn, {
        seed: 8,
        rollDeg: -6,
        tiltDeg: 8,
        widthPx: 1000,
        heightPx: 750,
      });
      for (const claimed of SHIPPED_BOARDS) {
        const analysis = read(picture, claimed);
        expect(analysis.found?.boardId).toBe(drawn.id);
        const finding = analysis.findings.find(({ check }) => check === 'wrong-board');
        expect(finding?.tone).toBe(claimed.id === drawn.id ? 'clear' : 'fault');
      }
    }
  });

  it('with the stop at the right as lying the wrong way round', () => {
    const analysis = read(drawBoardPicture(birch, { seed: 3, rollDeg: 180 }));
    expect(analysis.findings.find(({ check }) => check === 'facing-right')?.tone).toBe('fault');
  });

  it('without a focal length in the file, its lens estimated', () => {
    const picture = drawBoardPicture(birch, { seed: 4, tiltDeg: 10 });
    const analysis = analysePhoto(picture.raster, birch, { focal35Mm: null });
    expect(cornersOff(analysis, picture)).toBeLessThan(1);
  });
});

describe('zero is never guessed', () => {
  it('a board without numerals has no anchor', () => {
    const picture = drawBoardPicture(birch, { seed: 6, withNumerals: false });
    expect(read(picture).trouble).toBe('no-anchor');
  });

  it('a board whose first third is covered keeps its zero', () => {
    const picture = drawBoardPicture(birch, { seed: 7, coveredMm: [-30, 250] });
    expect(cornersOff(read(picture), picture)).toBeLessThan(1);
  });
});

describe('no board', () => {
  it.each([
    ['noise', (dice: () => number) => 255 * dice()],
    ['stripes', (_: () => number, x: number) => 127 + 100 * Math.sin(x / 3.1)],
    ['an even grey', () => 120],
  ] as const)('is found in %s', (_, value) => {
    const dice = seededDice(9);
    const raster = rasterOf(1200, 900, (x) => value(dice, x));
    const analysis = analysePhoto(raster, birch, { focal35Mm: 24, otherBoards: SHIPPED_BOARDS });
    expect(analysis.found).toBeNull();
    expect(['no-board', 'no-anchor']).toContain(analysis.trouble);
  });

  it('is looked for in a picture of 200 × 150 px', () => {
    expect(
      analysePhoto(
        rasterOf(200, 150, () => 90),
        birch,
        { focal35Mm: 24 },
      ).trouble,
    ).toBe('too-small');
  });

  it('is looked for no longer than is allowed', () => {
    const dice = seededDice(2);
    const steps = analysisSteps(
      rasterOf(900, 700, () => 255 * dice()),
      birch,
      { focal35Mm: 24, isOver: () => true },
    );
    let step = steps.next();
    while (!step.done) step = steps.next();
    expect(step.value.trouble).toBe('too-long');
  });
});

describe('a fish of a size that a board is not made for', () => {
  const readFish = (lengthMm: number): PhotoAnalysis =>
    read(
      drawBoardPicture(birch, {
        seed: 8,
        things: [{ outlineMm: flatFish(lengthMm, birch.widthMm / 2), colour: [88, 104, 52] }],
      }),
    );

  it('shorter than a card is read, or plainly not', () => {
    // An ID-1 card is 85.6 mm long (ISO/IEC 7810).
    const { trouble, lengthMm, findings } = readFish(78);
    if (lengthMm === null) expect(['no-fish', 'no-tail']).toContain(trouble);
    else expect(Math.abs(lengthMm - 78)).toBeLessThan(6);
    expect(findings.length).toBeGreaterThan(0);
  });

  it('is not measured along a wall’s rim that touches its fin and runs to the board’s end', () => {
    const lengthMm = 420;
    const axisMm = birch.widthMm / 2;
    const endMm = faceLengthMm(birch);
    const rim: Point[] = [[180, 2], [endMm, 2], [endMm, 24], [320, 24], [320, axisMm], [180, axisMm]]; // prettier-ignore
    const { lengthMm: told } = read(
      drawBoardPicture(birch, {
        seed: 8,
        things: [
          { outlineMm: rim, colour: [88, 104, 52] },
          { outlineMm: flatFish(lengthMm, axisMm), colour: [88, 104, 52] },
        ],
      }),
    );
    if (told !== null) expect(Math.abs(told - lengthMm)).toBeLessThan(3);
  });

  it('longer than the board gives no length and says that its tail is not on it', () => {
    const { trouble, lengthMm, findings } = readFish(faceLengthMm(birch) + 120);
    expect(lengthMm).toBeNull();
    expect(trouble).not.toBeNull();
    expect(findings.length).toBeGreaterThan(0);
  });
});

describe('four rough corners', () => {
  const picture = drawBoardPicture(birch, { seed: 12, rollDeg: 4, tiltDeg: 6 });
  const truth = faceCornersMm(birch).map(([x, y]) => projectBoardPoint(picture.pose, x, y));
  const roughBy = (px: number): Quad =>
    truth.map(([x, y], i): Point => [
      x + (i % 2 ? px : -px),
      y + (i < 2 ? px : -px) * 0.5,
    ]) as unknown as Quad;

  it('snap to the lines when they are off by 4 % of the width', () => {
    const near = roughBy(0.04 * picture.raster.widthPx);
    const analysis = analysePhoto(picture.raster, birch, { focal35Mm: picture.focal35Mm, near });
    expect(cornersOff(analysis, picture)).toBeLessThan(0.5);
  });

  it('do not snap to a board elsewhere', () => {
    const near = truth.map(([x, y]): Point => [x, y - 420]) as unknown as Quad;
    const analysis = analysePhoto(picture.raster, birch, { focal35Mm: picture.focal35Mm, near });
    expect(analysis.found).toBeNull();
  });
});

describe('against OpenCV', () => {
  it('smoothing is its separable filter with the same kernel', () => {
    const dice = seededDice(4);
    const [width, height] = [37, 23];
    const data = Float32Array.from({ length: width * height }, () => dice() * 5);
    const from = cv.matFromArray(height, width, cv.CV_32FC1, [...data]);
    const kernel = cv.matFromArray(
      5,
      1,
      cv.CV_32F,
      [1, 4, 6, 4, 1].map((weight) => weight / 16),
    );
    const to = new cv.Mat();
    cv.sepFilter2D(from, to, cv.CV_32F, kernel, kernel, new cv.Point(-1, -1), 0, cv.BORDER_REPLICATE);
    const ours = smoothTones({ widthPx: width, heightPx: height, data });
    ours.data.forEach((value, i) => expect(value).toBeCloseTo(to.data32F[i], 4));
    [from, kernel, to].forEach((mat) => mat.delete());
  });

  it('pieces are its connected components of four neighbours', () => {
    const dice = seededDice(31);
    const [columns, rows] = [60, 40];
    const mask = Uint8Array.from({ length: columns * rows }, () => (dice() < 0.55 ? 1 : 0));
    const from = cv.matFromArray(rows, columns, cv.CV_8UC1, [...mask]);
    const to = new cv.Mat();
    const count = cv.connectedComponents(from, to, 4, cv.CV_32S);
    const { labels, pieces } = label(mask, columns, rows);
    expect(pieces.length).toBe(count - 1);
    // The same partition, whatever the numbers.
    const pairs = new Set<string>();
    labels.forEach((mine, i) => pairs.add(`${mine} ${to.data32S[i]}`));
    expect(pairs.size).toBe(count);
    expect(pieces.reduce((sum, piece) => sum + piece.area, 0)).toBe(
      mask.reduce((sum, value) => sum + value, 0),
    );
    from.delete();
    to.delete();
  });
});

describe('large pictures', () => {
  it('are shrunk by whole numbers, and what is found in them is told in their own px', () => {
    expect(shrinkFactor(2016, 1512)).toBe(1);
    expect(shrinkFactor(4032, 3024)).toBe(2);
    const small = shrinkRaster(
      rasterOf(4, 2, (x) => 10 * x),
      2,
    );
    expect([small.widthPx, small.heightPx]).toEqual([2, 1]);
    expect([small.data[0], small.data[4]]).toEqual([5, 25]);
    const picture = drawBoardPicture(birch, { seed: 5, widthPx: 3200, heightPx: 2400, rollDeg: 3 });
    expect(cornersOff(read(picture), picture)).toBeLessThan(1);
  });
});

function rasterOf(widthPx: number, heightPx: number, valueAt: (x: number, y: number) => number): Raster {
  const data = new Uint8ClampedArray(widthPx * heightPx * 4);
  for (let i = 0; i < widthPx * heightPx; i++) {
    const value = valueAt(i % widthPx, Math.floor(i / widthPx));
    data.set([value, value, value, 255], i * 4);
  }
  return { widthPx, heightPx, data };
}
