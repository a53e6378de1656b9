import type { LensPose } from '../camera/lens.ts';
import type { Point } from '../geometry/point.ts';
import { isGood } from './locate.ts';
import type { Pattern } from './pattern.ts';
import { refinePose, type LensPrior, type RefinedPose } from './refine.ts';
import { halveTones, smoothTones, type Tones } from './tones.ts';

/** Every so many px one is compared. */
const GRID_PX = 5;
/** How far a hand moves a picture from one frame to the next at most, as a share of its width. */
const REACH_SHARE = 0.04;

/**
 * Follows a board from one frame to the next: by how much the whole picture has moved, then a fit of the lines from
 * there. Null where the lines are not found again; then the board has to be looked for anew.
 * @param former smoothed tones of the frame in which the pose was fitted
 * @param smooth smoothed tones of this frame, of the same size
 */
export function trackBoard(
  former: Tones,
  smooth: Tones,
  pose: LensPose,
  pattern: Pattern,
  prior: LensPrior,
): RefinedPose | null {
  const [dx, dy] = shiftBetween(former, smooth);
  const moved: LensPose = {
    ...pose,
    zeroMm: [
      pose.zeroMm[0] + (dx * pose.zeroMm[2]) / pose.focalPx,
      pose.zeroMm[1] + (dy * pose.zeroMm[2]) / pose.focalPx,
      pose.zeroMm[2],
    ],
  };
  const fitted = refinePose(smooth, moved, pattern, prior, [
    { mostPx: 3, coarse: false, mostSteps: 4 },
    { mostPx: 2.2, coarse: false, mostSteps: 6 },
  ]);
  return fitted && isGood(fitted) ? fitted : null;
}

/**
 * By how many px one picture's content lies to the right of and below the other's. First in a picture so coarse that
 * the board's lines melt together: one line looks like the next.
 */
export function shiftBetween(former: Tones, now: Tones): Point {
  const reach = Math.ceil((REACH_SHARE * now.widthPx) / COARSE);
  const coarse = leastDifference(shrunkOnce(former), shrunkOnce(now), [0, 0], reach, 1);
  return leastDifference(former, now, [COARSE * coarse[0], COARSE * coarse[1]], COARSE / 2, GRID_PX);
}

/** Each frame is compared twice: with the one before, and with the one after. */
const known = new WeakMap<Tones, Tones>();

function shrunkOnce(tones: Tones): Tones {
  const former = known.get(tones);
  if (former) return former;
  const made = shrunk(tones);
  known.set(tones, made);
  return made;
}

const BLOCK = 3;
const COARSE = 2 * BLOCK;

/** A sixth of the size, smoothed before it is sampled: lines of almost the samples' distance would beat with them. */
function shrunk({ widthPx, heightPx, data }: Tones): Tones {
  const columns = Math.floor(widthPx / BLOCK);
  const rows = Math.floor(heightPx / BLOCK);
  const blocks = new Float32Array(columns * rows);
  for (let row = 0; row < rows * BLOCK; row++) {
    const to = Math.floor(row / BLOCK) * columns;
    for (let column = 0; column < columns * BLOCK; column++) {
      const at = to + Math.floor(column / BLOCK);
      blocks[at] = blocks[at] + data[row * widthPx + column] / BLOCK ** 2;
    }
  }
  return halveTones(smoothTones({ widthPx: columns, heightPx: rows, data: blocks }));
}

function leastDifference(former: Tones, now: Tones, about: Point, reach: number, gridPx: number): Point {
  let best: Point = about;
  // A still hand is the likeliest: what differs more than that is given up early.
  let least = differenceAt(former, now, about[0], about[1], gridPx, Infinity);
  for (let dy = about[1] - reach; dy <= about[1] + reach; dy++) {
    for (let dx = about[0] - reach; dx <= about[0] + reach; dx++) {
      const difference = differenceAt(former, now, dx, dy, gridPx, least);
      if (difference < least) [least, best] = [difference, [dx, dy]];
    }
  }
  return best;
}

/** Mean absolute difference of the tones under a shift; given up once it is surely over `least`. */
function differenceAt(
  former: Tones,
  now: Tones,
  dx: number,
  dy: number,
  gridPx: number,
  least: number,
): number {
  const { widthPx, heightPx } = now;
  const margin = Math.ceil(REACH_SHARE * widthPx) + COARSE;
  const columns = Math.floor((widthPx - 2 * margin) / gridPx);
  const rows = Math.floor((heightPx - 2 * margin) / gridPx);
  const most = least * columns * rows;
  let sum = 0;
  for (let row = 0; row < rows; row++) {
    const y = margin + row * gridPx;
    let from = y * widthPx + margin;
    let to = (y + dy) * widthPx + margin + dx;
    for (let column = 0; column < columns; column++, from += gridPx, to += gridPx)
      sum += Math.abs(former.data[from] - now.data[to]);
    if (sum > most) return Infinity;
  }
  return sum / (columns * rows);
}
