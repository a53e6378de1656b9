import { fitLine } from '../geometry/fitLine.ts';
import { medianOf } from '../image/median.ts';
import { overRuns } from '../image/overRuns.ts';
import type { Point } from '../geometry/point.ts';
import type { HeadView } from '../see-catch/headView.ts';
import { logColourAt } from '../see-catch/logColour.ts';
import { JAW_SHARE, mouthZone, type MouthSeen, type MouthZone } from './mouthZone.ts';
import { columnStart, rowStart } from '../grid/planeGrid.ts';

/** A dark opening between two lighter jaws, high at the nose, that narrows backwards in a straight line. */
export interface DarkMouth extends MouthSeen {
  /** Root mean square of what its height misses the straight line by, as a share of `gapMm`. */
  unevenness: number;
}

/** Log brightness that both jaws have over what lies between them. */
const LEAST_STEP = 0.4;
/** Jaws are looked for so far above and below, as a share of the length; right beside it they are light within so much, mm. */
const JAW_REACH_SHARE = 0.06;
const LIP_MM = 1.7;
/** So much of the head's rim may be bare board, mm. */
const RIM_MM = 1.3;
/** Lower than this is the line of a shut mouth, or its shadow, mm. */
const LEAST_HIGH_MM = 1;
const LEAST_FRONT_MM = 3;
/** Its height is taken over so much of the length at once; so many such parts at least, with gaps of so many at most. */
const PART_SHARE = 0.01;
const LEAST_PARTS = 5;
const MOST_GAP_PARTS = 4.5;
/** It begins at the nose. */
const BEGINS_SHARE = 0.06;
/** Its end is lower than its front: a bar along the head or a shadow is not. */
const MOST_END = 0.65;
const MOST_UNEVENNESS = 0.08;

/** A run of dark cells in one column. */
interface Opening {
  xMm: number;
  highMm: number;
  middleMm: number;
}

/**
 * Looks for a wedge that is darker than both jaws. Its colour tells nothing: in the shade the inside of a mouth is black.
 * A shut mouth shows a line of even height there (from memory), a fish's own bars and the shadows of hands narrow
 * unevenly or not at all.
 * @param backSide the side on which the back lies
 */
export function seeDarkMouth(
  head: HeadView,
  lengthMm: number,
  backSide: 'far' | 'near' = 'far',
): DarkMouth | null {
  const openings = openingsIn(head, mouthZone(head, lengthMm, backSide), lengthMm);
  const partMm = PART_SHARE * lengthMm;
  const parts: Point[] = [];
  for (let xMm = head.view.fromXMm; xMm < JAW_SHARE * lengthMm; xMm += partMm) {
    const inside = openings.filter((opening) => opening.xMm >= xMm && opening.xMm < xMm + partMm);
    if (inside.length <= 0.5 * partMm * head.view.cellsPerMm) continue;
    const highMm = medianOf(inside.map((opening) => opening.highMm));
    const last = parts.at(-1);
    if (!last && highMm < LEAST_FRONT_MM) continue;
    if (last && xMm + partMm / 2 - last[0] > MOST_GAP_PARTS * partMm) break;
    parts.push([xMm + partMm / 2, highMm]);
  }
  if (parts.length < LEAST_PARTS) return null;
  const { xMean, yMean, slope } = fitLine(parts);
  const highAt = (xMm: number): number => yMean + slope * (xMm - xMean);
  const [fromMm, toMm] = [parts[0][0], parts[parts.length - 1][0]];
  const gapMm = highAt(fromMm);
  const miss = Math.sqrt(parts.reduce((sum, [x, y]) => sum + (y - highAt(x)) ** 2, 0) / parts.length);
  const isWedge = highAt(toMm) < MOST_END * gapMm && miss < MOST_UNEVENNESS * gapMm;
  if (!isWedge || fromMm > BEGINS_SHARE * lengthMm) return null;
  const front = openings.filter(({ xMm }) => xMm >= fromMm - partMm / 2 && xMm < fromMm + 2 * partMm);
  return {
    gapMm,
    deepMm: toMm - fromMm + partMm,
    unevenness: miss / gapMm,
    placeMm: [fromMm + partMm, medianOf(front.map(({ middleMm }) => middleMm))],
  };
}

/** The highest run of each column that is darker than the jaws above and below, and ends at them sharply. */
function openingsIn({ view, fish }: HeadView, zone: MouthZone, lengthMm: number): Opening[] {
  const { columns, rows, cellsPerMm } = view;
  const reach = 2 * Math.round((JAW_REACH_SHARE * lengthMm * cellsPerMm) / 2);
  const rim = Math.round(RIM_MM * cellsPerMm);
  const lip = Math.round(LIP_MM * cellsPerMm);
  const from = Math.max(0, zone.top - reach);
  const count = Math.min(rows, zone.bottom + reach) - from;
  const readColumn = (column: number, valueAt: (cell: number) => number) => {
    const values = new Float32Array(count);
    for (let i = 0; i < count; i++) values[i] = valueAt((from + i) * columns + column);
    return values;
  };
  const lightOf = (column: number) => readColumn(column, (cell) => logColourAt(view.rgb, cell)[0]);
  const openings: Opening[] = [];
  let [light, after] = [lightOf(0), lightOf(1)];
  for (let column = 1; column < Math.min(zone.right, columns - 1); column++) {
    const before = light;
    [light, after] = [after, lightOf(column + 1)];
    const head = overRuns(
      readColumn(column, (cell) => fish[cell]),
      rim,
      Math.min,
    );
    const jaws = new Float32Array(count).fill(-Infinity);
    for (let i = 0; i < count; i++)
      if (head[i] === 1) jaws[i] = (threeAt(before, i) + threeAt(light, i) + threeAt(after, i)) / 9;
    const run = highestRun(light, jaws, { first: zone.top - from, last: zone.bottom - from, reach, lip });
    if (!run || run.high < LEAST_HIGH_MM * cellsPerMm) continue;
    openings.push({
      xMm: columnStart(view, column),
      highMm: run.high / cellsPerMm,
      middleMm: rowStart(view, from + run.middle),
    });
  }
  return openings;
}

/** A cell with both neighbours: one gleaming scale is no jaw. */
function threeAt(light: Float32Array, i: number): number {
  return light[Math.max(0, i - 1)] + light[i] + light[Math.min(light.length - 1, i + 1)]; // prettier-ignore
}

/** The highest run of cells from `first` up to `last` that is darker than the jaws within `reach` and `lip` of it. */
function highestRun(
  light: Float32Array,
  jaws: Float32Array,
  { first, last, reach, lip }: { first: number; last: number; reach: number; lip: number },
): { high: number; middle: number } | null {
  const lightest = overRuns(jaws, reach / 2, Math.max);
  let best: { high: number; middle: number } | null = null;
  let start = -1;
  for (let i = first; i <= last; i++) {
    const beside = Math.min(lightest[i - reach / 2 - 1], lightest[i + reach / 2 + 1]);
    const isDark = i < last && beside - light[i] > LEAST_STEP;
    if (isDark && start < 0) start = i;
    if (isDark || start < 0) continue;
    const high = i - start;
    const inside = light.subarray(start, i).reduce((sum, value) => sum + value, 0) / high;
    const lips = Math.min(Math.max(...jaws.subarray(start - lip, start)), Math.max(...jaws.subarray(i, i + lip))); // prettier-ignore
    const isWhole = start > first && i < last;
    if (isWhole && lips - inside > LEAST_STEP && high > (best?.high ?? 0)) best = { high, middle: (i + start) / 2 }; // prettier-ignore
    start = -1;
  }
  return best;
}
