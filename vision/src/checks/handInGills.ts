import { findingOf, type Finding } from '../findings/findings.ts';
import { comesInAt, handsOf, type ReachingThing } from '../see-catch/reaching.ts';
import { middleOfFish, type SeenCatch } from '../see-catch/seenCatch.ts';
import type { Check } from './check.ts';

/** Whether fingers are under the gill cover is for people to see: a computer asks them to look. */
export const handInGills: Check<'fish'> = {
  ids: ['hand-in-gills'],
  live: null,
  judge: ({ seen, things }) => [handInGillsFinding(seen, things)],
};

const GILL_BOX = { alongFrom: 0.19, alongTo: 0.29, acrossFrom: 0.35, acrossTo: 0.75 };
/** Where a hand crosses the edge that is at the gill cover, shares of the length. */
const AT_GILLS = { beginsAt: [0.12, 0.27], endsBefore: 0.46 } as const;
/** A hand that hides less of the body's middle than this share of the length has the fish's colours, or hides nothing. */
const LEAST_OVER_SHARE = 0.06;

/** Whether colours do not tell how far a hand reaches over the fish: then the place where it comes in tells more. */
function hasFishColours({ overMm }: ReachingThing, lengthMm: number): boolean {
  return overMm === null || overMm[1] - overMm[0] < LEAST_OVER_SHARE * lengthMm;
}

export function handInGillsFinding(seen: SeenCatch, things: readonly ReachingThing[]): Finding {
  const check = 'hand-in-gills';
  const { farMm } = seen;
  const hands = handsOf(things);
  // On a small fish the same hand reaches farther back.
  const over = hands.find(
    (hand) =>
      hand.overMm !== null &&
      hand.overMm[0] < 0.27 * farMm &&
      hand.overMm[1] > 0.17 * farMm &&
      hand.overMm[1] < (hand.fromMm < 0.22 * farMm ? 0.42 : 0.34) * farMm &&
      hand.coverOf(GILL_BOX) > 0.26,
  );
  const place = middleOfFish(seen, 0.24);
  if (over)
    return findingOf(check, 'look', 0.5, { code: 'fingers-at-gills' }, place, {
      value: over.coverOf(GILL_BOX),
      unit: 'share',
    });
  if (hands.some((hand) => comesInAt(hand, AT_GILLS, farMm) && hasFishColours(hand, farMm)))
    return findingOf(check, 'look', 0.45, { code: 'hand-beside-gills' }, place);
  return findingOf(check, 'clear', 0.85, { code: 'gills-free' });
}
