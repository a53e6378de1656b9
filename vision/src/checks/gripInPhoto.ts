import { findingOf, type Finding } from '../findings/findings.ts';
import type { PlateView } from '../see-catch/plateView.ts';
import { NARROW_MM, type ReachingThing } from '../see-catch/reaching.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import type { Check } from './check.ts';
import { seeStripe } from './stripe.ts';

export const gripInPhoto: Check<'fish'> = {
  ids: ['grip-in-photo'],
  live: null,
  judge: ({ seen, things, head }) => [gripFinding(seen, things, head.plate, head.axisMm)],
};

/** A tool that leaves over the stop hides a part of the plate beside the head: so far from the nose, mm. */
const BESIDE_HEAD_MM = [24, 66] as const;
/** At the plate's own ends other things show, mm. */
const PLATE_END_MM = 8;
/** It hides so much of it, mm of its width and share of its height. */
const LEAST_ON_PLATE_MM = 7;
const LEAST_HIGH_SHARE = 0.1;

/** A tool still at the head: it reaches over the board's edge beside the head, or over the stop, or its handle lies on the ground and over the face. */
export function gripFinding(
  seen: SeenCatch,
  things: readonly ReachingThing[],
  plate: PlateView | null,
  axisMm: number,
): Finding {
  const check = 'grip-in-photo';
  const { farMm, toPhoto, pattern } = seen;
  const reason = { code: 'tool-from-head' } as const;
  const tool = things.find(
    ({ fromMm, toMm }) => toMm - fromMm < NARROW_MM && fromMm < 0.18 * farMm && toMm < 0.22 * farMm,
  );
  if (tool) {
    const [tone, confidence, yMm] =
      tool.side === 'near' ? (['fault', 0.7, pattern.widthMm] as const) : (['look', 0.5, 0] as const);
    return findingOf(check, tone, confidence, reason, toPhoto((tool.fromMm + tool.toMm) / 2, yMm));
  }
  const overStopMm = plate && besideHeadMm(plate, axisMm);
  if (overStopMm !== null)
    return findingOf(check, 'look', 0.55, { code: 'tool-over-stop' }, toPhoto(0, overStopMm, LOW_ON_PLATE_MM)); // prettier-ignore
  const stripe = seeStripe(seen);
  // On the ground and on the face: two signs.
  const isStripe = (leastScore: number, leastOnFace: number): boolean =>
    stripe !== null && stripe.score > leastScore && stripe.onFaceShare > leastOnFace;
  const tone = isStripe(LEAST_STRIPE, LEAST_ON_FACE) ? 'fault' : isStripe(FAINT_STRIPE, FAINT_ON_FACE) ? 'look' : null; // prettier-ignore
  return stripe && tone
    ? findingOf(check, tone, tone === 'fault' ? 0.6 : 0.45, reason, toPhoto(stripe.xMm, pattern.widthMm))
    : findingOf(check, 'clear', 0.7, { code: 'no-tool' });
}

/** So clear a stripe on the ground beside the head that goes on over the face is a handle: seams and shadows are not there too. */
const LEAST_STRIPE = 0.6;
const LEAST_ON_FACE = 0.35;
/** So much of either is a look. */
const FAINT_STRIPE = 0.54;
const FAINT_ON_FACE = 0.2;
const LOW_ON_PLATE_MM = 8;

/** Where across the board something other than the head hides the plate, mm; null where nothing does. */
function besideHeadMm(
  { columns, rows, cellsPerMm, fromYMm, other }: PlateView,
  axisMm: number,
): number | null {
  let start: number | null = null;
  for (let column = Math.ceil(PLATE_END_MM * cellsPerMm); column <= columns; column++) {
    const yMm = fromYMm + column / cellsPerMm;
    const off = Math.abs(yMm - axisMm);
    let high = 0;
    if (column < columns - PLATE_END_MM * cellsPerMm && off > BESIDE_HEAD_MM[0] && off < BESIDE_HEAD_MM[1])
      for (let row = 0; row < rows; row++) high += other[row * columns + column];
    if (high >= LEAST_HIGH_SHARE * rows) {
      start ??= yMm;
      continue;
    }
    if (start !== null && yMm - start >= LEAST_ON_PLATE_MM) return (start + yMm) / 2;
    start = null;
  }
  return null;
}
