import { findingOf, type Finding } from '../findings/findings.ts';
import { fitLine } from '../geometry/fitLine.ts';
import { medianOf } from '../image/median.ts';
import type { Check } from './check.ts';
import { isBesideHand, type SeenCatch } from '../see-catch/seenCatch.ts';
import { isOfStandingTail, seeTailShadow } from './tailShadow.ts';

export const tailCurled: Check<'fish'> = {
  ids: ['tail-curled'],
  live: 'tail',
  judge: ({ seen }) => [curledFinding(seen)],
};

/** A tail that lies straight continues the body's axis within this share of the length. */
const MOST_ASIDE_SHARE = 0.01;
/** Where the outline has no large fins, shares of the length: fins draw the middle aside. */
const FINLESS = [[0.06, 0.32], [0.75, 0.87]] as const; // prettier-ignore

/** Whether the tail is bent aside, or stands up: that shows from above by its shadow alone, in the sun. */
export function curledFinding(seen: SeenCatch): Finding {
  const bent = bentFinding(seen);
  return bent.tone === 'clear' ? (standingFinding(seen) ?? bent) : bent;
}

function standingFinding(seen: SeenCatch): Finding | null {
  const shadow = seeTailShadow(seen);
  if (!shadow || !isOfStandingTail(shadow)) return null;
  const { farMm, toPhoto, outline } = seen;
  const yMm = (outline.upperMm[outline.upperMm.length - 1] + outline.lowerMm[outline.lowerMm.length - 1]) / 2;
  return findingOf('tail-curled', 'look', 0.55, { code: 'tail-shadow' }, toPhoto(farMm, yMm), {
    value: Math.hypot(...shadow.awayMm),
    unit: 'mm',
  });
}

function bentFinding({ outline, farMm, toPhoto }: SeenCatch): Finding {
  const check = 'tail-curled';
  const middles = outline.xMm.flatMap((xMm, i) =>
    isBesideHand(outline, xMm) ? [] : [[xMm, (outline.upperMm[i] + outline.lowerMm[i]) / 2] as const],
  );
  const body = middles.filter(([x]) => FINLESS.some(([from, to]) => x > from * farMm && x < to * farMm));
  const end = middles.filter(([x]) => x > 0.9 * farMm && x < 0.98 * farMm);
  if (body.length < 20 || end.length < 3) return findingOf(check, 'clear', 0.4, { code: 'body-hidden' });
  const axis = fitLine(body);
  const asideMm = medianOf(end.map(([x, y]) => y - axis.yMean - axis.slope * (x - axis.xMean)));
  const place = toPhoto(0.94 * farMm, end[0][1]);
  if (Math.abs(asideMm) > MOST_ASIDE_SHARE * farMm)
    return findingOf(check, 'look', 0.55, { code: 'tail-aside' }, place, {
      value: Math.abs(asideMm),
      unit: 'mm',
    });
  return findingOf(check, 'clear', 0.6, { code: 'tail-straight' });
}
