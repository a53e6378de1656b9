import { seededDice } from '@lauta/core/dice';
import type { MeasuringBoard } from '../board/board.ts';
import { cornersPx, locateBoard, type BoardWay } from '../find-board/locate.ts';
import { patternOf, type Pattern } from '../find-board/pattern.ts';
import { smoothTones, tonesOf, type Tones } from '../find-board/tones.ts';
import { trackBoard } from '../find-board/track.ts';
import { fishSight } from '../checks/fishSight.ts';
import { visibleFindings } from '../checks/identifier.ts';
import { runChecks } from '../checks/registry.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import type { Finding } from '../findings/findings.ts';
import { locateFish, type SeenFish } from '../find-fish/locateFish.ts';
import { axisAtStop, outlineOf } from '../find-fish/outline.ts';
import { bareBoard } from '../find-card/bareBoard.ts';
import { viewSurroundings } from '../find-card/cardView.ts';
import { findCodes } from '../find-card/findCodes.ts';
import { isLikelyCode } from '../find-card/searchIdentifier.ts';
import { findSheets } from '../find-card/findSheets.ts';
import { inWhiteLight } from '../find-card/whiteLight.ts';
import { lensTiltDeg, projectBoardPoint, type LensPose } from '../camera/lens.ts';
import type { Quad } from '../geometry/point.ts';
import { colourLookup } from '../image/colourAt.ts';
import type { Raster } from '../image/raster.ts';
import { columnStart } from '../grid/planeGrid.ts';

/** What is carried from one live frame to the next; nothing in it is worth keeping longer. */
export interface LiveTrack {
  board: MeasuringBoard;
  pose: LensPose;
  smooth: Tones;
  card: LiveCard;
}

/** A card that lies where it lay need not be looked for in every frame. */
interface LiveCard {
  isSeen: boolean;
  framesAgo: number;
}

/** What one live frame shows. Places are px of the frame. */
export interface LiveSight {
  boardId: string;
  corners: Quad;
  tiltDeg: number;
  /** Where the fish ends, mm from the stop; null without a fish. */
  fishMm: number | null;
  isCardSeen: boolean;
  /** Of the checks that a frame of this size can answer. */
  findings: readonly Finding[];
}

export interface LiveOptions {
  focal35Mm: number | null;
  otherBoards: readonly MeasuringBoard[];
  /** The highest tilt that the rules allow, degrees. */
  limitTiltDeg: number;
  /** The one way in which a board is looked for in a high frame; both by default. */
  way?: BoardWay;
}

/** A fish is looked for in coarser cells than in a photograph: time is short, fins may be missed. */
const LIVE_LOOK = { cellsPerMm: 1, withTip: false };
/** A card is looked for anew after so many frames. */
const CARD_FRAMES = 8;
const DICE_SEED = 20261126;

/**
 * Looks at one frame of a live view (at most about 960 px across). Sight is null where no board is found; a board
 * that was found in the frame before is only followed.
 */
export function lookLive(
  frame: Raster,
  claimed: MeasuringBoard,
  former: LiveTrack | null,
  options: LiveOptions,
): { sight: LiveSight | null; track: LiveTrack | null } {
  const smooth = smoothTones(tonesOf(frame));
  const located = followed(smooth, former) ?? searched({ smooth, frame }, claimed, options);
  if (!located) return { sight: null, track: null };
  const { board, pose } = located;
  const pattern = patternOf(board);
  const toPhoto: SeenCatch['toPhoto'] = (xMm, yMm, zMm) => projectBoardPoint(pose, xMm, yMm, zMm);
  const corners = cornersPx(pose, board);
  const tiltDeg = lensTiltDeg(pose);
  const face = locateFish(frame, smooth, pose, pattern, LIVE_LOOK);
  const fish = face.piece ? (face as SeenFish) : null;
  const outline = fish && outlineOf(fish.view, fish.labels, fish.piece, pattern.widthMm);
  const card = cardSeen(frame, pose, pattern, face.evidence, former?.card ?? null);
  const track = { board, pose, smooth, card };
  const size = { widthPx: frame.widthPx, heightPx: frame.heightPx };
  const seen: SeenCatch | null =
    fish && outline
      ? {
          photo: frame,
          smooth,
          pose,
          pattern,
          fish,
          outline,
          farMm: columnStart(fish.view, fish.piece.toColumn + 1),
          toPhoto,
        }
      : null;
  const findings = runChecks(
    {
      board: {
        board,
        isApproved: true,
        seenShare: 1,
        pose,
        pattern,
        corners,
        tiltDeg,
        limitTiltDeg: options.limitTiltDeg,
        frame: size,
        toPhoto,
        outline,
        nosePx: outline && projectBoardPoint(pose, 0, axisAtStop(outline)),
        isEyeSeen: false,
      },
      ...(seen ? { fish: fishSight(seen, size, [], true) } : {}),
    },
    true,
  );
  return {
    sight: {
      boardId: board.id,
      corners,
      tiltDeg,
      fishMm: seen?.farMm ?? null,
      isCardSeen: card.isSeen,
      findings,
    },
    track,
  };
}

function followed(smooth: Tones, former: LiveTrack | null): Pick<LiveTrack, 'board' | 'pose'> | null {
  if (!former || former.smooth.widthPx !== smooth.widthPx || former.smooth.heightPx !== smooth.heightPx)
    return null;
  const { board, pose } = former;
  // The lens does not change from frame to frame.
  const prior = { focalPx: pose.focalPx, focalLogSigma: 0.01, k1: pose.k1, k1Sigma: 0.005 };
  const fitted = trackBoard(former.smooth, smooth, pose, patternOf(board), prior);
  return fitted && { board, pose: fitted.pose };
}

function searched(
  { smooth, frame }: { smooth: Tones; frame: Raster },
  claimed: MeasuringBoard,
  { focal35Mm, otherBoards, way }: LiveOptions,
): Pick<LiveTrack, 'board' | 'pose'> | null {
  const boards = [claimed, ...otherBoards.filter(({ id }) => id !== claimed.id)];
  const search = locateBoard(smooth, boards, {
    focal35Mm,
    dice: seededDice(DICE_SEED),
    colourAt: colourLookup(frame),
    ...(way ? { way } : {}),
  });
  let step = search.next();
  while (!step.done) step = search.next();
  return step.value.ok ? { board: step.value.value.board, pose: step.value.value.pose } : null;
}

function cardSeen(
  frame: Raster,
  pose: LensPose,
  pattern: Pattern,
  evidence: Parameters<typeof bareBoard>[0],
  former: LiveCard | null,
): LiveCard {
  if (former && former.framesAgo + 1 < CARD_FRAMES) return { ...former, framesAgo: former.framesAgo + 1 };
  const isBare = bareBoard(evidence, pattern);
  const view = inWhiteLight(viewSurroundings(frame, pose, pattern), pattern, isBare);
  const unread = findCodes(frame, pose, view, isBare);
  const isCode = unread.some((one) => isLikelyCode(one) && !one.isCut);
  const [missing, cropped] = isCode
    ? []
    : visibleFindings({ codes: [], unread, sheets: findSheets(view, isBare) }, (x, y) =>
        projectBoardPoint(pose, x, y),
      );
  const isSeen = isCode || (missing?.tone !== 'fault' && cropped?.tone !== 'fault');
  return { isSeen, framesAgo: 0 };
}
