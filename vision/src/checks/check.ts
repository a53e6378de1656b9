import type { Identifier } from '@lauta/core/identifier';
import type { MeasuringBoard } from '../board/board.ts';
import type { LensPose } from '../camera/lens.ts';
import type { Pattern } from '../find-board/pattern.ts';
import type { Tones } from '../find-board/tones.ts';
import type { IdentifierSeen } from '../find-card/searchIdentifier.ts';
import type { FishOutline } from '../find-fish/outline.ts';
import type { BenchCheck, Finding } from '../findings/findings.ts';
import type { Point, Quad } from '../geometry/point.ts';
import type { Raster } from '../image/raster.ts';
import type { EyeSeen } from '../see-catch/eye.ts';
import type { HeadView } from '../see-catch/headView.ts';
import type { NoseSeen } from '../see-catch/nose.ts';
import type { ReachingThing } from '../see-catch/reaching.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import type { Frame } from './frame.ts';

/** The px of the whole upright picture where a place on the board is seen, mm. */
type ToPhoto = SeenCatch['toPhoto'];

/** A picture, whatever is on it. */
export interface PictureSight {
  photo: Raster;
  /** Whether a place of the photo (px) has lines of its own, as the board's: no screen's grid is looked for there. */
  hasOwnLines: (xPx: number, yPx: number) => boolean;
  /** Brightness, turned so that the edges that every picture has run across its rows. */
  edges: Tones;
}

/** A board that was found. */
export interface BoardSight {
  board: MeasuringBoard;
  /** By the rules. */
  isApproved: boolean;
  /** Share of its line pieces that were seen. */
  seenShare: number;
  pose: LensPose;
  pattern: Pattern;
  corners: Quad;
  tiltDeg: number;
  limitTiltDeg: number;
  /** Of the picture in which it was found. */
  frame: Frame;
  toPhoto: ToPhoto;
  /** Of the fish on it; null where none was found. */
  outline: FishOutline | null;
  /** Px of the picture in which it was found. */
  nosePx: Point | null;
  /** At the stop, where the head should be. */
  isEyeSeen: boolean;
}

/** Where the reading is made: the tail's far end and its rows, mm. */
export interface ReadingZone {
  tipMm: number;
  fromYMm: number;
  toYMm: number;
}

/** What was found of identifier cards on and about a board. */
export interface CardSight {
  cards: IdentifierSeen;
  /** What the card should say; null where nobody knows. */
  expected: Identifier | null;
  zone: ReadingZone | null;
  toPhoto: ToPhoto;
}

/** A fish on a board. */
export interface FishSight {
  seen: SeenCatch;
  /** Of the picture in which it was found. */
  frame: Frame;
  head: HeadView;
  nose: NoseSeen | null;
  eye: EyeSeen | null;
  /** What reaches in over the board's edges. */
  things: readonly ReachingThing[];
  /** Cards that were read, mm of the board. */
  cardsMm: readonly Quad[];
}

/** What can be seen of a photograph, each part where it was found. */
export interface Sights {
  picture: PictureSight;
  board: BoardSight;
  cards: CardSight;
  fish: FishSight;
}

/** The steps of a live view that wait for checks. */
export type CheckedLiveStep = 'straight' | 'nose' | 'jaws' | 'tail';

/**
 * One check of a photograph: which infractions it answers and how it judges.
 * @typeParam Part what must have been found for it
 */
export interface Check<Part extends keyof Sights> {
  /** Of each it gives one finding. */
  ids: readonly BenchCheck[];
  /** The step of a live view that waits for it; null where a frame of that size cannot answer it. */
  live: CheckedLiveStep | null;
  judge: (sight: Sights[Part]) => readonly Finding[];
}
