import type { HeadView } from '../see-catch/headView.ts';
import { columnsTo, rowsTo } from '../grid/planeGrid.ts';

/** A mouth opens within this share of the length. */
export const JAW_SHARE = 0.17;
/** Beside the axis a mouth lies within this share of the length. */
const ASIDE_SHARE = 0.075;
/** Farther than this share of the length towards the back there is no mouth: there the eye is. */
const BACKWARDS_SHARE = 0.02;

/** An opening that is seen between the jaws. */
export interface MouthSeen {
  /** How far the jaws seem to be apart next to the nose, mm. */
  gapMm: number;
  /** How far back the opening reaches, mm. */
  deepMm: number;
  /** Where it is, board coordinates at the nose's height, mm. */
  placeMm: readonly [number, number];
}

/** Where in the head's view a mouth may lie: rows from `top` on and columns from 0 on, both ends not included. */
export interface MouthZone {
  top: number;
  bottom: number;
  right: number;
}

/** @param backSide the side on which the back lies */
export function mouthZone(
  { view, axisMm }: HeadView,
  lengthMm: number,
  backSide: 'far' | 'near' = 'far',
): MouthZone {
  const rowAt = (asideShare: number): number => Math.round(rowsTo(view, axisMm + asideShare * lengthMm));
  const [upShare, downShare] = backSide === 'far' ? [BACKWARDS_SHARE, ASIDE_SHARE] : [ASIDE_SHARE, BACKWARDS_SHARE]; // prettier-ignore
  return {
    top: Math.max(0, rowAt(-upShare)),
    bottom: Math.min(view.rows, rowAt(downShare)),
    right: Math.min(view.columns, Math.round(columnsTo(view, JAW_SHARE * lengthMm))),
  };
}
