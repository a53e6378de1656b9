import { describe, expect, it } from 'vitest';
import { findBoard, type MeasuringBoard } from '../board/board.ts';
import { isStanding, quarterTurned, quarterTurnedPx, turnedBack } from '../find-board/quarterTurn.ts';
import { tonesOf } from '../find-board/tones.ts';
import { drawBoardPicture, flatFish } from '../board/drawnBoard.test-data.ts';
import {
  SHIPPED_BOARDS,
  analysePhoto,
  faceCornersMm,
  projectBoardPoint,
  type AnalysisOptions,
  type PhotoAnalysis,
  type Point,
  type Quad,
} from '../index.ts';
import { lookLive, type LiveOptions } from '../live/index.ts';
import { toUprightPx, uprightRaster } from '../camera/uprightPx.ts';

const board = (id: string): MeasuringBoard => findBoard(id) as MeasuringBoard;
/** EXIF orientations (CIPA DC-008) that turn a picture a quarter to one side and to the other. */
const QUARTERS = [6, 8] as const;

/** A board that lies, and the same picture as a phone shows it that took the wrong side for the upper one. */
function standing(id: string, orientation: number, lengthMm?: number) {
  const drawn = board(id);
  const things = lengthMm ? [{ outlineMm: flatFish(lengthMm, drawn.widthMm / 2), colour: [88, 104, 52] as const }] : []; // prettier-ignore
  const picture = drawBoardPicture(drawn, { seed: 5, widthPx: 1200, heightPx: 900, tiltDeg: 7, things });
  const { widthPx, heightPx } = picture.raster;
  const corners = faceCornersMm(drawn).map(([x, y]) =>
    toUprightPx(projectBoardPoint(picture.pose, x, y), orientation, widthPx, heightPx),
  ) as unknown as Quad;
  return { drawn, picture, corners, raster: uprightRaster(picture.raster, orientation) };
}

function farthest(found: readonly Point[] | undefined, truth: Quad): number {
  return Math.max(...truth.map(([x, y], i) => Math.hypot(x - (found?.[i]?.[0] ?? NaN), y - (found?.[i]?.[1] ?? NaN)))); // prettier-ignore
}

describe('a board that stands in the picture', () => {
  it.each(QUARTERS)('is found as exactly as one that lies, its fish too (orientation %i)', (orientation) => {
    const { drawn, picture, corners, raster } = standing('birch-30in', orientation, 402);
    expect(raster.heightPx).toBeGreaterThan(raster.widthPx);
    const options: AnalysisOptions = { focal35Mm: picture.focal35Mm, otherBoards: SHIPPED_BOARDS };
    const lying = analysePhoto(picture.raster, drawn, options);
    const stood = analysePhoto(raster, drawn, options);
    expect(farthest(stood.found?.corners, corners)).toBeLessThan(0.5);
    expect(Math.abs((stood.lengthMm ?? NaN) - (lying.lengthMm ?? NaN))).toBeLessThan(0.3);
    expect(Math.abs((stood.sigmaMm ?? NaN) - (lying.sigmaMm ?? NaN))).toBeLessThan(0.15);
    const verdict = ({ findings }: PhotoAnalysis, check: string) =>
      findings.find((one) => one.check === check)?.tone;
    // Left and right say nothing there, and lines are as sharp across as along.
    expect(verdict(stood, 'facing-right')).toBe('clear');
    for (const check of ['unsharp', 'nose-gap', 'mouth-open', 'tail-curled', 'steep-camera'])
      expect([check, verdict(stood, check)]).toEqual([check, verdict(lying, check)]);
  });

  it.each(['sand-26in', 'slate-75cm'])('%s without a focal length in the file', (id) => {
    const { drawn, corners, raster } = standing(id, 6);
    const analysis = analysePhoto(raster, drawn, { focal35Mm: null });
    expect(farthest(analysis.found?.corners, corners)).toBeLessThan(1.5);
  });

  it('snaps to rough corners of a person, and not to those of a board that lies', () => {
    const { drawn, picture, corners, raster } = standing('birch-30in', 8);
    const rough = corners.map(([x, y], i) => [x + (i % 2 ? 16 : -12), y + 14] as const) as unknown as Quad;
    const options = { focal35Mm: picture.focal35Mm };
    const snapped = analysePhoto(raster, drawn, { ...options, near: rough });
    expect(farthest(snapped.found?.corners, corners)).toBeLessThan(0.5);
    const across = [[60, 500], [840, 500], [840, 700], [60, 700]] as const; // prettier-ignore
    expect(analysePhoto(raster, drawn, { ...options, near: across as unknown as Quad }).found).toBeNull();
  });

  it('is found in a live frame of a phone that is held upright, and looked for one way at a time if asked', () => {
    const { drawn, picture, corners, raster } = standing('birch-30in', 6);
    const options: LiveOptions = { focal35Mm: null, otherBoards: [], limitTiltDeg: 20 };
    const { sight, track } = lookLive(raster, drawn, null, options);
    expect(farthest(sight?.corners, corners)).toBeLessThan(2);
    const next = lookLive(raster, drawn, track, { ...options, way: 'lying' });
    expect(farthest(next.sight?.corners, corners)).toBeLessThan(2);
    expect(lookLive(raster, drawn, null, { ...options, way: 'lying' }).sight).toBeNull();
    const asked = lookLive(raster, drawn, null, { ...options, way: 'standing' });
    expect(farthest(asked.sight?.corners, corners)).toBeLessThan(2);
    // In a wide frame boards lie.
    expect(lookLive(picture.raster, drawn, null, { ...options, way: 'standing' }).sight).not.toBeNull();
  });
});

describe('a picture turned by a quarter', () => {
  it('shows each place where the turned camera’s pose throws it', () => {
    const { picture } = standing('birch-30in', 6);
    const tones = tonesOf(picture.raster);
    const turned = quarterTurned(tones);
    expect([turned.widthPx, turned.heightPx]).toEqual([tones.heightPx, tones.widthPx]);
    const [x, y] = [700, 120];
    const [tx, ty] = quarterTurnedPx([x, y], tones);
    expect(turned.data[ty * turned.widthPx + tx]).toBe(tones.data[y * tones.widthPx + x]);
    // Three quarters one way are one the other.
    const sizes = [turned, tones, turned];
    const pose = sizes.reduce((so, size) => turnedBack(so, size), picture.pose);
    for (const [mm, across] of [
      [0, 0],
      [300, 70],
      [762, 152],
    ] as const) {
      const [u, v] = quarterTurnedPx(projectBoardPoint(picture.pose, mm, across), tones);
      const [tu, tv] = projectBoardPoint(pose, mm, across);
      expect(Math.hypot(tu - u, tv - v)).toBeLessThan(1e-6);
    }
  });

  it('stands where its scale runs up or down', () => {
    const quad = (end: Point): Quad => [[100, 100], end, [end[0] + 9, end[1] + 9], [109, 109]];
    expect([quad([800, 300]), quad([-500, 0]), quad([150, 900]), quad([60, -400])].map(isStanding)).toEqual([false, false, true, true]); // prettier-ignore
  });
});
