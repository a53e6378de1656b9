import { findingOf, type Finding } from '../findings/findings.ts';
import { medianOf } from '../image/median.ts';
import { NOSE_HEIGHT_SHARE, type HeadView } from '../see-catch/headView.ts';
import { logColourAt } from '../see-catch/logColour.ts';
import type { NoseSeen } from '../see-catch/nose.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import type { Check } from './check.ts';
import { columnMiddle } from '../grid/planeGrid.ts';

export const contactHidden: Check<'fish'> = {
  ids: ['contact-hidden'],
  live: null,
  judge: ({ seen, head, nose }) => [contactFinding(seen, seeFront(head, seen.farMm), nose, head.axisMm)],
};

/** Parts of the head, mm from the stop and shares of the length: what may be hidden, and what it is compared with. */
const FRONT_MM = [-6, 12] as const;
const CHEEK = [0.07, 0.16] as const;

/** How the head's front differs from its cheek. */
export interface FrontSeen {
  /** Difference of the chroma, in logs. */
  chroma: number;
  /** Height of the front over the cheek's. */
  height: number;
}

export function seeFront({ view, fish }: HeadView, lengthMm: number): FrontSeen | null {
  const colours: Record<'front' | 'cheek', [number[], number[]]> = { front: [[], []], cheek: [[], []] };
  const heights: Record<'front' | 'cheek', number[]> = { front: [], cheek: [] };
  for (let column = 0; column < view.columns; column++) {
    const xMm = columnMiddle(view, column);
    const part =
      xMm > FRONT_MM[0] && xMm < FRONT_MM[1]
        ? 'front'
        : xMm > CHEEK[0] * lengthMm && xMm < CHEEK[1] * lengthMm
          ? 'cheek'
          : null;
    if (!part) continue;
    let count = 0;
    for (let row = 0; row < view.rows; row++) {
      const i = row * view.columns + column;
      if (!fish[i]) continue;
      count++;
      const [, warm, cool] = logColourAt(view.rgb, i);
      colours[part][0].push(warm);
      colours[part][1].push(cool);
    }
    heights[part].push(count / view.cellsPerMm);
  }
  if (colours.front[0].length < 30 || colours.cheek[0].length < 60) return null;
  const dw = medianOf(colours.front[0]) - medianOf(colours.cheek[0]);
  const dc = medianOf(colours.front[1]) - medianOf(colours.cheek[1]);
  return {
    chroma: Math.hypot(dw, dc),
    height: Math.max(...heights.front) / Math.max(1, medianOf(heights.cheek)),
  };
}

/** A front that differs in colour by more than this (in logs); by so much more that shade does not explain it. */
const OTHER_COLOUR = 0.55;
const SURELY_OTHER = 0.7;
/** Where the front is as high as a head, shade at its edges counts for little: so much is enough for a look. */
const PERHAPS_OTHER = 0.42;
/** As high as these shares of the cheek: a higher one is more than head, ground or shadow that was taken for it. */
const TALL = [0.5, 1.3] as const;

/** The plate is hidden so many sigmas of a nose's height beyond where a nose of this fish could be seen on it. */
const TOO_HIGH_SIGMAS = 2.6;

/**
 * Two signs of a lure, cord or grip over the nose: the head's front has another colour than its cheek, and the plate is
 * hidden higher than a nose reaches. Both make a fault, one makes a look.
 */
export function contactFinding(
  seen: SeenCatch,
  front: FrontSeen | null,
  nose: NoseSeen | null,
  axisMm: number,
): Finding {
  const check = 'contact-hidden';
  const isTooHigh = nose !== null && nose.gapMm < -TOO_HIGH_SIGMAS * nose.sigmaMm;
  const place = seen.toPhoto(4, axisMm, NOSE_HEIGHT_SHARE * seen.farMm);
  const isOther = front !== null && front.chroma > OTHER_COLOUR;
  const isLikeHead = front !== null && front.height > TALL[0] && front.height < TALL[1];
  if (isOther && (isTooHigh || (front.chroma > SURELY_OTHER && isLikeHead)))
    return findingOf(check, 'fault', isTooHigh ? 0.75 : 0.65, { code: 'other-colour-over-nose' }, place);
  if (isTooHigh)
    return findingOf(check, 'look', 0.5, { code: 'stop-hidden-high' }, place); // prettier-ignore
  if (isOther || (isLikeHead && front.chroma > PERHAPS_OTHER))
    return findingOf(check, 'look', 0.45, { code: 'nose-may-be-hidden' }, place);
  return front
    ? findingOf(check, 'clear', 0.75, { code: 'nose-seen' })
    : findingOf(check, 'clear', 0.4, { code: 'head-hidden' });
}
