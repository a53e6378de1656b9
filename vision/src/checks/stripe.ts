import { viewFace, type FaceView } from '../find-fish/faceView.ts';
import { cellAt } from '../grid/planeGrid.ts';
import { medianOf } from '../image/median.ts';
import { logColourAt } from '../see-catch/logColour.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';

/** Something straight and narrow that lies on the ground before the angler's edge, beside the head: a tool's handle. */
export interface StripeSeen {
  /** Where it crosses the edge, mm along the board. */
  xMm: number;
  widthMm: number;
  /** Share of it that differs from the ground, less the same share beside it. */
  score: number;
  /** Share of the face next to the edge, in its way, that is covered: it goes on towards the fish. */
  onFaceShare: number;
}

/** The strip of ground that is looked at: mm beyond the edge, along the board from the stop, and shares of the length. */
const BEYOND_MM = [4, 44] as const;
const FROM_MM = -70;
const TO_SHARE = 0.22;
const LEAST_TO_MM = 90;
/** The ground lies under the board's face by about its thickness, mm. */
const GROUND_MM = -6;
const CELLS_PER_MM = 0.5;

/** Brightness and the two chromas of a log colour. */
const CHANNELS = [0, 1, 2] as const;

/** Steps that count as another colour, in robust deviations of the row, and the least such deviations. */
const OTHER_DEVIATIONS = 4;
const LEAST_SPREAD = [0.13, 0.03, 0.03] as const;
/** Light varies on the ground more than chroma does. */
const LIGHT_SPREADS = 1.6;

/** The face is looked at so far inside of the edge, mm, over so much of the stripe's width. */
const ON_FACE_MM = [3, 14] as const;
const MIDDLE_SHARE = 2 / 3;

/** Stripes are tried at these widths (cells) and leans (in steps: cells along the board for each across). */
const WIDTHS = [6, 16] as const;
const LEANS = [-12, 14] as const;
const LEAN_STEP = 0.1;

/** The clearest stripe in the strip, whatever its score; null where the picture does not show the strip. */
export function seeStripe(seen: SeenCatch): StripeSeen | null {
  const { photo, pose, pattern, farMm } = seen;
  const toXMm = Math.max(TO_SHARE * farMm, LEAST_TO_MM);
  const view = viewFace(
    photo,
    pose,
    {
      fromXMm: FROM_MM,
      toXMm,
      fromYMm: pattern.widthMm + BEYOND_MM[0],
      toYMm: pattern.widthMm + BEYOND_MM[1],
      cellsPerMm: CELLS_PER_MM,
    },
    2,
    GROUND_MM,
  );
  const sums = differing(view);
  if (!sums) return null;
  const best = clearest(view, sums);
  return { ...best, onFaceShare: onFace(seen, best) };
}

/**
 * Which cells differ from their row's usual colour, as sums along each row: a stripe's share of a row is a difference of
 * two. Null where the picture shows less than half of a row.
 */
function differing({ columns, rows, rgb, inPhoto }: FaceView): Uint16Array | null {
  const sums = new Uint16Array((columns + 1) * rows);
  for (let row = 0; row < rows; row++) {
    const cells: number[] = [];
    for (let column = 0; column < columns; column++)
      if (inPhoto[row * columns + column]) cells.push(row * columns + column);
    if (cells.length < columns / 2) return null;
    const colours = cells.map((cell) => logColourAt(rgb, cell));
    const usual = CHANNELS.map((channel) => medianOf(colours.map((colour) => colour[channel])));
    const spread = CHANNELS.map((channel) => {
      const own = 1.4826 * medianOf(colours.map((colour) => Math.abs(colour[channel] - usual[channel]))); // prettier-ignore
      return Math.max(LEAST_SPREAD[channel], channel === 0 ? LIGHT_SPREADS * own : own);
    });
    const differs = new Set(
      cells.filter((_, i) => {
        const colour = colours[i];
        const off = CHANNELS.map((channel) => (colour[channel] - usual[channel]) / spread[channel]); // prettier-ignore
        return Math.hypot(...off) > OTHER_DEVIATIONS;
      }),
    );
    for (let column = 0; column < columns; column++) {
      const at = row * (columns + 1) + column;
      sums[at + 1] = sums[at] + (differs.has(row * columns + column) ? 1 : 0);
    }
  }
  return sums;
}

/** The stripe that differs most from what lies beside it, among all widths, leans and places. */
function clearest({ columns, rows, fromXMm }: FaceView, sums: Uint16Array): Omit<StripeSeen, 'onFaceShare'> {
  const count = (row: number, from: number, to: number): number =>
    sums[row * (columns + 1) + to] - sums[row * (columns + 1) + from];
  let best = { xMm: 0, widthMm: 0, score: 0 };
  for (let tenth = LEANS[0]; tenth <= LEANS[1]; tenth++) {
    const lean = tenth * LEAN_STEP;
    const lastOff = Math.round(lean * (rows - 1));
    for (let width = WIDTHS[0]; width <= WIDTHS[1]; width++) {
      const end = columns - Math.max(0, lastOff) - width - 2;
      for (let first = Math.max(2, 2 - lastOff); first <= end; first++) {
        let [inside, beside] = [0, 0];
        for (let row = 0; row < rows; row++) {
          const start = first + Math.round(lean * row);
          inside += count(row, start, start + width);
          beside += count(row, start - 2, start) + count(row, start + width, start + width + 2);
        }
        const score = inside / (rows * width) - beside / (rows * 4);
        if (score > best.score)
          best = { xMm: fromXMm + (first + width / 2) / CELLS_PER_MM, widthMm: width / CELLS_PER_MM, score };
      }
    }
  }
  return best;
}

function onFace(
  { fish: { view, coverage }, pattern }: SeenCatch,
  { xMm, widthMm }: Pick<StripeSeen, 'xMm' | 'widthMm'>,
): number {
  const half = (MIDDLE_SHARE * widthMm) / 2;
  const stepMm = 1 / view.cellsPerMm;
  let [count, covered] = [0, 0];
  for (let y = pattern.widthMm - ON_FACE_MM[1]; y < pattern.widthMm - ON_FACE_MM[0]; y += stepMm) {
    for (let x = Math.max(1, xMm - half); x < xMm + half; x += stepMm) {
      count++;
      if ((coverage.odds[cellAt(view, x, y)] ?? 0) > 0) covered++;
    }
  }
  return count ? covered / count : 0;
}
