import { describe, expect, it } from 'vitest';
import {
  SHIPPED_BOARDS,
  boardMap,
  faceCornersMm,
  type MeasuringBoard,
  type PhotoAnalysis,
  type Quad,
} from '@lauta/vision';
import { benchNotes, startMarks } from './startMarks.ts';
import { firstMarks } from './handles.ts';

const birch = SHIPPED_BOARDS[0] as MeasuringBoard;
const size = { widthPx: 1600, heightPx: 1200 };
const corners: Quad = [
  [200, 400],
  [1400, 420],
  [1396, 660],
  [196, 640],
];
const lens = { focalPx: 1100, k1: -0.02 };

const analysis: PhotoAnalysis = {
  found: { boardId: birch.id, corners, lens, tiltDeg: 4, seenShare: 0.7 },
  marks: null,
  outline: null,
  apparentMm: null,
  lengthMm: null,
  sigmaMm: null,
  budget: [],
  noseGapMm: null,
  mouthGapMm: null,
  identifier: null,
  flank: null,
  findings: [],
  trouble: 'no-tail',
};

describe('what goes with marks', () => {
  it('is the lens that was found, and what a person moved', () => {
    expect(benchNotes(analysis, ['tail'])).toEqual({ lens, byHand: ['tail'], tipSigmaMm: 1 });
  });

  it('is the tail’s own doubt where the bench saw the tail', () => {
    const budget = [
      { cause: 'board-fit', sigmaMm: 0.1 },
      { cause: 'tip-edge', sigmaMm: 0.43 },
    ] as const;
    expect(benchNotes({ ...analysis, budget }, [])?.tipSigmaMm).toBe(0.43);
  });

  it('is nothing where no board was found, or nothing was looked for', () => {
    expect(benchNotes({ ...analysis, found: null }, [])).toBeNull();
    expect(benchNotes(null, ['nose'])).toBeNull();
  });
});

describe('where the handles lie first', () => {
  it('is on the board that was found, nose at the stop, tail two breadths on, through its lens', () => {
    const marks = startMarks(analysis, SHIPPED_BOARDS, size);
    expect(marks.corners).toEqual(corners);
    const map = boardMap(birch, corners, lens, size);
    const [noseX, noseY] = map.toBoard(marks.nose);
    expect(noseX).toBeCloseTo(0, 6);
    expect(noseY).toBeCloseTo(birch.widthMm / 2, 6);
    expect(map.toBoard(marks.tail)[0]).toBeCloseTo(2 * birch.widthMm, 6);
  });

  it('is on an event’s own kind of board as well', () => {
    const own = { ...birch, id: 'alder-30in', widthMm: 100 };
    const found = { ...analysis, found: { ...analysis.found, boardId: own.id } } as PhotoAnalysis;
    const marks = startMarks(found, [...SHIPPED_BOARDS, own], size);
    const [tailX] = boardMap(own, corners, lens, size).toBoard(marks.tail);
    expect(tailX).toBeCloseTo(200, 6);
    expect(faceCornersMm(own)[2][1]).toBe(100);
  });

  it('is as most photographs show a board where none was found, or its kind is not known', () => {
    const first = firstMarks(1600, 1200);
    expect(startMarks(null, SHIPPED_BOARDS, size)).toEqual(first);
    expect(startMarks({ ...analysis, found: null }, SHIPPED_BOARDS, size)).toEqual(first);
    expect(startMarks(analysis, [], size)).toEqual(first);
  });
});
