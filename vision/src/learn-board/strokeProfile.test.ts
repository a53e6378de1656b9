import { describe, expect, it } from 'vitest';
import { SHIPPED_BOARDS, faceLengthMm, findBoard, mmPerUnit, type MeasuringBoard } from '../board/board.ts';
import { patternOf } from '../find-board/pattern.ts';
import { smoothTones, tonesOf } from '../find-board/tones.ts';
import { drawBoardPicture } from '../board/drawnBoard.test-data.ts';
import { movedAcross } from './markedLines.ts';
import { faceEdges, faceEnd, isFaceBetween } from './faceEdges.ts';
import { lineContrast, quantile, type PrintedFace } from './lineContrast.ts';
import { coloursOf, numeralsOf, strokeProfile } from './strokeProfile.ts';
import { rulingBetween, rulingNear } from './ruling.ts';
import { isSameKind } from './sameKind.ts';
import { medianColour, type SeenFace } from './seenFace.ts';

/** A drawn board and where it truly lies: what is printed there is known from its profile. */
function faceOf(
  id: string,
  seed = 3,
): { board: MeasuringBoard; face: PrintedFace & SeenFace; pxPerMm: number } {
  const board = findBoard(id) as MeasuringBoard;
  const { raster, pose } = drawBoardPicture(board, { seed, widthPx: 2000, heightPx: 1500, tiltDeg: 5 });
  const { inkDarker, widthMm } = patternOf(board);
  const smooth = smoothTones(tonesOf(raster));
  return {
    board,
    face: { photo: raster, smooth, pose, widthMm, inkDarker },
    pxPerMm: (0.85 * 2000) / faceLengthMm(board),
  };
}

const birch = faceOf('birch-30in');
const slate = faceOf('slate-75cm');
const kinds = [
  ['pale, in inches', birch],
  ['dark, in centimetres', slate],
] as const;

describe('the contrast of a line', () => {
  const sight = { flankMm: 1.9, slackMm: 0 };

  it.each(kinds)('is high on a line and low beside it: %s', (_, { board, face }) => {
    const unitMm = mmPerUnit(board) * (board.lines[0]?.every ?? 1);
    const middle = board.widthMm / 2;
    expect(lineContrast(face, 3 * unitMm, middle, sight)).toBeGreaterThan(0.5);
    expect(lineContrast(face, 3 * unitMm + 6, middle, sight)).toBeLessThan(0.15);
  });

  it('finds a line that lies a little beside the place', () => {
    const { face, board } = birch;
    const off = 3 * 25.4 + 1.2;
    const straight = lineContrast(face, off, board.widthMm / 2, sight) ?? NaN;
    expect(lineContrast(face, off, board.widthMm / 2, { ...sight, slackMm: 1.5 })).toBeGreaterThan(
      straight + 0.3,
    );
  });

  it('is none outside of the picture', () => {
    expect(lineContrast(birch.face, -4000, 0, sight)).toBeNull();
  });
});

describe('the ruling', () => {
  it.each(kinds)('of the whole board is that of its profile: %s', (_, { board, face, pxPerMm }) => {
    const { families } = rulingBetween(face, board.unit, mmPerUnit(board), board.scaleLength, pxPerMm);
    expect(families.map(({ every }) => every)).toEqual(board.lines.map(({ every }) => every));
    families.forEach(({ spans }, i) => expect(spans).toHaveLength(board.lines[i]?.spans.length ?? 0));
  });

  it('next to two marks holds the fractions, and no group of units', () => {
    const { board, face, pxPerMm } = birch;
    const { families } = rulingNear(face, board.unit, 25.4, [2 * 25.4, 27 * 25.4], pxPerMm);
    expect(families.map(({ every }) => every)).toEqual([1, 0.5, 0.25]);
  });

  it('is empty where nothing is printed', () => {
    const { board, face, pxPerMm } = birch;
    const aside = { ...face, pose: movedAcross(face.pose, 2.2 * board.widthMm) };
    expect(rulingNear(aside, board.unit, 25.4, [2 * 25.4, 27 * 25.4], pxPerMm).families).toEqual([]);
  });
});

describe('the face’s edges', () => {
  it.each(kinds)('are found where the marks were a little off: %s', (_, { board, face }) => {
    const unitMm = mmPerUnit(board) * (board.lines[0]?.every ?? 1);
    const full: number[] = [];
    for (let xMm = unitMm; xMm < faceLengthMm(board); xMm += unitMm) full.push(xMm);
    const off = { ...face, pose: movedAcross(face.pose, 1.5), widthMm: face.widthMm - 2 };
    const { farMm, nearMm } = faceEdges(off, faceLengthMm(board), full);
    expect(Math.abs(farMm + 1.5)).toBeLessThan(0.5);
    expect(Math.abs(nearMm - farMm - board.widthMm)).toBeLessThan(0.7);
  });

  it.each(kinds)('and its end, from a few millimetres beside it: %s', (_, { board, face }) => {
    const lengthMm = faceLengthMm(board);
    const end = faceEnd(face, lengthMm - 2.5, 6);
    // The last line lies on the end, half of it beyond.
    expect(Math.abs((end ?? NaN) - lengthMm)).toBeLessThan(2.2);
    expect(faceEnd(face, lengthMm / 2 + 9.5, 0.3)).toBeNull();
  });

  it('and the ground beyond is no face', () => {
    const { face, board } = birch;
    const lengthMm = faceLengthMm(board);
    expect(isFaceBetween(face, [100, 125], [125, 150])).toBe(true);
    expect(isFaceBetween(face, [lengthMm - 25, lengthMm], [lengthMm + 2, lengthMm + 27])).toBe(false);
    expect(isFaceBetween(face, [100, 125], [9000, 9025])).toBe(false);
  });
});

describe('strokes', () => {
  it.each(kinds)('are as broad as they were drawn, whatever the blur: %s', (_, { board, face }) => {
    const unitMm = mmPerUnit(board);
    const profiles = board.lines.map(({ every, spans }, i) => {
      const coarser = board.lines.slice(0, i).map((family) => family.every);
      const places: number[] = [];
      for (let at = every; at < board.scaleLength; at += every)
        if (!coarser.some((other) => Math.abs(at / other - Math.round(at / other)) < 1e-6))
          places.push(at * unitMm);
      return strokeProfile(face, board.widthMm, places, spans, 2.6, face.inkDarker);
    });
    const extremes = profiles.map(({ extreme }) => extreme);
    const inkShare = face.inkDarker ? Math.min(...extremes) : Math.max(...extremes);
    profiles.forEach((profile, i) =>
      expect(Math.abs(profile.strokeMm(inkShare) - (board.lines[i]?.strokeMm ?? NaN))).toBeLessThan(0.4),
    );
  });
});

describe('numerals and colours', () => {
  it.each(kinds)('stand where the profile says: %s', (_, { board, face }) => {
    const inkShare = face.inkDarker ? 0.2 : 4;
    const found = numeralsOf(face, board, inkShare);
    const right = found.find(({ every }) => every === board.numerals.every);
    expect(right?.centresAt).toHaveLength(board.numerals.centresAt.length);
    right?.centresAt.forEach((at, i) =>
      expect(Math.abs(at - (board.numerals.centresAt[i] ?? NaN))).toBeLessThan(0.012),
    );
    expect(Math.abs((right?.heightMm ?? NaN) - board.numerals.heightMm)).toBeLessThan(1.5);
  });

  it.each(kinds)('are of the profile’s hue, the lighter of both well lit: %s', (_, { board, face }) => {
    const { inkDarker } = face;
    const found = coloursOf(face, board, inkDarker ? 0.2 : 4);
    const rgb = (hex: string): number[] => [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16));
    const light = rgb(inkDarker ? found.face : found.ink);
    expect(Math.max(...light)).toBeGreaterThan(200);
    const [red = 0, green = 0, blue = 0] = rgb(found.face);
    const [r = 0, g = 0, b = 0] = rgb(board.face);
    expect(Math.abs(red / green - r / g)).toBeLessThan(0.06);
    expect(Math.abs(blue / green - b / g)).toBeLessThan(0.06);
  });

  it('the median of colours is that of each channel', () => {
    expect(medianColour([[1, 9, 5], [2, 8, 6], [30, 7, 40]])).toEqual([2, 8, 6]); // prettier-ignore
    expect(quantile([], 0.5)).toBe(0);
    expect(quantile([5, 1, 3], 0.99)).toBe(5);
  });
});

describe('two kinds of board', () => {
  const [pale, tan] = SHIPPED_BOARDS as [MeasuringBoard, MeasuringBoard];

  it.each<[string, Partial<MeasuringBoard>, boolean]>([
    ['other colours', { face: '#000000', ink: '#ffffff' }, true],
    ['another stop', { stop: { ...pale.stop, heightMm: 30 } }, true],
    ['a hair’s breadth more', { widthMm: 154 }, true],
    ['another breadth', { widthMm: 170 }, false],
    ['another length', { scaleLength: 26 }, false],
    ['another unit', { unit: 'cm' }, false],
    ['one family fewer', { lines: pale.lines.slice(0, 2) }, false],
    ['longer half lines', { lines: pale.lines.map((family, i) => (i === 1 ? { ...family, spans: [[0, 0.4], [0.6, 1]] as const } : family)) }, false],
  ])('with %s are one kind or two', (_, change, same) => {
    expect(isSameKind(pale, { ...pale, ...change })).toBe(same);
  }); // prettier-ignore

  it('as shipped are all different', () => {
    expect(isSameKind(pale, tan)).toBe(false);
  });
});
