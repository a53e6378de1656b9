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

/** Px of the picture's edge. */
export interface Frame {
  widthPx: number;
  heightPx: number;
}
