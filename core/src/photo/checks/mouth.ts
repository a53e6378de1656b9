import { findingOf, type Finding } from '../findings.ts';
import { NOSE_HEIGHT_SHARE, type HeadView } from './headView.ts';
import { medianOf } from '../median.ts';
import { logColourAt } from './logColour.ts';
import type { SeenCatch } from './seenCatch.ts';

/** Flesh that is seen between the jaws: what is only dark may be a shadow or a mark. */
export interface MouthSeen {
  /** How far the jaws seem to be apart next to the nose, mm. */
  gapMm: number;
  /** How far back the opening reaches, mm. */
  deepMm: number;
  /** Where it is, board coordinates at the nose's height, mm. */
  placeMm: readonly [number, number];
}

/** Redder than the head (log of red over green), and red in itself. */
const REDDER = 0.28;
const LEAST_RED = 0.3;
/** A mouth opens within this share of the length. */
const JAW_SHARE = 0.17;
/** Beside the axis a mouth lies within this share of the length. */
const ASIDE_SHARE = 0.075;
const LEAST_HIGH_MM = 2.2;

/** Farther than this share of the length towards the back there is no mouth: eyes may be red. */
const BACKWARDS_SHARE = 0.02;

/**
 * Looks for flesh between the jaws: a wedge that begins at the nose.
 * @param backSide the side on which the back lies
 */
export function seeMouth(
  { view, other, fish, axisMm }: HeadView,
  lengthMm: number,
  backSide: 'far' | 'near' = 'far',
): MouthSeen | null {
  const { columns, rows, cellsPerMm } = view;
  const red = new Float32Array(columns * rows);
  const reds: number[] = [];
  const headFrom = Math.round((0.03 * lengthMm - view.fromXMm) * cellsPerMm);
  for (let i = 0; i < columns * rows; i++) {
    red[i] = logColourAt(view.rgb, i)[1];
    if (fish[i] && i % columns >= headFrom && i % 3 === 0) reds.push(red[i] as number);
  }
  if (reds.length < 80) return null;
  const usualRed = Math.max(0, medianOf(reds));
  const isFlesh = (i: number): boolean =>
    other[i] === 1 && (red[i] as number) > Math.max(LEAST_RED, usualRed + REDDER);
  const rowAt = (asideShare: number): number =>
    Math.round((axisMm + asideShare * lengthMm - view.fromYMm) * cellsPerMm);
  const [upShare, downShare] = backSide === 'far' ? [BACKWARDS_SHARE, ASIDE_SHARE] : [ASIDE_SHARE, BACKWARDS_SHARE]; // prettier-ignore
  const top = Math.max(0, rowAt(-upShare));
  const bottom = Math.min(rows, rowAt(downShare));
  const right = Math.min(columns, Math.round((JAW_SHARE * lengthMm - view.fromXMm) * cellsPerMm));
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
  const firstMm = view.fromXMm + first.column / cellsPerMm;
  if (firstMm > 0.05 * lengthMm) return null;
  const front = highs.filter(({ column }) => column < first.column + 0.035 * lengthMm * cellsPerMm);
  const gapMm =
    (front.map(({ high }) => high).sort((a, b) => a - b)[Math.floor(0.7 * front.length)] as number) + 0.5;
  const middleRow = medianOf(front.map(({ middle }) => middle));
  return {
    gapMm,
    deepMm: highs.length / cellsPerMm,
    placeMm: [firstMm + 0.01 * lengthMm, view.fromYMm + middleRow / cellsPerMm],
  };
}

/** An opening that reaches less far back than this is a lip or a speck, mm and share of the length. */
const LEAST_DEEP_MM = 13;
const LEAST_DEEP_SHARE = 0.035;
const LEAST_GAP_MM = 4;
const MOST_GAP_SHARE = 0.12;

export function mouthFinding(seen: SeenCatch, mouth: MouthSeen | null): Finding {
  const check = 'mouth-open';
  const shut = 'No opening is seen between the jaws.';
  if (!mouth) return findingOf(check, 'clear', 0.75, shut, null, { value: 0, unit: 'mm' });
  const { gapMm, deepMm, placeMm } = mouth;
  const place = seen.toPhoto(placeMm[0], placeMm[1], NOSE_HEIGHT_SHARE * seen.farMm);
  const measure = { value: gapMm, unit: 'mm' } as const;
  const isDeep = deepMm >= Math.max(LEAST_DEEP_MM, LEAST_DEEP_SHARE * seen.farMm);
  if (gapMm > MOST_GAP_SHARE * seen.farMm)
    return findingOf(check, 'clear', 0.5, 'Something red lies before the head.', null, {
      value: 0,
      unit: 'mm',
    });
  if (isDeep && gapMm >= LEAST_GAP_MM)
    return findingOf(
      check,
      'fault',
      0.88,
      `The jaws are about ${gapMm.toFixed(0)} mm apart.`,
      place,
      measure,
    );
  if (deepMm >= 0.6 * LEAST_DEEP_MM && gapMm >= 0.7 * LEAST_GAP_MM)
    return findingOf(check, 'look', 0.5, 'The mouth may be open a little.', place, measure);
  return findingOf(check, 'clear', 0.65, shut, null, { value: 0, unit: 'mm' });
}
