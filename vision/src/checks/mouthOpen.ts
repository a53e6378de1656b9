import { findingOf, type BenchReason, type Finding } from '../findings/findings.ts';
import { NOSE_HEIGHT_SHARE, type HeadView } from '../see-catch/headView.ts';
import { medianOf } from '../image/median.ts';
import { seeDarkMouth, type DarkMouth } from './darkMouth.ts';
import { logColourAt } from '../see-catch/logColour.ts';
import { mouthZone, type MouthSeen } from './mouthZone.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import type { Check } from './check.ts';
import { columnStart, columnsTo, rowStart } from '../grid/planeGrid.ts';

export const mouthOpen: Check<'fish'> = {
  ids: ['mouth-open'],
  live: 'jaws',
  judge: ({ seen, head, eye }) => [
    mouthFinding(seen, seeMouth(head, seen.farMm, eye?.side), seeDarkMouth(head, seen.farMm, eye?.side)),
  ],
};

/** Redder than the head (log of red over green), and red in itself. */
const REDDER = 0.28;
const LEAST_RED = 0.3;
const LEAST_HIGH_MM = 2.2;

/**
 * Looks for flesh between the jaws: a wedge that begins at the nose.
 * @param backSide the side on which the back lies
 */
export function seeMouth(
  head: HeadView,
  lengthMm: number,
  backSide: 'far' | 'near' = 'far',
): MouthSeen | null {
  const { view, other, fish } = head;
  const { columns, rows, cellsPerMm } = view;
  const red = new Float32Array(columns * rows);
  const reds: number[] = [];
  const headFrom = Math.round(columnsTo(view, 0.03 * lengthMm));
  for (let i = 0; i < columns * rows; i++) {
    red[i] = logColourAt(view.rgb, i)[1];
    if (fish[i] && i % columns >= headFrom && i % 3 === 0) reds.push(red[i]);
  }
  if (reds.length < 80) return null;
  const usualRed = Math.max(0, medianOf(reds));
  const isFlesh = (i: number): boolean => other[i] === 1 && red[i] > Math.max(LEAST_RED, usualRed + REDDER);
  const { top, bottom, right } = mouthZone(head, lengthMm, backSide);
  const highs: { column: number; high: number; middle: number }[] = [];
  for (let column = 0; column < right; column++) {
    let [best, start, middle] = [0, -1, 0];
    for (let row = top; row <= bottom; row++) {
      const inside = row < bottom && isFlesh(row * columns + column);
      if (inside && start < 0) start = row;
      if (inside || start < 0) continue;
      if (row - start > best) [best, middle] = [row - start, (row + start) / 2];
      start = -1;
    }
    if (best >= LEAST_HIGH_MM * cellsPerMm) highs.push({ column, high: best / cellsPerMm, middle });
  }
  const first = highs[0];
  if (!first || highs.length < 0.012 * lengthMm * cellsPerMm) return null;
  // A mouth begins at the nose, not behind it.
  const firstMm = columnStart(view, first.column);
  if (firstMm > 0.05 * lengthMm) return null;
  const front = highs.filter(({ column }) => column < first.column + 0.035 * lengthMm * cellsPerMm);
  const gapMm = front.map(({ high }) => high).sort((a, b) => a - b)[Math.floor(0.7 * front.length)] + 0.5;
  const middleRow = medianOf(front.map(({ middle }) => middle));
  return {
    gapMm,
    deepMm: highs.length / cellsPerMm,
    placeMm: [firstMm + 0.01 * lengthMm, rowStart(view, middleRow)],
  };
}

/** An opening that reaches less far back than this is a lip or a speck, mm and share of the length. */
const LEAST_DEEP_MM = 13;
const LEAST_DEEP_SHARE = 0.035;
const LEAST_GAP_MM = 4;
const MOST_GAP_SHARE = 0.12;

/** A dark wedge lower than this may be a line of shade beside a shut mouth, mm. */
const LEAST_DARK_MM = 4.5;
/** A dark wedge so high and so even is an opening, not a shadow. */
const SURE_DARK_MM = 8;
const SURE_UNEVENNESS = 0.05;

/** What flesh between the jaws and a dark wedge between them tell: either may be seen alone. */
export function mouthFinding(seen: SeenCatch, flesh: MouthSeen | null, dark: DarkMouth | null): Finding {
  const check = 'mouth-open';
  const shut = findingOf(check, 'clear', 0.75, { code: 'jaws-closed' }, null, {
    value: 0,
    unit: 'mm',
  });
  const found = (
    tone: 'look' | 'fault',
    confidence: number,
    reason: BenchReason,
    mouth: MouthSeen,
  ): Finding =>
    findingOf(
      check,
      tone,
      confidence,
      reason,
      seen.toPhoto(mouth.placeMm[0], mouth.placeMm[1], NOSE_HEIGHT_SHARE * seen.farMm),
      { value: mouth.gapMm, unit: 'mm' },
    );
  const apart = { code: 'jaws-apart' } as const;
  const isBeforeHead = flesh !== null && flesh.gapMm > MOST_GAP_SHARE * seen.farMm;
  const isDeep = flesh !== null && flesh.deepMm >= Math.max(LEAST_DEEP_MM, LEAST_DEEP_SHARE * seen.farMm);
  if (flesh && !isBeforeHead && isDeep && flesh.gapMm >= LEAST_GAP_MM)
    return found('fault', 0.88, apart, flesh);
  if (dark && dark.gapMm >= SURE_DARK_MM && dark.unevenness <= SURE_UNEVENNESS)
    return found('fault', 0.8, apart, dark);
  if (dark && dark.gapMm >= LEAST_DARK_MM) return found('look', 0.5, { code: 'dark-wedge' }, dark);
  if (flesh && !isBeforeHead && flesh.deepMm >= 0.6 * LEAST_DEEP_MM && flesh.gapMm >= 0.7 * LEAST_GAP_MM)
    return found('look', 0.5, { code: 'jaws-may-be-apart' }, flesh);
  return isBeforeHead ? { ...shut, confidence: 0.5, reason: { code: 'red-before-head' } } : shut;
}
