import { seededDice } from '@lauta/core/dice';
import { describe, expect, it } from 'vitest';
import { SHIPPED_BOARDS, mmPerUnit, type MeasuringBoard } from '../board/board.ts';
import { drawBoardPicture, type BoardPicture, type BoardView } from '../board/drawnBoard.test-data.ts';
import { projectBoardPoint } from '../camera/lens.ts';
import { fitHomography, mapPoint } from '../camera/homography.ts';
import type { Point } from '../geometry/point.ts';
import { learnBoard, type LearnResult, type LearnWish } from './learnBoard.ts';
import { poseOverLines, type MarkedLine } from './markedLines.ts';

const board = (id: string): MeasuringBoard => SHIPPED_BOARDS.find((one) => one.id === id) as MeasuringBoard;

function run(picture: BoardPicture, wish: LearnWish): LearnResult {
  const steps = learnBoard(picture.raster, wish);
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

/** Marks as a person sets them with a loupe: up to 2 px beside the place. */
function marksOn(picture: BoardPicture, values: readonly [number, number]): [MarkedLine, MarkedLine] {
  const dice = seededDice(7);
  const by = (): number => 4 * (dice() - 0.5);
  const at = (value: number, yMm: number): Point => {
    const [x, y] = projectBoardPoint(picture.pose, value * mmPerUnit(picture.board), yMm);
    return [x + by(), y + by()];
  };
  return values.map((value) => ({
    value,
    far: at(value, 0),
    near: at(value, picture.board.widthMm),
  })) as [MarkedLine, MarkedLine];
}

function wishFor(picture: BoardPicture, values: readonly [number, number]): LearnWish {
  return {
    unit: picture.board.unit,
    lines: marksOn(picture, values),
    focal35Mm: picture.focal35Mm,
    hasWall: false,
    widthMm: null,
  };
}

describe('a board’s profile is learnt from one photograph', () => {
  // The truth is the profile that the picture was drawn from.
  it.each<[string, readonly [number, number], Partial<BoardView>]>([
    ['birch-30in', [2, 27], { tiltDeg: 6, rollDeg: 3 }],
    ['sand-26in', [3, 24], { fieldDeg: 88, k1: -0.04 }],
    ['slate-75cm', [10, 65], { tiltDeg: 12, towardsDeg: 70, rollDeg: -8 }],
  ])('%s: lines, numerals, size and colours', (id, values, view) => {
    const picture = drawBoardPicture(board(id), { seed: 3, widthPx: 2000, heightPx: 1500, ...view });
    const result = run(picture, wishFor(picture, values));
    expect(result.ok).toBe(true);
    if (!result.ok) return;
    const { board: learnt, isFoundAgain, seenShare, corners } = result.value;
    const truth = board(id);
    expect(learnt.scaleLength).toBe(truth.scaleLength);
    expect(Math.abs(learnt.widthMm - truth.widthMm)).toBeLessThan(0.005 * truth.widthMm);
    expect(learnt.lines.map(({ every }) => every)).toEqual(truth.lines.map(({ every }) => every));
    learnt.lines.forEach((family, i) => {
      const wanted = truth.lines[i];
      expect(family.spans).toHaveLength(wanted?.spans.length ?? 0);
      family.spans.forEach((span, j) =>
        span.forEach((end, k) => expect(Math.abs(end - (wanted?.spans[j]?.[k] ?? NaN))).toBeLessThan(0.015)),
      );
      expect(Math.abs(family.strokeMm - (wanted?.strokeMm ?? NaN))).toBeLessThan(0.4);
    });
    expect(learnt.numerals.every).toBe(truth.numerals.every);
    expect(Math.abs(learnt.numerals.heightMm - truth.numerals.heightMm)).toBeLessThan(1.5);
    learnt.numerals.centresAt.forEach((at, i) =>
      expect(Math.abs(at - (truth.numerals.centresAt[i] ?? NaN))).toBeLessThan(0.01),
    );
    expect(brightness(learnt.face) > brightness(learnt.ink)).toBe(
      brightness(truth.face) > brightness(truth.ink),
    );
    corners.forEach(([x, y], i) => {
      const [u, v] = projectBoardPoint(picture.pose, ...(faceCorner(truth, i) as [number, number]));
      expect(Math.hypot(x - u, y - v)).toBeLessThan(2.5);
    });
    expect(seenShare).toBeGreaterThan(0.9);
    expect(isFoundAgain).toBe(true);
  });

  it('takes a width that was measured with a ruler', () => {
    const picture = drawBoardPicture(board('birch-30in'), { seed: 5, tiltDeg: 4 });
    const result = run(picture, { ...wishFor(picture, [2, 27]), widthMm: 152 });
    expect(result.ok && result.value.board.widthMm).toBe(152);
    expect(result.ok && result.value.isFoundAgain).toBe(true);
  });
});

describe('no profile comes of', () => {
  const picture = drawBoardPicture(board('birch-30in'), { seed: 4, tiltDeg: 5 });
  const wish = wishFor(picture, [2, 27]);
  const [low, high] = wish.lines;

  it.each<[string, LearnWish]>([
    ['numbers in the wrong order', { ...wish, lines: [high, low] }],
    ['the same number twice', { ...wish, lines: [low, { ...high, value: 2 }] }],
    ['a negative number', { ...wish, lines: [{ ...low, value: -3 }, high] }],
    ['ends on one spot', { ...wish, lines: [low, { ...high, near: high.far }] }],
    [
      'edges swapped, as in a mirror',
      {
        ...wish,
        lines: [
          { ...low, far: low.near, near: low.far },
          { ...high, far: high.near, near: high.far },
        ],
      },
    ],
  ])('%s', (_, broken) => {
    expect(run(picture, broken)).toEqual({ ok: false, code: 'marks-unusable' });
  });

  it('wrong numbers: the lines between do not fall on whole steps', () => {
    const result = run(picture, { ...wish, lines: [low, { ...high, value: 25.6 }] });
    expect(result.ok).toBe(false);
  });

  it('a place without lines', () => {
    const off = 420;
    const moved = wish.lines.map(({ value, far, near }) => ({
      value,
      far: [far[0], far[1] - off] as const,
      near: [near[0], near[1] - off] as const,
    })) as unknown as LearnWish['lines'];
    const result = run(picture, { ...wish, lines: moved });
    expect(result.ok).toBe(false);
    expect(['no-lines', 'no-scale']).toContain(!result.ok && result.code);
  });

  it('a board without numerals: its zero could never be settled', () => {
    const plain = drawBoardPicture(board('birch-30in'), { seed: 4, tiltDeg: 5, withNumerals: false });
    expect(run(plain, wishFor(plain, [2, 27]))).toEqual({ ok: false, code: 'no-numerals' });
  });

  it('a picture of 200 × 150 px', () => {
    const small = drawBoardPicture(board('birch-30in'), { seed: 4, widthPx: 200, heightPx: 150 });
    expect(run(small, wishFor(small, [2, 27]))).toEqual({ ok: false, code: 'too-small' });
  });
});

describe('the pose over two marked lines', () => {
  it('is the one they were drawn with, and so is the width (Zhang 2000: both axes have one scale)', () => {
    const picture = drawBoardPicture(board('slate-75cm'), { seed: 1, tiltDeg: 25, towardsDeg: 40 });
    const exact = [10, 65].map((value) => ({
      value,
      far: projectBoardPoint(picture.pose, value * 10, 0),
      near: projectBoardPoint(picture.pose, value * 10, 140),
    })) as unknown as [MarkedLine, MarkedLine];
    const { pose, widthMm } = poseOverLines(exact, 10, picture.pose);
    expect(widthMm).toBeCloseTo(140, 6);
    pose.rotation.forEach((value, i) => expect(value).toBeCloseTo(picture.pose.rotation[i] ?? NaN, 6));
    pose.zeroMm.forEach((value, i) => expect(value).toBeCloseTo(picture.pose.zeroMm[i] ?? NaN, 4));
    // The same by the homography alone.
    const corners = [exact[0].far, exact[1].far, exact[1].near, exact[0].near];
    const h = fitHomography([[100, 0], [650, 0], [650, 140], [100, 140]], corners); // prettier-ignore
    const [x, y] = projectBoardPoint(pose, 333, 77);
    const [u, v] = mapPoint(h, [333, 77]);
    expect(Math.hypot(x - u, y - v)).toBeLessThan(1e-6);
  });
});

function faceCorner(truth: MeasuringBoard, i: number): readonly number[] {
  const lengthMm = truth.scaleLength * mmPerUnit(truth);
  return [
    [0, 0],
    [lengthMm, 0],
    [lengthMm, truth.widthMm],
    [0, truth.widthMm],
  ][i];
}

/** Rec. 601 luma. */
function brightness(hex: string): number {
  const value = Number.parseInt(hex.slice(1), 16);
  return 0.299 * ((value >> 16) & 255) + 0.587 * ((value >> 8) & 255) + 0.114 * (value & 255);
}
