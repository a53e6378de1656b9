import type { MeasuringBoard } from './board.ts';
import { patternOf, type Pattern } from './board-search/pattern.ts';
import { fitSigmaMm } from './board-search/refine.ts';
import { cornersPx, locateBoard, type BoardTrouble, type LocatedBoard } from './board-search/locate.ts';
import { shrinkFactor, shrinkRaster, smoothTones, tonesOf, type Tones } from './board-search/tones.ts';
import { seededDice } from './dice.ts';
import type { Finding } from './findings.ts';
import { locateFish, type FishTrouble, type LocatedFish } from './fish-search/locateFish.ts';
import { axisAtStop, flareAt, outlineOf, type FishOutline } from './fish-search/outline.ts';
import { cameraPlaceMm, lensTiltDeg, projectBoardPoint, type LensPose } from './lens.ts';
import { scalePx, type Point, type Quad } from './point.ts';
import type { BoardLens } from './boardMap.ts';
import type { BoardMarks, ErrorShare } from './reading.ts';
import { TAIL_HEIGHT_SIGMA_MM, trueLengthMm } from './tailHeight.ts';
import type { Raster } from './rectify.ts';

/** Why there is no length, in the order in which it is asked. */
export type AnalysisTrouble =
  BoardTrouble | FishTrouble | 'too-small' | 'too-long' | 'head-cropped' | 'tail-cropped';

export interface BoardFound {
  boardId: string;
  corners: Quad;
  lens: BoardLens;
  tiltDeg: number;
  /** Share of the looked-for line pieces that were seen. */
  seenShare: number;
}

/** What the bench reads off one photograph by itself. Places are px of the upright picture. */
export interface PhotoAnalysis {
  found: BoardFound | null;
  marks: BoardMarks | null;
  outline: { upper: readonly Point[]; lower: readonly Point[] } | null;
  /** Where the tail is seen along the scale, mm. */
  apparentMm: number | null;
  /** Corrected for the height of the tail over the face, mm. */
  lengthMm: number | null;
  sigmaMm: number | null;
  budget: readonly ErrorShare[];
  findings: readonly Finding[];
  trouble: AnalysisTrouble | null;
}

export interface AnalysisOptions {
  /** EXIF 35 mm equivalent, or null when the file tells none. */
  focal35Mm: number | null;
  /** The highest tilt that the rules allow, degrees; 20 when they are silent. */
  limitTiltDeg?: number;
  /** Other kinds of board to try when it is not the claimed one. */
  otherBoards?: readonly MeasuringBoard[];
  /** Ids of the kinds that are no fault; by default the claimed one alone. */
  approved?: readonly string[];
  /** Four corners set roughly by a person: the board is looked for there. */
  near?: Quad;
  /** Asked between steps: once it says so the search ends without a board. */
  isOver?: () => boolean;
}

export type AnalysisStage = 'prepare' | 'board' | 'fish' | 'done';

const LEAST_SIDE_PX = 300;
const USUAL_TILT_LIMIT_DEG = 20;
/**
 * A fin thins out towards its edge: the last of it cannot be told from the board. 0.2 to 1 mm on photographs with
 * known truth; no published source.
 */
const FIN_FADE_MM = 0.45;
/** Scatter of the tail's edge on sharp pictures, mm and px (measured; docs/measuring.md). */
const EDGE_SIGMA_MM = 0.4;
const EDGE_SIGMA_PX = 0.36;
/** Height of a closed mouth over the face, as a share of the fish's length (from memory). */
const NOSE_HEIGHT_SHARE = 0.045;

/**
 * Finds board and fish in an upright photograph and reads the length. Yields the stage that begins, so that whoever
 * runs it can tell, pause or stop; nothing in it depends on a clock.
 */
export function* analysisSteps(
  photo: Raster,
  claimed: MeasuringBoard,
  options: AnalysisOptions,
): Generator<AnalysisStage, PhotoAnalysis> {
  yield 'prepare';
  if (Math.min(photo.widthPx, photo.heightPx) < LEAST_SIDE_PX) return withoutLength('too-small', null, []);
  const factor = shrinkFactor(photo.widthPx, photo.heightPx);
  const small = shrinkRaster(photo, factor);
  const smooth = smoothTones(tonesOf(small));
  yield 'board';
  const near = options.near?.map((corner) => scalePx(corner, 1 / factor));
  const search = searchBoards(smooth, claimed, options, near as Quad | undefined);
  let step = search.next();
  while (!step.done) {
    yield 'board';
    if (options.isOver?.()) return withoutLength('too-long', null, []);
    step = search.next();
  }
  const { located, trouble, findings } = step.value;
  if (!located) return withoutLength(trouble, null, findings);
  const scale = scaleBy(factor);
  const found = describeBoard(located, scale);
  yield 'fish';
  const pattern = patternOf(located.board);
  const frame = { widthPx: small.widthPx, heightPx: small.heightPx };
  findings.push(steepCamera(found.tiltDeg, options.limitTiltDeg ?? USUAL_TILT_LIMIT_DEG));
  const fish = locateFish(small, smooth, located.pose, pattern);
  if (!fish.ok) return withoutLength(fish.code, found, [...findings, facing(found, null)]);
  const outline = outlineOf(fish.value.view, fish.value.labels, fish.value.piece, pattern.widthMm);
  const nose = nosePlace(located.pose, outline);
  findings.push(
    headCropped(located.pose, pattern, nose, frame, scale),
    tailCropped(located.pose, fish.value, frame, scale),
    facing(found, outline),
    unsharp(fish.value, pattern),
  );
  const length = lengthOf(located, fish.value);
  const { tip } = fish.value;
  const marks: BoardMarks = {
    corners: found.corners,
    nose: scale(nose),
    tail: scale(projectBoardPoint(located.pose, tip.xMm, tip.yMm)),
  };
  const drawn = {
    upper: outline.xMm.map((x, i) => scale(projectBoardPoint(located.pose, x, outline.upperMm[i] as number))),
    lower: outline.xMm.map((x, i) => scale(projectBoardPoint(located.pose, x, outline.lowerMm[i] as number))),
  };
  const cropped = (['head-cropped', 'tail-cropped'] as const).find((check) =>
    findings.some((finding) => finding.check === check && finding.verdict === 'fault'),
  );
  if (cropped) return { ...withoutLength(cropped, found, findings), outline: drawn };
  return { found, marks, outline: drawn, ...length, findings, trouble: null };
}

/** Runs an analysis to its end. */
export function analysePhoto(photo: Raster, board: MeasuringBoard, options: AnalysisOptions): PhotoAnalysis {
  const steps = analysisSteps(photo, board, options);
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

function withoutLength(
  trouble: AnalysisTrouble | null,
  found: BoardFound | null,
  findings: readonly Finding[],
): PhotoAnalysis {
  return {
    found,
    marks: null,
    outline: null,
    apparentMm: null,
    lengthMm: null,
    sigmaMm: null,
    budget: [],
    findings,
    trouble,
  };
}

type Scale = (point: Point) => Point;

/** From px of the shrunk picture to px of the whole: a block's centre is its middle. */
function scaleBy(factor: number): Scale {
  return (point) => scalePx(point, factor);
}

interface BoardSearch {
  located: LocatedBoard | null;
  trouble: BoardTrouble;
  findings: Finding[];
}

const DICE_SEED = 20260614;

function* searchBoards(
  smooth: Tones,
  claimed: MeasuringBoard,
  { focal35Mm, otherBoards = [], approved = [claimed.id] }: AnalysisOptions,
  near: Quad | undefined,
): Generator<undefined, BoardSearch> {
  const boards = [claimed, ...otherBoards.filter((board) => board.id !== claimed.id)];
  const found = yield* locateBoard(smooth, boards, {
    focal35Mm,
    dice: seededDice(DICE_SEED),
    ...(near ? { near } : {}),
  });
  if (!found.ok) return { located: null, trouble: found.code, findings: [] };
  const { board, seenShare } = found.value;
  const isApproved = approved.includes(board.id);
  return {
    located: found.value,
    trouble: 'no-board',
    findings: [boardFinding(isApproved ? 'clear' : 'fault', Math.min(0.98, 0.5 + seenShare / 2), board.name)],
  };
}

function boardFinding(verdict: 'clear' | 'fault', confidence: number, name: string): Finding {
  return {
    check: 'wrong-board',
    verdict,
    confidence,
    why:
      verdict === 'clear'
        ? `The lines are those of the ${name}.`
        : `The lines are those of another kind of board, the ${name}.`,
    place: null,
  };
}

function describeBoard(located: LocatedBoard, scale: Scale): BoardFound {
  const { pose, board } = located;
  const [a, b, c, d] = cornersPx(pose, board);
  const corners: Quad = [scale(a), scale(b), scale(c), scale(d)];
  const factor = scale([1, 0])[0] - scale([0, 0])[0];
  return {
    boardId: board.id,
    corners,
    lens: { focalPx: pose.focalPx * factor, k1: pose.k1 },
    tiltDeg: lensTiltDeg(pose),
    seenShare: located.seenShare,
  };
}

function lengthOf(
  located: LocatedBoard,
  { tip }: LocatedFish,
): Pick<PhotoAnalysis, 'apparentMm' | 'lengthMm' | 'sigmaMm' | 'budget'> {
  const { pose } = located;
  const [cameraX, , cameraZ] = cameraPlaceMm(pose);
  const px = projectBoardPoint(pose, tip.xMm, tip.yMm);
  const next = projectBoardPoint(pose, tip.xMm + 1, tip.yMm);
  const mmPerPx = 1 / Math.hypot(next[0] - px[0], next[1] - px[1]);
  const fit = fitSigmaMm(located, px);
  const doubt = (tip.inNumeral ? 1.6 : 1) * (tip.likeShadow ? 2 : 1) * (tip.contrast < 3 ? 1.4 : 1);
  // Anywhere within what is blind: a rectangular distribution (GUM, 4.3.7).
  const blindMm = tip.blindMm / Math.sqrt(12);
  const edgeMm =
    doubt * Math.hypot(EDGE_SIGMA_MM, EDGE_SIGMA_PX * mmPerPx, 0.5 * Math.min(2, tip.scatterMm), blindMm);
  const heightMm = (TAIL_HEIGHT_SIGMA_MM * Math.abs(tip.xMm - cameraX)) / cameraZ;
  const budget: ErrorShare[] = [
    { cause: 'board-fit', sigmaMm: fit.boardMm },
    { cause: 'tip-edge', sigmaMm: edgeMm },
    { cause: 'tail-height', sigmaMm: heightMm },
    { cause: 'distortion', sigmaMm: fit.distortionMm },
  ];
  return {
    apparentMm: tip.xMm,
    lengthMm: trueLengthMm(tip.xMm + FIN_FADE_MM, cameraX, cameraZ),
    sigmaMm: Math.hypot(...budget.map((share) => share.sigmaMm)),
    budget,
  };
}

/** Where the closed mouth is seen: at the stop, at the height at which a fish of this size carries it, or where the fish begins. */
function nosePlace(pose: LensPose, outline: FishOutline): Point {
  const first = outline.xMm[0] as number;
  const last = outline.xMm.at(-1) as number;
  const axisMm = axisAtStop(outline);
  if (first > NOSE_GAP_SEEN_MM) return projectBoardPoint(pose, first, axisMm);
  return projectBoardPoint(pose, 0, axisMm, NOSE_HEIGHT_SHARE * (last - first));
}

/** A fish that begins farther from the stop than this does not touch it. */
const NOSE_GAP_SEEN_MM = 14;

interface Frame {
  widthPx: number;
  heightPx: number;
}

/** How far a place lies inside of the frame, px; under 0 it is outside. */
function insidePx([x, y]: Point, { widthPx, heightPx }: Frame): number {
  return Math.min(x, y, widthPx - 1 - x, heightPx - 1 - y);
}

function headCropped(pose: LensPose, pattern: Pattern, nose: Point, frame: Frame, scale: Scale): Finding {
  const stop = [projectBoardPoint(pose, 0, 0), projectBoardPoint(pose, 0, pattern.widthMm)];
  const worst = Math.min(insidePx(nose, frame), Math.max(...stop.map((corner) => insidePx(corner, frame))));
  const verdict = worst < 1 ? 'fault' : worst < 0.006 * frame.widthPx ? 'look' : 'clear';
  return {
    check: 'head-cropped',
    verdict,
    confidence: verdict === 'look' ? 0.6 : 0.97,
    why:
      verdict === 'clear'
        ? 'Nose and stop are in the picture.'
        : 'The nose or the stop lies at or beyond the picture’s edge.',
    place: verdict === 'clear' ? null : scale(nose),
  };
}

function tailCropped(
  pose: LensPose,
  { tip, view, labels, piece }: LocatedFish,
  frame: Frame,
  scale: Scale,
): Finding {
  const at = projectBoardPoint(pose, tip.xMm + 2, tip.yMm);
  let cut = insidePx(at, frame) < 1;
  // The fish goes on where the photograph ends.
  for (let row = piece.fromRow; row <= piece.toRow && !cut; row++) {
    for (let column = Math.max(piece.fromColumn, piece.toColumn - 6); column <= piece.toColumn; column++) {
      if (
        labels[row * view.columns + column] === piece.label &&
        !view.inPhoto[row * view.columns + column + 2]
      )
        cut = true;
    }
  }
  return {
    check: 'tail-cropped',
    verdict: cut ? 'fault' : 'clear',
    confidence: 0.96,
    why: cut ? 'The tail reaches the picture’s edge.' : 'The tail’s end is in the picture.',
    place: cut ? scale(at) : null,
  };
}

function steepCamera(tiltDeg: number, limitDeg: number): Finding {
  const verdict = tiltDeg > limitDeg + 0.5 ? 'fault' : tiltDeg > limitDeg - 1 ? 'look' : 'clear';
  return {
    check: 'steep-camera',
    verdict,
    confidence: verdict === 'look' ? 0.6 : 0.97,
    why: `The camera looks ${tiltDeg.toFixed(1)}° off straight down; ${limitDeg}° are allowed.`,
    place: null,
  };
}

function facing(found: BoardFound, outline: FishOutline | null): Finding {
  const [zeroFar, endFar] = found.corners;
  if (endFar[0] < zeroFar[0]) {
    return {
      check: 'facing-right',
      verdict: 'fault',
      confidence: 0.97,
      why: 'The stop is at the right: the board lies the wrong way round in the picture.',
      place: zeroFar,
    };
  }
  if (!outline || outline.xMm.length < 12)
    return {
      check: 'facing-right',
      verdict: 'clear',
      confidence: 0.6,
      why: 'The stop is at the left.',
      place: null,
    };
  const far = flareAt(outline, 'far');
  const stop = flareAt(outline, 'stop');
  // A hand over the fish makes an outline of its own: then it is for a person to look.
  const reversed = outline.handMm.length === 0 && stop > 1.5 && far < 1.05;
  const doubtful = !reversed && stop > 1.35 * far;
  return {
    check: 'facing-right',
    verdict: reversed ? 'fault' : doubtful ? 'look' : 'clear',
    confidence: reversed ? 0.85 : doubtful ? 0.5 : 0.9,
    why: reversed || doubtful ? 'The end at the stop widens like a tail.' : 'The head is at the left.',
    place: reversed || doubtful ? zeroFar : null,
  };
}

const NEAR_TAIL_MM = 45;

/** Whether the lines next to the tail and at the stop can be read where nothing lies on them. */
function unsharp(fish: LocatedFish, pattern: Pattern): Finding {
  const { evidence, tip } = fish;
  let seen = 0;
  let looked = 0;
  pattern.lines.forEach((line, index) => {
    const nearTail = line.xMm > tip.xMm + 2 && line.xMm < tip.xMm + NEAR_TAIL_MM;
    if (!nearTail) return;
    for (let row = 0; row < evidence.rows; row++) {
      const value = evidence.seen[index * evidence.rows + row] as number;
      if (value < 0 || fish.isCovered(line.xMm, (row + 0.5) * evidence.rowMm)) continue;
      looked++;
      if (value > 0.4) seen++;
    }
  });
  // At the board's very end there is nothing left to look at.
  const share = looked < 12 ? 1 : seen / looked;
  const clarity = evidence.clearShare;
  const verdict = share < 0.45 || clarity < 0.12 ? 'fault' : share < 0.7 || clarity < 0.2 ? 'look' : 'clear';
  return {
    check: 'unsharp',
    verdict,
    confidence: verdict === 'look' ? 0.55 : 0.85,
    why:
      verdict === 'clear'
        ? 'The lines at the tail can be read.'
        : `Of the free lines at the tail ${Math.round(share * 100)} % can be read.`,
    place: null,
  };
}
