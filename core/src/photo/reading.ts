import { faceCornersMm, faceLengthMm, type MeasuringBoard } from './board.ts';
import { cameraPose, focalPxFrom35mm } from './camera.ts';
import { checkQuad, fitHomography, mapPoint, type QuadRefusal, type Result } from './homography.ts';
import type { Point, Quad } from './point.ts';

/** What a person or the bench marked in a photograph, px of the upright picture (after EXIF rotation). */
export interface BoardMarks {
  corners: Quad;
  nose: Point;
  tail: Point;
}

export interface ReadingOptions {
  widthPx: number;
  heightPx: number;
  /** EXIF 35 mm equivalent, or null when the file tells none. */
  focal35Mm: number | null;
  /** Standard uncertainty of each coordinate of a corner and of a tip, px. */
  cornerSigmaPx?: number;
  tipSigmaPx?: number;
}

/** The lens of a photograph, as far as it bends the board: focal length and one radial term (OpenCV's k1). */
export interface BoardLens {
  focalPx: number;
  k1: number;
}

/** One cause of doubt and what it does to the length (a standard uncertainty, GUM). */
export interface ErrorShare {
  cause: 'board-fit' | 'tip-edge' | 'tail-height' | 'distortion';
  sigmaMm: number;
}

/** A length read off a photograph: value, uncertainty, how it was made. */
export interface BoardReading {
  kind: 'board';
  boardId: string;
  /** How the marks came about. `hand`: every mark was set by a person. */
  made: 'hand';
  marks: BoardMarks;
  /** From the stop's face to the tail along the scale, as a judge's eye reads it, mm. */
  apparentMm: number;
  sigmaMm: number;
  budget: readonly ErrorShare[];
  /** Where the nose is seen along the scale, mm; under 0 it is seen beyond the stop. */
  noseMm: number;
  /** Null when the focal length is not known. */
  tiltDeg: number | null;
}

export type ReadingRefusal =
  QuadRefusal | 'tail-before-nose' | 'tail-before-stop' | 'tail-off-board' | 'outside-photo';

/** A person sets a handle under a loupe to about a pixel and a half (common practice, no source). */
export const HAND_SIGMA_PX = 1.5;
/** A fish a little longer than the board still reads; beyond that nobody can tell. */
const PAST_END_MM = 5;
/** A mark may lie this share of the picture's width outside of it: a corner can be cut off. */
const OUTSIDE_SHARE = 0.5;

/**
 * Reads the apparent length off marks on a photograph.
 * Uncertainty by the law of propagation (GUM, JCGM 100:2008, 5.1.2), sensitivities by central differences.
 */
export function readBoard(
  board: MeasuringBoard,
  marks: BoardMarks,
  options: ReadingOptions,
): Result<BoardReading, ReadingRefusal> {
  const { widthPx, heightPx } = options;
  const all = [...marks.corners, marks.nose, marks.tail];
  const slackPx = OUTSIDE_SHARE * widthPx;
  const inside = ([x, y]: Point): boolean =>
    x >= -slackPx && x <= widthPx + slackPx && y >= -slackPx && y <= heightPx + slackPx;
  if (!all.every(inside)) return { ok: false, code: 'outside-photo' };
  const quad = checkQuad(marks.corners);
  if (!quad.ok) return quad;

  const apparentMm = alongBoardMm(board, marks.corners, marks.tail);
  const noseMm = alongBoardMm(board, marks.corners, marks.nose);
  if (!(apparentMm > noseMm)) return { ok: false, code: 'tail-before-nose' };
  if (apparentMm < 0) return { ok: false, code: 'tail-before-stop' };
  if (apparentMm > faceLengthMm(board) + PAST_END_MM) return { ok: false, code: 'tail-off-board' };

  const budget = errorBudget(
    board,
    marks,
    options.cornerSigmaPx ?? HAND_SIGMA_PX,
    options.tipSigmaPx ?? HAND_SIGMA_PX,
  );
  return {
    ok: true,
    value: {
      kind: 'board',
      boardId: board.id,
      made: 'hand',
      marks,
      apparentMm,
      sigmaMm: Math.hypot(...budget.map((share) => share.sigmaMm)),
      budget,
      noseMm,
      tiltDeg: tiltDeg(board, marks.corners, options),
    },
  };
}

function alongBoardMm(board: MeasuringBoard, corners: Quad, point: Point): number {
  return mapPoint(fitHomography(corners, faceCornersMm(board)), point)[0];
}

function errorBudget(
  board: MeasuringBoard,
  marks: BoardMarks,
  cornerSigmaPx: number,
  tipSigmaPx: number,
): ErrorShare[] {
  const stepPx = 0.5;
  const slope = (shifted: (byPx: number) => number): number =>
    (shifted(stepPx) - shifted(-stepPx)) / (2 * stepPx);
  const cornerSlopes = marks.corners.flatMap((_, corner) =>
    ([0, 1] as const).map((axis) =>
      slope((byPx) => alongBoardMm(board, shiftCorner(marks.corners, corner, axis, byPx), marks.tail)),
    ),
  );
  const tipSlopes = ([0, 1] as const).map((axis) =>
    slope((byPx) => alongBoardMm(board, marks.corners, shift(marks.tail, axis, byPx))),
  );
  return [
    { cause: 'board-fit', sigmaMm: cornerSigmaPx * Math.hypot(...cornerSlopes) },
    { cause: 'tip-edge', sigmaMm: tipSigmaPx * Math.hypot(...tipSlopes) },
  ];
}

function shift([x, y]: Point, axis: 0 | 1, byPx: number): Point {
  return axis === 0 ? [x + byPx, y] : [x, y + byPx];
}

function shiftCorner(corners: Quad, index: number, axis: 0 | 1, byPx: number): Quad {
  return corners.map((corner, i) => (i === index ? shift(corner, axis, byPx) : corner)) as unknown as Quad;
}

function tiltDeg(
  board: MeasuringBoard,
  corners: Quad,
  { focal35Mm, widthPx, heightPx }: ReadingOptions,
): number | null {
  if (focal35Mm === null) return null;
  const boardToPhoto = fitHomography(faceCornersMm(board), corners);
  const centre: Point = [(widthPx - 1) / 2, (heightPx - 1) / 2];
  return cameraPose(boardToPhoto, focalPxFrom35mm(focal35Mm, widthPx, heightPx), centre).tiltDeg;
}
