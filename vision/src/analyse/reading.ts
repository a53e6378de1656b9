import type { Result } from '@lauta/core/result';
import { faceLengthMm, type MeasuringBoard } from '../board/board.ts';
import { boardMap, type BoardLens } from '../board/boardMap.ts';
import { focalPxFrom35mm } from '../camera/camera.ts';
import { checkQuad, type QuadRefusal } from '../camera/homography.ts';
import { mapQuad, type Point, type Quad } from '../geometry/point.ts';
import { TAIL_HEIGHT_SIGMA_MM, trueLengthMm } from '../find-fish/tailHeight.ts';

/** What a person or the bench marked in a photograph, px of the upright picture (after EXIF rotation). */
export interface BoardMarks {
  corners: Quad;
  nose: Point;
  tail: Point;
}

/** The marks that a person can move by themselves. */
export const MARK_NAMES = ['corners', 'nose', 'tail'] as const;
export type MarkName = (typeof MARK_NAMES)[number];

/** What the bench found out about a photograph whose marks it set. */
export interface BenchNotes {
  lens: BoardLens;
  /** Marks that a person has moved since. */
  byHand: readonly MarkName[];
  /** Standard uncertainty of the tail's edge as the bench saw it, mm. */
  tipSigmaMm: number;
}

export interface ReadingOptions {
  widthPx: number;
  heightPx: number;
  /** EXIF 35 mm equivalent, or null when the file tells none. */
  focal35Mm: number | null;
  /** Null when every mark was set by a person. */
  bench?: BenchNotes | null;
  /** Standard uncertainty of each coordinate of a corner and of a tip set by hand, px. */
  cornerSigmaPx?: number;
  tipSigmaPx?: number;
}

/** One cause of doubt and what it does to the length (a standard uncertainty, GUM). */
export interface ErrorShare {
  cause: 'board-fit' | 'tip-edge' | 'tail-height' | 'distortion';
  sigmaMm: number;
}

/** A tail whose edge is in more doubt than this hardly stands out from the board, mm. */
const FAINT_EDGE_MM = 5;

/** Whether the tail's end is hardly seen: a person should say where it is. */
export function isTailFaint(budget: readonly ErrorShare[]): boolean {
  return budget.some(({ cause, sigmaMm }) => cause === 'tip-edge' && sigmaMm > FAINT_EDGE_MM);
}

/** A length read off a photograph: value, uncertainty, how it was made. */
export interface BoardReading {
  kind: 'board';
  boardId: string;
  /** How the marks came about: all by a person, all by the bench, or some of these moved by a person. */
  made: 'hand' | 'bench' | 'corrected';
  byHand: readonly MarkName[];
  marks: BoardMarks;
  /** Null for marks set by hand: then the lens is taken to be without distortion. */
  lens: BoardLens | null;
  /** From the stop's face to the tail along the scale, as a judge's eye reads it, mm. */
  apparentMm: number;
  /** Corrected for the tail's height over the face (parallax), mm; null when the focal length is not known. */
  lengthMm: number | null;
  sigmaMm: number;
  budget: readonly ErrorShare[];
  /** Where the nose is seen along the scale, mm; under 0 it is seen beyond the stop. */
  noseMm: number;
  /** Null when the focal length is not known. */
  tiltDeg: number | null;
}

/** A reading as some landed version stored it: what came later may be missing. */
export type StoredBoardReading = Omit<BoardReading, 'byHand' | 'lens' | 'lengthMm'> &
  Partial<Pick<BoardReading, 'byHand' | 'lens' | 'lengthMm'>>;

/** Brings a stored reading to today's form: before there was a bench all marks were set by hand. */
export function readingOf(stored: StoredBoardReading): BoardReading {
  return {
    ...stored,
    byHand: stored.byHand ?? MARK_NAMES,
    lens: stored.lens ?? null,
    lengthMm: stored.lengthMm ?? null,
  };
}

export type ReadingRefusal =
  QuadRefusal | 'tail-before-nose' | 'tail-before-stop' | 'tail-off-board' | 'outside-photo';

/** A person sets a handle under a loupe to about a pixel and a half (common practice, no source). */
export const HAND_SIGMA_PX = 1.5;
/** Corners from a fit of hundreds of lines (measured on simulated photographs; docs/measured.md). */
export const BENCH_CORNER_SIGMA_PX = 0.15;
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

  const bench = options.bench ?? null;
  const byHand = bench ? MARK_NAMES.filter((name) => bench.byHand.includes(name)) : [...MARK_NAMES];
  const lens = bench?.lens ?? null;
  const toMm = (corners: Quad, point: Point): Point => boardMap(board, corners, lens, options).toBoard(point);
  const apparentMm = toMm(marks.corners, marks.tail)[0];
  const noseMm = toMm(marks.corners, marks.nose)[0];
  if (!(apparentMm > noseMm)) return { ok: false, code: 'tail-before-nose' };
  if (apparentMm < 0) return { ok: false, code: 'tail-before-stop' };
  if (apparentMm > faceLengthMm(board) + PAST_END_MM) return { ok: false, code: 'tail-off-board' };

  const focalPx =
    lens?.focalPx ??
    (options.focal35Mm === null ? null : focalPxFrom35mm(options.focal35Mm, widthPx, heightPx));
  const pose = focalPx === null ? null : boardMap(board, marks.corners, lens, options).pose(focalPx);
  const budget = errorBudget({ board, marks, options, toMm, byHand, apparentMm });
  if (pose) {
    const [cameraXMm, , cameraZMm] = pose.positionMm;
    budget.push({
      cause: 'tail-height',
      sigmaMm: (TAIL_HEIGHT_SIGMA_MM * Math.abs(apparentMm - cameraXMm)) / cameraZMm,
    });
  }
  return {
    ok: true,
    value: {
      kind: 'board',
      boardId: board.id,
      made: byHand.length === MARK_NAMES.length ? 'hand' : byHand.length === 0 ? 'bench' : 'corrected',
      byHand,
      marks,
      lens,
      apparentMm,
      lengthMm: pose && trueLengthMm(apparentMm, pose.positionMm[0], pose.positionMm[2]),
      sigmaMm: Math.hypot(...budget.map((share) => share.sigmaMm)),
      budget,
      noseMm,
      tiltDeg: pose && pose.tiltDeg,
    },
  };
}

interface Doubted {
  board: MeasuringBoard;
  marks: BoardMarks;
  options: ReadingOptions;
  toMm: (corners: Quad, point: Point) => Point;
  byHand: readonly MarkName[];
  apparentMm: number;
}

function errorBudget({ marks, options, toMm, byHand }: Doubted): ErrorShare[] {
  const bench = options.bench ?? null;
  const cornerSigmaPx = byHand.includes('corners')
    ? (options.cornerSigmaPx ?? HAND_SIGMA_PX)
    : BENCH_CORNER_SIGMA_PX;
  const tipSigmaPx = options.tipSigmaPx ?? HAND_SIGMA_PX;
  const stepPx = 0.5;
  const slope = (shifted: (byPx: number) => number): number =>
    (shifted(stepPx) - shifted(-stepPx)) / (2 * stepPx);
  const cornerSlopes = marks.corners.flatMap((_, corner) =>
    ([0, 1] as const).map((axis) =>
      slope((byPx) => toMm(shiftCorner(marks.corners, corner, axis, byPx), marks.tail)[0]),
    ),
  );
  const tipSlopes = ([0, 1] as const).map((axis) =>
    slope((byPx) => toMm(marks.corners, shift(marks.tail, axis, byPx))[0]),
  );
  const handTipMm = tipSigmaPx * Math.hypot(...tipSlopes);
  return [
    { cause: 'board-fit', sigmaMm: cornerSigmaPx * Math.hypot(...cornerSlopes) },
    { cause: 'tip-edge', sigmaMm: bench && !byHand.includes('tail') ? bench.tipSigmaMm : handTipMm },
  ];
}

function shift([x, y]: Point, axis: 0 | 1, byPx: number): Point {
  return axis === 0 ? [x + byPx, y] : [x, y + byPx];
}

function shiftCorner(corners: Quad, index: number, axis: 0 | 1, byPx: number): Quad {
  return mapQuad(corners, (corner, i) => (i === index ? shift(corner, axis, byPx) : corner));
}
