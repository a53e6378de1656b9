import { findingOf, type Finding } from '../findings/findings.ts';
import { comesInAt, handsOf, type ReachingThing } from '../see-catch/reaching.ts';
import { middleOfFish, type SeenCatch } from '../see-catch/seenCatch.ts';
import type { Check } from './check.ts';

export const eyeCovered: Check<'fish'> = {
  ids: ['eye-covered'],
  live: null,
  judge: ({ seen, things, eye }) => [eyeCoveredFinding(seen, things, eye !== null)],
};

const EYE_BOX = { alongFrom: 0.05, alongTo: 0.13, acrossFrom: 0.15, acrossTo: 0.5 };
/** Where a hand crosses the edge that is at the head, shares of the length. */
const AT_HEAD = { beginsAt: [-1, 0.1], endsBefore: 0.35 } as const;

/** @param isEyeSeen false where an eye was looked for and none is seen: a hand at the head may lie on it */
export function eyeCoveredFinding(
  seen: SeenCatch,
  things: readonly ReachingThing[],
  isEyeSeen: boolean,
): Finding {
  const check = 'eye-covered';
  const { farMm } = seen;
  const hands = handsOf(things);
  const overHead = hands.filter(
    ({ fromMm, overMm }) => fromMm < 0.18 * farMm || (overMm !== null && overMm[0] < 0.12 * farMm),
  );
  const cover = Math.max(0, ...overHead.map((hand) => hand.coverOf(EYE_BOX)));
  const place = middleOfFish(seen, 0.09);
  const measure = { value: cover, unit: 'share' } as const;
  if (cover > 0.3 && seen.fish.tip)
    return findingOf(check, 'fault', 0.82, { code: 'hand-over-eye' }, place, measure);
  if (cover > 0.14) return findingOf(check, 'look', 0.5, { code: 'hand-near-eye' }, place, measure);
  if (!isEyeSeen && hands.some((hand) => comesInAt(hand, AT_HEAD, farMm)))
    return findingOf(check, 'look', 0.5, { code: 'hand-at-head' }, place);
  return findingOf(check, 'clear', 0.88, { code: 'eye-free' });
}
