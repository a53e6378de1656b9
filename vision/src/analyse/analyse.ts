import { seededDice } from '@lauta/core/dice';
import type { MeasuringBoard } from '../board/board.ts';
import { patternOf, type Pattern } from '../find-board/pattern.ts';
import { fitSigmaMm } from '../find-board/refine.ts';
import { cornersPx, locateBoard, type BoardTrouble, type LocatedBoard } from '../find-board/locate.ts';
import { isStanding, quarterTurned } from '../find-board/quarterTurn.ts';
import { shrinkFactor, shrinkRaster, smoothTones, tonesOf, type Tones } from '../find-board/tones.ts';
import { keepFlank, type KeptFlank } from '../same-fish/keptFlank.ts';
import { straightenFlank } from '../same-fish/straighten.ts';
import type { Finding } from '../findings/findings.ts';
import { locateFish, type FishTrouble, type LocatedFish, type SeenFish } from '../find-fish/locateFish.ts';
import { axisAtStop, outlineOf, type FishOutline } from '../find-fish/outline.ts';
import type { CodeReader, CodeSeen } from '../find-card/codeSeen.ts';
import { isLikelyCode, searchIdentifier, type IdentifierSeen } from '../find-card/searchIdentifier.ts';
import type { Identifier } from '@lauta/core/identifier';
import type { ReadingZone } from '../checks/check.ts';
import { fishSight } from '../checks/fishSight.ts';
import { runChecks, withUnanswered } from '../checks/registry.ts';
import { NOSE_HEIGHT_SHARE } from '../see-catch/headView.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import {
  boardPointOf,
  cameraPlaceMm,
  lensTiltDeg,
  projectBoardPoint,
  scaledPose,
  type LensPose,
} from '../camera/lens.ts';
import { scalePx, type Point, type Quad } from '../geometry/point.ts';
import type { BoardLens } from '../board/boardMap.ts';
import type { BoardMarks, ErrorShare } from './reading.ts';
import { TAIL_HEIGHT_SIGMA_MM, trueLengthMm } from '../find-fish/tailHeight.ts';
import { colourLookup } from '../image/colourAt.ts';
import type { Raster } from '../image/raster.ts';
import { columnAt, columnStart, rowStart } from '../grid/planeGrid.ts';

/** Why there is no length, in the order in which it is asked. */
export type AnalysisTrouble =
  | BoardTrouble
  | FishTrouble
  | 'too-small'
  | 'too-long'
  | 'head-cropped'
  | 'tail-cropped'
  | 'tail-held'
  | 'identifier-over-reading';

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
  /** How far the nose seems to lie from the stop, and the jaws from each other, mm; null when not seen. */
  noseGapMm: number | null;
  mouthGapMm: number | null;
  identifier: IdentifierRead | null;
  /** The flank's pattern for comparison with other fish; only where it was asked for and is free enough. */
  flank: KeptFlank | null;
  findings: readonly Finding[];
  trouble: AnalysisTrouble | null;
}

/** What was read of identifier cards. */
export interface IdentifierRead {
  /** Whether a card's code is seen whole and readable. */
  visible: boolean;
  /** The text of its code. */
  payload: string | null;
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
  /** What the entrant's card of the day says; null when nobody knows. */
  expected?: Identifier | null;
  /** Whether the flank is described as well. */
  withFlank?: boolean;
  /** Four corners set roughly by a person: the board is looked for there. */
  near?: Quad;
  /** Asked between steps: once it says so the search ends without a board. */
  isOver?: () => boolean;
}

export type AnalysisStage = 'prepare' | 'board' | 'fish' | 'identifier' | 'checks' | 'done';

/** A stage that begins; with a picture when whoever runs the analysis is asked to read the codes in it. */
export interface AnalysisStep {
  stage: AnalysisStage;
  codePicture?: Raster;
}
export type AnalysisRun = Generator<AnalysisStep, PhotoAnalysis, readonly CodeSeen[] | undefined>;

const LEAST_SIDE_PX = 300;
const USUAL_TILT_LIMIT_DEG = 20;
/**
 * A fin thins out towards its edge: the last of it cannot be told from the board. 0.2 to 1 mm on photographs with
 * known truth; no published source.
 */
const FIN_FADE_MM = 0.45;
/** Scatter of the tail's edge on sharp pictures, mm and px (measured; docs/measured.md). */
const EDGE_SIGMA_MM = 0.4;
const EDGE_SIGMA_PX = 0.36;
/**
 * Finds board and fish in an upright photograph and reads the length. Yields the stage that begins, so that whoever
 * runs it can tell, pause or stop; nothing in it depends on a clock.
 */
export function* analysisSteps(
  photo: Raster,
  claimed: MeasuringBoard,
  options: AnalysisOptions,
): AnalysisRun {
  yield { stage: 'prepare' };
  if (Math.min(photo.widthPx, photo.heightPx) < LEAST_SIDE_PX) return withoutLength('too-small', null, []);
  const factor = shrinkFactor(photo.widthPx, photo.heightPx);
  const small = shrinkRaster(photo, factor);
  const tones = tonesOf(small);
  const smooth = smoothTones(tones);
  yield { stage: 'board' };
  const near = options.near?.map((corner) => scalePx(corner, 1 / factor));
  const search = searchBoards({ smooth, small }, claimed, options, near as Quad | undefined);
  let step = search.next();
  while (!step.done) {
    yield { stage: 'board' };
    if (options.isOver?.()) return withoutLength('too-long', null, []);
    step = search.next();
  }
  const { located, trouble, isApproved } = step.value;
  if (!located) {
    const picture = { photo, hasOwnLines: () => false, edges: tones };
    return withoutLength(trouble, null, runChecks({ picture }));
  }
  const { pose } = located;
  const scale = scaleBy(factor);
  const toPhoto: SeenCatch['toPhoto'] = (xMm, yMm, zMm) => scale(projectBoardPoint(pose, xMm, yMm, zMm));
  const found = describeBoard(located, scale);
  yield { stage: 'fish' };
  const pattern = patternOf(located.board);
  const frame = { widthPx: small.widthPx, heightPx: small.heightPx };
  const face = locateFish(small, smooth, pose, pattern);
  const seen = face.piece ? seenCatch(small, smooth, pose, pattern, face as SeenFish, toPhoto) : null;
  yield { stage: 'identifier' };
  const cards = yield* readCards(
    searchIdentifier(small, pose, pattern, face.evidence, { photo, pose: scaledPose(pose, factor) }),
  );
  yield { stage: 'checks' };
  const fish = seen && fishSight(seen, frame, cards.codes.map(({ cardMm }) => cardMm)); // prettier-ignore
  const nosePx = seen && nosePlace(pose, seen.outline, seen.farMm);
  const findings = runChecks({
    picture: {
      photo,
      hasOwnLines: aboutBoard(pose, pattern, factor),
      // The board's lines are the edges that every picture has: steps are taken across them.
      edges: isStanding(found.corners) ? quarterTurned(tones) : tones,
    },
    board: {
      board: located.board,
      isApproved,
      seenShare: located.seenShare,
      pose,
      pattern,
      corners: found.corners,
      tiltDeg: found.tiltDeg,
      limitTiltDeg: options.limitTiltDeg ?? USUAL_TILT_LIMIT_DEG,
      frame,
      toPhoto,
      outline: seen?.outline ?? null,
      nosePx,
      isEyeSeen: fish !== null && fish.eye !== null,
    },
    cards: { cards, expected: options.expected ?? null, zone: seen && readingZone(seen), toPhoto },
    ...(fish ? { fish } : {}),
  });
  const identifier = describeCards(cards);
  if (!seen || !fish || !nosePx) return { ...withoutLength('no-fish', found, findings), identifier };
  const { tip } = seen.fish;
  const described = {
    found,
    outline: drawOutline(seen.outline, toPhoto),
    noseGapMm: fish.nose && Math.max(0, fish.nose.gapMm),
    mouthGapMm: findings.find(({ check }) => check === 'mouth-open')?.measure?.value ?? null,
    identifier,
  };
  const hidden = LENGTH_FAULTS.find((check) =>
    findings.some((one) => one.check === check && one.tone === 'fault'),
  );
  if (hidden || !tip) return { ...withoutLength(hidden ?? 'no-tail', found, findings), ...described };
  return {
    ...described,
    marks: { corners: found.corners, nose: scale(nosePx), tail: toPhoto(tip.xMm, tip.yMm) },
    ...lengthOf(located, tip),
    flank: options.withFlank ? keepFlank(straightenFlank(seen, fish.things)) : null,
    findings,
    trouble: null,
  };
}

/** A fish on the board as the checks look at it: its outline, and where it ends. */
function seenCatch(
  photo: Raster,
  smooth: Tones,
  pose: LensPose,
  pattern: Pattern,
  fish: SeenFish,
  toPhoto: SeenCatch['toPhoto'],
): SeenCatch {
  const { view, labels, piece, tip } = fish;
  const outline = outlineOf(view, labels, piece, pattern.widthMm);
  const farMm = tip?.xMm ?? columnStart(view, piece.toColumn + 1);
  return { photo, smooth, pose, pattern, fish, outline, farMm, toPhoto };
}

/** With one of these there is no length: a wrong one would be worse. */
const LENGTH_FAULTS = ['head-cropped', 'tail-cropped', 'tail-held', 'identifier-over-reading'] as const;

/** Runs an analysis to its end without reading any codes. */
export function analysePhoto(photo: Raster, board: MeasuringBoard, options: AnalysisOptions): PhotoAnalysis {
  const steps = analysisSteps(photo, board, options);
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

/**
 * Runs an analysis to its end.
 * @param readCodes decodes the pictures that the search for cards asks about
 * @param onStage told each stage before it begins; what it awaits pauses the analysis, what it throws ends it
 */
export async function runAnalysis(
  steps: AnalysisRun,
  readCodes: CodeReader,
  onStage: (stage: AnalysisStage) => Promise<void> | void = () => undefined,
): Promise<PhotoAnalysis> {
  let step = steps.next();
  while (!step.done) {
    const { stage, codePicture } = step.value;
    if (!codePicture) await onStage(stage);
    step = steps.next(codePicture ? await readCodes(codePicture) : undefined);
  }
  return step.value;
}

function* readCards(
  search: Generator<Raster, IdentifierSeen, readonly CodeSeen[]>,
): Generator<AnalysisStep, IdentifierSeen, readonly CodeSeen[] | undefined> {
  let step = search.next();
  while (!step.done) step = search.next((yield { stage: 'identifier', codePicture: step.value }) ?? []);
  return step.value;
}

function describeCards({ codes, unread, sheets }: IdentifierSeen): IdentifierRead {
  const best = codes.find(({ identifier }) => identifier !== null) ?? codes[0];
  return {
    visible: best !== undefined || (unread.some(isLikelyCode) && sheets.every(({ isCut }) => !isCut)),
    payload: best?.text ?? null,
  };
}

/** Rows and place of the reading, mm. */
function readingZone({ fish: { view, piece, labels }, farMm }: SeenCatch): ReadingZone {
  const from = Math.max(0, columnAt(view, farMm - 30));
  let [top, bottom] = [Infinity, -Infinity];
  for (let row = piece.fromRow; row <= piece.toRow; row++) {
    for (let column = from; column <= piece.toColumn; column++) {
      if (labels[row * view.columns + column] !== piece.label) continue;
      [top, bottom] = [Math.min(top, row), Math.max(bottom, row)];
    }
  }
  return {
    tipMm: farMm,
    fromYMm: rowStart(view, top),
    toYMm: rowStart(view, bottom + 1),
  };
}

/** The board has lines of its own: a screen's grid is looked for beside it. */
function aboutBoard(
  pose: LensPose,
  { lengthMm, widthMm }: Pattern,
  factor: number,
): (x: number, y: number) => boolean {
  return (x, y) => {
    const [xMm, yMm] = boardPointOf(pose, x / factor, y / factor);
    return (
      xMm > -ABOUT_BOARD_MM &&
      xMm < lengthMm + ABOUT_BOARD_MM &&
      yMm > -ABOUT_BOARD_MM &&
      yMm < widthMm + ABOUT_BOARD_MM
    );
  };
}

const ABOUT_BOARD_MM = 50;

function drawOutline(outline: FishOutline, toPhoto: SeenCatch['toPhoto']): PhotoAnalysis['outline'] {
  return {
    upper: outline.xMm.map((x, i) => toPhoto(x, outline.upperMm[i])),
    lower: outline.xMm.map((x, i) => toPhoto(x, outline.lowerMm[i])),
  };
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
    noseGapMm: null,
    mouthGapMm: null,
    identifier: null,
    flank: null,
    findings: withUnanswered(findings, { code: found ? 'no-fish-found' : 'no-board-found' }),
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
  isApproved: boolean;
}

const DICE_SEED = 20260614;

function* searchBoards(
  { smooth, small }: { smooth: Tones; small: Raster },
  claimed: MeasuringBoard,
  { focal35Mm, otherBoards = [], approved = [claimed.id] }: AnalysisOptions,
  near: Quad | undefined,
): Generator<undefined, BoardSearch> {
  const boards = [claimed, ...otherBoards.filter((board) => board.id !== claimed.id)];
  const found = yield* locateBoard(smooth, boards, {
    focal35Mm,
    dice: seededDice(DICE_SEED),
    colourAt: colourLookup(small),
    ...(near ? { near } : {}),
  });
  if (!found.ok) return { located: null, trouble: found.code, isApproved: false };
  return { located: found.value, trouble: 'no-board', isApproved: approved.includes(found.value.board.id) };
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
  tip: LocatedFish['tip'],
): Pick<PhotoAnalysis, 'apparentMm' | 'lengthMm' | 'sigmaMm' | 'budget'> {
  const { pose } = located;
  const [cameraX, , cameraZ] = cameraPlaceMm(pose);
  const px = projectBoardPoint(pose, tip.xMm, tip.yMm);
  const next = projectBoardPoint(pose, tip.xMm + 1, tip.yMm);
  const mmPerPx = 1 / Math.hypot(next[0] - px[0], next[1] - px[1]);
  const fit = fitSigmaMm(located, px);
  const doubt = (tip.inNumeral ? 1.6 : 1) * (tip.likeShadow ? 2 : 1);
  // Anywhere within what is blind: a rectangular distribution (GUM, 4.3.7).
  const blindMm = tip.blindMm / Math.sqrt(12);
  const seenMm =
    doubt * Math.hypot(EDGE_SIGMA_MM, EDGE_SIGMA_PX * mmPerPx, 0.5 * Math.min(2, tip.scatterMm), blindMm);
  const edgeMm = Math.hypot(seenMm, missedMm(tip));
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

/**
 * Below this the tail stands out from the board so little that two in three ends are not its end (22 of 33 on the tuning
 * seeds of the simulator's families; from it on 5 of 198): tails that are dark, clear or of the board's own colour.
 */
const LEAST_CONTRAST = 3;
const FAINT_TAIL_SIGMA_MM = 8;
/** What goes on farther beyond the tip than a tail's shadow reaches may be the tail, mm. */
const SHADOW_REACH_MM = 6;
const GOES_ON_SIGMA_MM = 2.5;

/** How far a tail's true end may lie from what is seen of it, as a standard uncertainty, mm. */
function missedMm({ contrast, goesOnMm }: LocatedFish['tip']): number {
  if (contrast < LEAST_CONTRAST) return FAINT_TAIL_SIGMA_MM;
  return goesOnMm > SHADOW_REACH_MM ? GOES_ON_SIGMA_MM : 0;
}

/** Where the closed mouth is seen: at the stop, at the height at which a fish of this size carries it, or where the fish begins. */
function nosePlace(pose: LensPose, outline: FishOutline, farMm: number): Point {
  const first = outline.xMm[0];
  const axisMm = axisAtStop(outline);
  if (first > NOSE_GAP_SEEN_MM) return projectBoardPoint(pose, first, axisMm);
  return projectBoardPoint(pose, 0, axisMm, NOSE_HEIGHT_SHARE * (farMm - first));
}

/** A fish that begins farther from the stop than this does not touch it. */
const NOSE_GAP_SEEN_MM = 14;
