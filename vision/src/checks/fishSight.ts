import type { Quad } from '../geometry/point.ts';
import { seeEye } from '../see-catch/eye.ts';
import { viewHead } from '../see-catch/headView.ts';
import { seeNose } from '../see-catch/nose.ts';
import { seeReaching } from '../see-catch/reaching.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import type { FishSight } from './check.ts';
import type { Frame } from './frame.ts';

/** A frame of a live view shows the head in coarser cells, and eyes are too small in it to be looked for. */
const LIVE_HEAD_CELLS_PER_MM = 1.5;

/**
 * What several checks of a fish look at, seen once.
 * @param cardsMm cards that were read, mm of the board
 */
export function fishSight(
  seen: SeenCatch,
  frame: Frame,
  cardsMm: readonly Quad[],
  isLive = false,
): FishSight {
  const head = isLive ? viewHead(seen, LIVE_HEAD_CELLS_PER_MM) : viewHead(seen);
  return {
    seen,
    frame,
    head,
    nose: seeNose(seen, head),
    eye: isLive ? null : seeEye(head, seen.farMm),
    things: seeReaching(seen),
    cardsMm,
  };
}
