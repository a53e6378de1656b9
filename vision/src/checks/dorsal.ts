import { findingOf, type Finding } from '../findings/findings.ts';
import type { Point } from '../geometry/point.ts';
import { medianOf } from '../image/median.ts';
import type { Check } from './check.ts';
import type { EyeSeen } from '../see-catch/eye.ts';
import { NOSE_HEIGHT_SHARE } from '../see-catch/headView.ts';
import { isBesideHand, type SeenCatch } from '../see-catch/seenCatch.ts';
import { cellAt } from '../grid/planeGrid.ts';
import { lumaOf } from '../image/luma.ts';

/** The back is wanted away from the angler. */
export const dorsal: Check<'fish'> = {
  ids: ['dorsal-near'],
  live: null,
  judge: ({ seen, eye }) => [dorsalFinding(seen, eye)],
};

/** Shares of the length between which the flanks are compared, and of the height. */
const ALONG = [0.3, 0.72] as const;
/** Where hands and fins over the edges leave too little of that, cheek and tail's wrist are asked too. */
const WIDER_ALONG = [0.12, 0.86] as const;
const ACROSS = [0.12, 0.4] as const;
const FLOOR = 6;

/** How the flank's lower part differs from its upper, in logs. */
export interface FlankSides {
  lighter: number;
  greyer: number;
  /** Cheek and wrist had to be asked too: they tell less. */
  isWide: boolean;
}

/** Compares the flank's lower part with its upper, column by column; null where too little of it is free. */
export function seeFlankSides(seen: SeenCatch): FlankSides | null {
  const sides = flankSidesIn(seen, ALONG);
  if (sides) return { ...sides, isWide: false };
  const wide = flankSidesIn(seen, WIDER_ALONG);
  return wide && { ...wide, isWide: true };
}

function flankSidesIn(
  { fish, outline, farMm }: SeenCatch,
  [fromShare, toShare]: readonly [number, number],
): Omit<FlankSides, 'isWide'> | null {
  const { view } = fish;
  const lights: number[] = [];
  const chromas: number[] = [];
  outline.xMm.forEach((xMm, i) => {
    if (xMm < fromShare * farMm || xMm > toShare * farMm) return;
    if (isBesideHand(outline, xMm)) return;
    const upper = outline.upperMm[i];
    const height = outline.lowerMm[i] - upper;
    const sides: [[number, number][], [number, number][]] = [[], []];
    for (let share = ACROSS[0]; share < ACROSS[1]; share += 0.04) {
      for (const [side, across] of [share, 1 - share].entries()) {
        const at = cellAt(view, xMm, upper + across * height);
        if (!view.inPhoto[at]) continue;
        const [r, g, b] = [view.rgb[3 * at], view.rgb[3 * at + 1], view.rgb[3 * at + 2]];
        const most = Math.max(r, g, b);
        sides[side].push([Math.log(lumaOf(r, g, b) + FLOOR), (most - Math.min(r, g, b)) / (most + FLOOR)]);
      }
    }
    if (sides[0].length < 4 || sides[1].length < 4) return;
    const step = (of: 0 | 1): number =>
      medianOf(sides[1].map((v) => v[of])) - medianOf(sides[0].map((v) => v[of]));
    lights.push(step(0));
    chromas.push(step(1));
  });
  return lights.length < 5 ? null : { lighter: medianOf(lights), greyer: -medianOf(chromas) };
}

/** The far side is so much lighter, in logs, where the belly lies there; where it may. */
const SURELY_LIGHTER = -0.28;
const PERHAPS_LIGHTER = -0.06;
/** The near side is so much lighter where the belly lies there, whatever is taken for an eye. */
const SURELY_DARKER = 0.15;

/**
 * Backs are dark and bellies light, and eyes lie towards the back. Two signs that agree make a fault; light from the
 * far side alone makes the far side lighter, so that a faint difference against a plainly seen eye is nothing.
 */
export function dorsalFinding(seen: SeenCatch, eye: EyeSeen | null): Finding {
  const check = 'dorsal-near';
  const { farMm, toPhoto, pattern } = seen;
  const sides = seeFlankSides(seen);
  const middle: Point = toPhoto(0.5 * farMm, pattern.widthMm / 2);
  const lighter = sides?.lighter ?? 0;
  if (eye?.side === 'near' && lighter < SURELY_DARKER) {
    const place = toPhoto(...eye.placeMm, NOSE_HEIGHT_SHARE * farMm);
    return lighter < PERHAPS_LIGHTER
      ? findingOf(check, 'fault', 0.88, { code: 'eye-and-back-near' }, place)
      : findingOf(check, 'look', 0.5, { code: 'eye-near' }, place);
  }
  if (!sides)
    return eye
      ? findingOf(check, 'clear', 0.85, { code: 'eye-far' })
      : findingOf(check, 'clear', 0.4, { code: 'flank-hidden' });
  const { greyer, isWide } = sides;
  const isBelly = lighter < SURELY_LIGHTER;
  // Two signs that agree here too: the far side is the lighter, and it is no more colourful.
  if (!eye && isBelly && greyer < 0.12)
    return findingOf(check, 'fault', 0.8, { code: 'belly-far' }, middle); // prettier-ignore
  if (isBelly || (!eye && !isWide && lighter < PERHAPS_LIGHTER))
    return findingOf(check, 'look', 0.5, { code: 'flank-lighter-far' }, middle);
  return findingOf(check, 'clear', eye || lighter > 0.25 ? 0.9 : 0.6, { code: 'back-far' });
}
