import type { Raster } from '../image/raster.ts';
import { medianOf } from '../image/median.ts';

/** The dark frame of a screen along one side of the picture. */
export interface BezelSeen {
  side: 'top' | 'bottom' | 'left' | 'right';
  /** Share of the side along which it ends on one straight line. */
  straightShare: number;
  /** How deep it reaches into the picture in the middle of the side, px. */
  depthPx: number;
}

const PLACES = 80;
/** Looked for this far into the picture, as a share of that side's length across. */
const MOST_DEEP = 0.14;
const LEAST_DEEP_PX = 4;
/** Frames are darker than this (0-255, the brightest channel), and even to within so much. */
const DARKEST = 70;
const EVEN = 7;
/** Where it ends the picture differs by so much from the frame's own. */
const STEP = 14;
/** Ends within so many px of one line are on it, plus a share of the picture's side for what the lens bends. */
const OFF_LINE_PX = 2;
const OFF_LINE_SHARE = 0.0015;

/** The side whose dark rim ends most nearly on one straight line that is not the picture's own edge. */
export function seeBezel({ widthPx, heightPx, data }: Raster): BezelSeen | null {
  const brightness = (x: number, y: number): number => {
    const at = (y * widthPx + x) * 4;
    return Math.max(data[at], data[at + 1], data[at + 2]);
  };
  const sides = [
    ['top', widthPx, heightPx, (along: number, deep: number) => brightness(along, deep)],
    ['bottom', widthPx, heightPx, (along: number, deep: number) => brightness(along, heightPx - 1 - deep)],
    ['left', heightPx, widthPx, (along: number, deep: number) => brightness(deep, along)],
    ['right', heightPx, widthPx, (along: number, deep: number) => brightness(widthPx - 1 - deep, along)],
  ] as const;
  let best: BezelSeen | null = null;
  for (const [side, longPx, deepPx, at] of sides) {
    const ends: (readonly [number, number])[] = [];
    for (let place = 0; place < PLACES; place++) {
      const along = Math.floor(((place + 0.5) * longPx) / PLACES);
      const end = darkUntil((deep) => at(along, deep), Math.floor(MOST_DEEP * deepPx));
      if (end !== null) ends.push([along, end]);
    }
    const line = straightest(ends, OFF_LINE_PX + OFF_LINE_SHARE * longPx);
    if (!line) continue;
    const straightShare = line.count / PLACES;
    if (straightShare > (best?.straightShare ?? 0))
      best = { side, straightShare, depthPx: line.offset + (line.slope * longPx) / 2 };
  }
  return best;
}

/** How deep an even dark rim reaches; null where there is none, or no end to it. */
function darkUntil(at: (deep: number) => number, mostPx: number): number | null {
  const rim = medianOf([0, 1, 2, 3].map(at));
  if (rim > DARKEST) return null;
  for (let deep = 0; deep < mostPx; deep++) {
    const here = at(deep);
    const off = Math.abs(here - rim);
    if (off > STEP && Math.abs(at(deep + 1) - rim) > STEP) return deep >= LEAST_DEEP_PX ? deep : null;
    // What grows out of the dark little by little is a shadow.
    if (off > EVEN && deep + 3 < mostPx && Math.abs(at(deep + 3) - rim) <= STEP) return null;
  }
  return null;
}

/** The line that most ends lie on, through any two of them a fair way apart. */
function straightest(
  ends: readonly (readonly [number, number])[],
  offPx: number,
): { slope: number; offset: number; count: number } | null {
  let best: { slope: number; offset: number; count: number } | null = null;
  for (let i = 0; i < ends.length; i++) {
    for (let j = i + 8; j < ends.length; j += 3) {
      const [[x0, y0], [x1, y1]] = [ends[i], ends[j]];
      const slope = (y1 - y0) / (x1 - x0);
      const offset = y0 - slope * x0;
      const count = ends.filter(([x, y]) => Math.abs(y - offset - slope * x) <= offPx).length;
      if (count > (best?.count ?? 0)) best = { slope, offset, count };
    }
  }
  return best;
}
