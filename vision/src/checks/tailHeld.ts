import { findingOf, type Finding } from '../findings/findings.ts';
import { handsOf, type ReachingThing } from '../see-catch/reaching.ts';
import { middleOfFish, type SeenCatch } from '../see-catch/seenCatch.ts';
import type { Check } from './check.ts';

export const tailHeld: Check<'fish'> = {
  ids: ['tail-held'],
  live: 'tail',
  judge: ({ seen, things }) => [tailHeldFinding(seen, things)],
};

const TAIL_BOX = { alongFrom: 0.87, alongTo: 0.99, acrossFrom: 0.2, acrossTo: 0.8 };

/** Whether a hand lies on the tail. */
export function tailHeldFinding(seen: SeenCatch, things: readonly ReachingThing[]): Finding {
  const check = 'tail-held';
  const { farMm } = seen;
  const hands = handsOf(things);
  const cover = Math.max(
    0,
    ...hands.filter(({ toMm }) => toMm > 0.9 * farMm).map((hand) => hand.coverOf(TAIL_BOX)),
  );
  const isNear = hands.some(({ overMm }) => overMm !== null && overMm[1] > 0.84 * farMm);
  const place = middleOfFish(seen, 0.92);
  const measure = { value: cover, unit: 'share' } as const;
  if (cover > 0.5) return findingOf(check, 'fault', 0.88, { code: 'hand-on-tail' }, place, measure);
  if (cover > 0.25 || (isNear && cover > 0.15))
    return findingOf(check, 'look', 0.5, { code: 'hand-near-tail' }, place, measure);
  return findingOf(check, 'clear', 0.9, { code: 'tail-free' });
}
