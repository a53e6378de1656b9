import type { Pattern } from '../find-board/pattern.ts';
import type { Tones } from '../find-board/tones.ts';
import type { SeenFish } from '../find-fish/locateFish.ts';
import type { FishOutline } from '../find-fish/outline.ts';
import type { LensPose } from '../camera/lens.ts';
import type { Point } from '../geometry/point.ts';
import type { Raster } from '../image/raster.ts';

/** A photograph in which a board and something long on it have been found: what the checks look at. */
export interface SeenCatch {
  photo: Raster;
  smooth: Tones;
  pose: LensPose;
  pattern: Pattern;
  fish: SeenFish;
  outline: FishOutline;
  /** Where the tail ends, or, when its edge is unknown, where what was found ends: mm from the stop. */
  farMm: number;
  /** The px of the whole upright picture where a place on the board is seen, mm. */
  toPhoto: (xMm: number, yMm: number, zMm?: number) => Point;
}

const BESIDE_HAND_MM = 12;

/** Whether a hand lies at a place along the fish, or so near that its shadow may. */
export function isBesideHand({ handMm }: FishOutline, xMm: number): boolean {
  return handMm.some(([from, to]) => xMm > from - BESIDE_HAND_MM && xMm < to + BESIDE_HAND_MM);
}

/** Where on the picture the fish's middle is seen, at a share of its length. */
export function middleOfFish({ farMm, toPhoto, outline }: SeenCatch, share: number): Point {
  const found = outline.xMm.findIndex((x) => x >= share * farMm);
  const at = found < 0 ? outline.xMm.length - 1 : found;
  return toPhoto(share * farMm, (outline.upperMm[at] + outline.lowerMm[at]) / 2);
}
