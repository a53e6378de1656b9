import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { cv, openCvReady } from './openCv.test-data.ts';
import {
  boardMap,
  boardPointOf,
  cameraPlaceMm,
  faceCornersMm,
  isTurned,
  lensTiltDeg,
  projectBoardPoint,
  SHIPPED_BOARDS,
  toStoredPx,
  toUprightPx,
  trueLengthMm,
  undistortPx,
  uprightRaster,
  TAIL_HEIGHT_MM,
  type LensPose,
  type Point,
  type Quad,
} from '../index.ts';
import { distortPx, turnedBy } from './lens.ts';

beforeAll(openCvReady);

const board = SHIPPED_BOARDS[0];
const LEVEL = [1, 0, 0, 0, 1, 0, 0, 0, 1] as const;

function poseOver(change: Partial<LensPose> = {}): LensPose {
  return {
    rotation: turnedBy(LEVEL, [0.15, -0.1, 0.2]),
    zeroMm: [-380, -90, 700],
    focalPx: 1100,
    k1: -0.04,
    centrePx: [1007.5, 755.5],
    ...change,
  };
}

describe('the lens', () => {
  it('bends px as OpenCV does (undistort of OpenCV.js on ramps, k1 alone; its maps are kept in 32nds of a px)', () => {
    const [focalPx, width, height] = [500, 640, 480];
    const camera = cv.matFromArray(3, 3, cv.CV_64F, [focalPx, 0, 319.5, 0, focalPx, 239.5, 0, 0, 1]);
    for (const k1 of [-0.05, 0.03]) {
      const bend = cv.matFromArray(1, 4, cv.CV_64F, [k1, 0, 0, 0]);
      const ramps = [0, 1].map((axis) => {
        const ramp = cv.matFromArray(
          height,
          width,
          cv.CV_32FC1,
          Array.from({ length: width * height }, (_, i) => (axis === 0 ? i % width : Math.floor(i / width))),
        );
        const bent = new cv.Mat();
        cv.undistort(ramp, bent, camera, bend);
        ramp.delete();
        return bent;
      });
      for (const [x, y] of [
        [40, 40],
        [600, 30],
        [320, 240],
        [100, 430],
      ] as const) {
        const [bx, by] = distortPx(
          { focalPx, k1, centrePx: [319.5, 239.5] },
          (x - 319.5) / focalPx,
          (y - 239.5) / focalPx,
        );
        expect(Math.abs(bx - (ramps[0]?.data32F[y * width + x] ?? NaN))).toBeLessThan(0.02);
        expect(Math.abs(by - (ramps[1]?.data32F[y * width + x] ?? NaN))).toBeLessThan(0.02);
      }
      [bend, ...ramps].forEach((mat) => mat.delete());
    }
    camera.delete();
  });

  it('is straightened again to the same place, wherever a picture reaches', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1.1, max: 1.1, noNaN: true }),
        fc.double({ min: -0.8, max: 0.8, noNaN: true }),
        fc.double({ min: -0.06, max: 0.05, noNaN: true }),
        (x, y, k1) => {
          const lens = { focalPx: 900, k1, centrePx: [1000, 750] as const };
          const [px, py] = distortPx(lens, x, y);
          const [u, v] = undistortPx(lens, px, py);
          expect(Math.hypot(u - x, v - y)).toBeLessThan(1e-7);
        },
      ),
      { seed: 11 },
    );
  });

  it('turns about a vector as OpenCV’s Rodrigues does', () => {
    for (const vector of [
      [0.3, -0.2, 0.1],
      [0, 0, Math.PI],
      [1e-9, 0, 0],
    ] as const) {
      const from = cv.matFromArray(3, 1, cv.CV_64F, [...vector]);
      const matrix = new cv.Mat();
      cv.Rodrigues(from, matrix);
      turnedBy(LEVEL, vector).forEach((value, i) => expect(value).toBeCloseTo(matrix.data64F[i], 9));
      from.delete();
      matrix.delete();
    }
  });
});

describe('a pose', () => {
  it('sends a place of the board to a px and back, on the face and over it', () => {
    const pose = poseOver();
    for (const height of [0, 2, 30]) {
      const [x, y] = projectBoardPoint(pose, 333, 77, height);
      const [bx, by] = boardPointOf(pose, x, y, height);
      expect(bx).toBeCloseTo(333, 6);
      expect(by).toBeCloseTo(77, 6);
    }
  });

  it('knows the camera’s place: from there every height over a place is seen at one px', () => {
    const pose = poseOver();
    const [cx, cy, cz] = cameraPlaceMm(pose);
    expect(cz).toBeGreaterThan(300);
    const [x, y] = projectBoardPoint(pose, 200, 60, 0);
    // Half-way up the ray.
    const [mx, my] = projectBoardPoint(pose, (200 + cx) / 2, (60 + cy) / 2, cz / 2);
    expect(mx).toBeCloseTo(x, 6);
    expect(my).toBeCloseTo(y, 6);
  });

  it('has no tilt from straight above', () => {
    expect(lensTiltDeg(poseOver({ rotation: LEVEL }))).toBe(0);
    expect(lensTiltDeg(poseOver({ rotation: turnedBy(LEVEL, [0.2, 0, 0]) }))).toBeCloseTo(
      (0.2 * 180) / Math.PI,
      9,
    );
  });
});

describe('the map of four corners', () => {
  it('with the lens agrees with the pose that made them, in every corner of the face', () => {
    const pose = poseOver();
    const corners = faceCornersMm(board).map(([x, y]) => projectBoardPoint(pose, x, y)) as unknown as Quad;
    const map = boardMap(
      board,
      corners,
      { focalPx: pose.focalPx, k1: pose.k1 },
      { widthPx: 2016, heightPx: 1512 },
    );
    for (const [x, y] of [
      [0, 0],
      [762, 152],
      [300, 40],
      [700, 140],
    ] as const) {
      const px = projectBoardPoint(pose, x, y);
      const [bx, by] = map.toBoard(px);
      expect(Math.hypot(bx - x, by - y)).toBeLessThan(1e-6);
      const [qx, qy] = map.toPhoto([x, y]);
      expect(Math.hypot(qx - px[0], qy - px[1])).toBeLessThan(1e-6);
    }
    expect(map.pose(pose.focalPx).tiltDeg).toBeCloseTo(lensTiltDeg(pose), 6);
    expect(map.pose(pose.focalPx).positionMm[2]).toBeCloseTo(cameraPlaceMm(pose)[2], 4);
  });

  it('without the lens is off by millimetres in the middle of the board', () => {
    const pose = poseOver();
    const corners = faceCornersMm(board).map(([x, y]) => projectBoardPoint(pose, x, y)) as unknown as Quad;
    const map = boardMap(board, corners, null, { widthPx: 2016, heightPx: 1512 });
    const [x] = map.toBoard(projectBoardPoint(pose, 250, 76));
    expect(Math.abs(x - 250)).toBeGreaterThan(1);
  });
});

describe('the true length', () => {
  it('takes the parallax x·h/(H−h) out again (similar triangles; the same numbers as cv2.projectPoints gives)', () => {
    // A point 2 mm over the face, 200 mm beside the foot of a camera 600 mm up, is seen at 200 · 600/598.
    expect(TAIL_HEIGHT_MM).toBe(2);
    const seen = 100 + (200 * 600) / 598;
    expect(trueLengthMm(seen, 100, 600)).toBeCloseTo(300, 9);
    expect(trueLengthMm(100, 100, 600)).toBe(100);
  });
});

describe('EXIF orientation', () => {
  const stored = {
    widthPx: 3,
    heightPx: 2,
    data: new Uint8ClampedArray(24).map((_, i) => Math.floor(i / 4) * 40),
  };

  it.each([1, 2, 3, 4, 5, 6, 7, 8])('%i: px go to the stored picture and back', (orientation) => {
    const [width, height] = isTurned(orientation) ? [2, 3] : [3, 2];
    for (let x = 0; x < width; x++) {
      for (let y = 0; y < height; y++) {
        const at: Point = toStoredPx([x, y], orientation, 3, 2);
        expect(at[0]).toBeGreaterThanOrEqual(0);
        expect(at[0]).toBeLessThan(3);
        expect(toUprightPx(at, orientation, 3, 2)).toEqual([x, y]);
      }
    }
  });

  it.each([1, 2, 3, 4, 5, 6, 7, 8])(
    '%i: the upright picture shows what the stored px shows',
    (orientation) => {
      const upright = uprightRaster(stored, orientation);
      expect([upright.widthPx, upright.heightPx]).toEqual(isTurned(orientation) ? [2, 3] : [3, 2]);
      for (let y = 0; y < upright.heightPx; y++) {
        for (let x = 0; x < upright.widthPx; x++) {
          const [sx, sy] = toStoredPx([x, y], orientation, 3, 2);
          expect(upright.data[(y * upright.widthPx + x) * 4]).toBe(stored.data[(sy * 3 + sx) * 4]);
        }
      }
    },
  );

  it('6 is a camera held upright, its right side up: the stored left lower corner is the upper left (CIPA DC-008, 4.6.4)', () => {
    // Orientation 6: row 0 is the visual right side, column 0 the visual top.
    expect(toStoredPx([0, 0], 6, 3, 2)).toEqual([0, 1]);
    expect(toStoredPx([1, 0], 6, 3, 2)).toEqual([0, 0]);
  });
});
