import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { cv, openCvReady } from '../camera/openCv.test-data.ts';
import {
  SHIPPED_BOARDS,
  boardLines,
  boardNumerals,
  cameraPose,
  checkQuad,
  faceCornersMm,
  findBoard,
  fitHomography,
  focalPxFrom35mm,
  invertHomography,
  mapPoint,
  readBoard,
  rectifyStrip,
  stripFrame,
  type Homography,
  type MeasuringBoard,
  type Point,
  type Quad,
} from '../index.ts';

beforeAll(openCvReady);

function openCvHomography(from: Quad, to: Quad): number[] {
  const a = cv.matFromArray(4, 1, cv.CV_32FC2, from.flat());
  const b = cv.matFromArray(4, 1, cv.CV_32FC2, to.flat());
  const h = cv.getPerspectiveTransform(a, b);
  const values = [...h.data64F];
  [a, b, h].forEach((mat) => mat.delete());
  return values;
}

const UNIT: Quad = [[0, 0], [1, 0], [1, 1], [0, 1]]; // prettier-ignore

describe('homography', () => {
  it('worked by hand: the unit square to (0,0) (4,0) (3,2) (1,2)', () => {
    const h = fitHomography(UNIT, [[0, 0], [4, 0], [3, 2], [1, 2]]); // prettier-ignore
    [4, 2, 0, 0, 4, 0, 0, 1, 1].forEach((value, i) => expect(h[i]).toBeCloseTo(value, 10));
    expect(mapPoint(h, [0.5, 0.5])[1]).toBeCloseTo(4 / 3, 10);
    expect(mapPoint(h, [0.25, 0.75])[0]).toBeCloseTo(10 / 7, 10);
  });

  it('worked example, OpenCV 4.6.0 getPerspectiveTransform: a 600 × 400 mm sheet', () => {
    const corners: Quad = [[102, 88], [958, 131], [1010, 702], [61, 655]]; // prettier-ignore
    const h = fitHomography(corners, [[0, 0], [600, 0], [600, 400], [0, 400]]); // prettier-ignore
    const expected = [
      0.7087811190340587, 0.05125225022997603, -76.80587216171187, -0.03977310796253499, 0.7917623352541836,
      -65.6182284901896, -1.1009194688152148e-5, 1.9400215979380504e-4, 1,
    ];
    expected.forEach((value, i) => expect(h[i]).toBeCloseTo(value, 9));
    const [x, y] = mapPoint(h, [500, 400]);
    expect(x).toBeCloseTo(278.03994542, 6);
    expect(y).toBeCloseTo(215.65241745, 6);
    expect(mapPoint(h, [800, 300])[0]).toBeCloseTo(481.7971507, 6);
  });

  it('equals OpenCV’s to a millionth, and maps to the same points, over 200 boards seen at random', () => {
    const coordinate = fc.integer({ min: -120, max: 120 });
    fc.assert(
      fc.property(
        fc.tuple(
          coordinate,
          coordinate,
          coordinate,
          coordinate,
          coordinate,
          coordinate,
          coordinate,
          coordinate,
        ),
        (d) => {
          const corners: Quad = [[300 + d[0], 300 + d[1]], [1300 + d[2], 300 + d[3]], [1300 + d[4], 700 + d[5]], [300 + d[6], 700 + d[7]]]; // prettier-ignore
          const face = faceCornersMm(SHIPPED_BOARDS[0]).map(([x, y]): Point => [
            Math.fround(x),
            Math.fround(y),
          ]) as unknown as Quad;
          const ours = fitHomography(corners, face);
          const theirs = openCvHomography(corners, face);
          theirs.forEach((value, i) =>
            expect(Math.abs((ours[i] ?? NaN) - value)).toBeLessThan(1e-6 * Math.max(1, Math.abs(value))),
          );
          const p = mapPoint(ours, [811, 467]);
          const q = mapPoint(theirs as unknown as Homography, [811, 467]);
          expect(Math.hypot(p[0] - q[0], p[1] - q[1])).toBeLessThan(1e-6 * 800);
        },
      ),
      { seed: 30, numRuns: 200 },
    );
  });

  it('and its inverse undo each other', () => {
    const h = fitHomography(UNIT, [[10, 12], [90, 5], [99, 70], [3, 66]]); // prettier-ignore
    const [x, y] = mapPoint(invertHomography(h), mapPoint(h, [0.3, 0.8]));
    expect(x).toBeCloseTo(0.3, 10);
    expect(y).toBeCloseTo(0.8, 10);
  });

  it('of more than four pairs meets exact data exactly', () => {
    const h = fitHomography(UNIT, [[10, 12], [90, 5], [99, 70], [3, 66]]); // prettier-ignore
    const grid = Array.from({ length: 12 }, (_, i): Point => [(i % 4) / 3, Math.floor(i / 4) / 2]);
    const again = fitHomography(
      grid,
      grid.map((point) => mapPoint(h, point)),
    );
    h.forEach((value, i) => expect(again[i]).toBeCloseTo(value, 8));
  });

  it('is refused for three points on a line, where OpenCV would answer with zeros', () => {
    const bad: Quad = [[0, 0], [1, 0], [2, 0], [0, 1]]; // prettier-ignore
    expect(() => fitHomography(bad, UNIT)).toThrow(RangeError);
    expect(checkQuad(bad)).toEqual({ ok: false, code: 'collinear' });
  });

  it.each([
    [
      'crossed',
      [
        [0, 0],
        [10, 5],
        [10, 0],
        [0, 5],
      ],
    ],
    [
      'mirrored',
      [
        [10, 0],
        [0, 0],
        [0, 5],
        [10, 5],
      ],
    ],
    [
      'collinear',
      [
        [0, 0],
        [10, 0],
        [10, 0.001],
        [5, 0.0005],
      ],
    ],
    [
      'collinear',
      [
        [3, 3],
        [3, 3],
        [3, 3],
        [3, 3],
      ],
    ],
  ] as [string, unknown][])('%s corners are refused', (code, corners) => {
    expect(checkQuad(corners as Quad)).toEqual({ ok: false, code });
  });
});

/** Pinhole projection, written apart from the code under test: camera at (cx, cy, height), tilted about its x axis. */
function project(
  point: Point,
  tilt: number,
  focalPx: number,
  centre: Point,
  position: readonly [number, number, number],
): Point {
  const x = point[0] - position[0];
  const y = point[1] - position[1];
  const z = -position[2];
  const v = y * Math.cos(tilt) + z * Math.sin(tilt);
  const depth = y * Math.sin(tilt) - z * Math.cos(tilt);
  return [centre[0] + (focalPx * x) / depth, centre[1] + (focalPx * v) / depth];
}

describe('the camera’s pose', () => {
  it.each([0, 3, 12.5, 20, 38])('a tilt of %d° and the camera’s place come back', (tiltDeg) => {
    const board = SHIPPED_BOARDS[0];
    const focalPx = focalPxFrom35mm(24, 1600, 1200);
    const position = [380, 70 + 600 * Math.sin((-tiltDeg * Math.PI) / 180), 650] as const;
    const corners = faceCornersMm(board).map((corner) =>
      project(corner, (tiltDeg * Math.PI) / 180, focalPx, [799.5, 599.5], position),
    ) as unknown as Quad;
    const pose = cameraPose(fitHomography(faceCornersMm(board), corners), focalPx, [799.5, 599.5]);
    expect(pose.tiltDeg).toBeCloseTo(tiltDeg, 4);
    pose.positionMm.forEach((value, i) => expect(value).toBeCloseTo(position[i] ?? NaN, 3));
  });

  it('the 35 mm equivalent follows the diagonal: 43.27 mm is as long as the picture’s diagonal', () => {
    expect(focalPxFrom35mm(Math.hypot(36, 24), 1600, 1200)).toBeCloseTo(2000, 9);
    expect(Math.hypot(36, 24)).toBeCloseTo(43.27, 2);
  });
});

describe('a board', () => {
  it('has each line once, drawn by the first family that names it', () => {
    const lines = boardLines(findBoard('birch-30in') as MeasuringBoard);
    expect(lines).toHaveLength(121);
    expect(lines.filter((line) => line.strokeMm === 1.8)).toHaveLength(31);
    expect(lines.at(-1)?.xMm).toBeCloseTo(762, 9);
  });

  it('has its numerals to the left of their lines', () => {
    const numerals = boardNumerals(findBoard('slate-75cm') as MeasuringBoard);
    expect(numerals).toHaveLength(30);
    expect(numerals[0]).toMatchObject({ text: '5', rightMm: 48.5 });
  });
});

describe('a reading', () => {
  const board = findBoard('birch-30in') as MeasuringBoard;
  const size = { widthPx: 1600, heightPx: 1200, focal35Mm: null };
  /** 2 px a mm, straight from above. */
  const flat: Quad = [[20, 300], [1544, 300], [1544, 604], [20, 604]]; // prettier-ignore
  const marks = (change = {}) => ({
    corners: flat,
    nose: [16, 450] as Point,
    tail: [20 + 2 * 446.3, 430] as Point,
    ...change,
  });

  it('is the tail’s place along the scale, from the stop’s face', () => {
    const reading = readBoard(board, marks(), size);
    expect(reading).toMatchObject({
      ok: true,
      value: { kind: 'board', made: 'hand', boardId: 'birch-30in', tiltDeg: null },
    });
    if (!reading.ok) return;
    expect(reading.value.apparentMm).toBeCloseTo(446.3, 6);
    expect(reading.value.noseMm).toBeCloseTo(-2, 6);
  });

  it('is as uncertain as repeated marking with the stated scatter shows (Monte Carlo, GUM Supplement 1)', () => {
    const reading = readBoard(board, marks(), { ...size, cornerSigmaPx: 2, tipSigmaPx: 1 });
    if (!reading.ok) throw new Error(reading.code);
    let state = 12345;
    const uniform = () => ((state = (Math.imul(state, 1664525) + 1013904223) >>> 0) + 0.5) / 2 ** 32;
    const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform());
    const shake = ([x, y]: Point, sigma: number): Point => [x + sigma * normal(), y + sigma * normal()];
    const lengths = Array.from({ length: 4000 }, () => {
      const again = readBoard(
        board,
        {
          corners: flat.map((corner) => shake(corner, 2)) as unknown as Quad,
          nose: [16, 450],
          tail: shake([20 + 892.6, 430], 1),
        },
        size,
      );
      return again.ok ? again.value.apparentMm : NaN;
    });
    const mean = lengths.reduce((sum, one) => sum + one, 0) / lengths.length;
    const sigma = Math.sqrt(lengths.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (lengths.length - 1));
    expect(reading.value.sigmaMm / sigma).toBeGreaterThan(0.95);
    expect(reading.value.sigmaMm / sigma).toBeLessThan(1.05);
    expect(Math.hypot(...reading.value.budget.map((share) => share.sigmaMm))).toBeCloseTo(
      reading.value.sigmaMm,
      12,
    );
  });

  it.each([
    ['tail-before-nose', { nose: [900, 400], tail: [500, 400] }],
    ['tail-before-stop', { nose: [4, 400], tail: [12, 400] }],
    ['tail-off-board', { tail: [1580, 400] }],
    ['outside-photo', { nose: [-5000, 400] }],
    ['outside-photo', { tail: [NaN, 400] }],
    ['crossed', { corners: [flat[0], flat[2], flat[1], flat[3]] }],
    ['mirrored', { corners: [flat[1], flat[0], flat[3], flat[2]] }],
  ])('is refused: %s', (code, change) => {
    expect(readBoard(board, marks(change), size)).toEqual({ ok: false, code });
  });
});

describe('the rectified strip', () => {
  it('equals OpenCV’s warpPerspective within a grey level', () => {
    const board = findBoard('sand-26in') as MeasuringBoard;
    const photo = { widthPx: 320, heightPx: 240, data: new Uint8ClampedArray(320 * 240 * 4) };
    for (let y = 0; y < 240; y++) {
      for (let x = 0; x < 320; x++) {
        const at = (y * 320 + x) * 4;
        photo.data.set([128 + 100 * Math.sin(x / 9), 128 + 100 * Math.cos(y / 7), (x + y) % 256, 255], at);
      }
    }
    const corners: Quad = [[40, 60], [290, 75], [280, 190], [30, 170]]; // prettier-ignore
    const frame = stripFrame(board, 0.5);
    const ours = rectifyStrip(photo, board, corners, frame);
    // The same map, strip px → photo px, in OpenCV.
    const h = fitHomography(faceCornersMm(board), corners);
    const stripToMm: Homography = [2, 0, 1 + frame.fromMm, 0, 2, 1 + frame.fromYMm, 0, 0, 1];
    const map = [0, 1, 2].flatMap((row) =>
      [0, 1, 2].map((column) =>
        [0, 1, 2].reduce((sum, k) => sum + (h[row * 3 + k] ?? 0) * (stripToMm[k * 3 + column] ?? 0), 0),
      ),
    );
    const source = cv.matFromArray(240, 320, cv.CV_8UC4, [...photo.data]);
    const target = new cv.Mat();
    const matrix = cv.matFromArray(3, 3, cv.CV_64F, map);
    cv.warpPerspective(
      source,
      target,
      matrix,
      new cv.Size(ours.widthPx, ours.heightPx),
      cv.INTER_LINEAR | cv.WARP_INVERSE_MAP,
      cv.BORDER_CONSTANT,
      new cv.Scalar(0, 0, 0, 0),
    );
    let worst = 0;
    let compared = 0;
    for (let i = 0; i < ours.data.length; i += 4) {
      if (ours.data[i + 3] !== 255 || target.data[i + 3] !== 255) continue;
      compared++;
      for (let channel = 0; channel < 2; channel++)
        worst = Math.max(worst, Math.abs((ours.data[i + channel] ?? 0) - (target.data[i + channel] ?? 0)));
    }
    [source, target, matrix].forEach((mat) => mat.delete());
    expect(compared).toBeGreaterThan(0.9 * ours.widthPx * ours.heightPx);
    // OpenCV interpolates with 5 fractional bits.
    expect(worst).toBeLessThanOrEqual(3);
  });
});
