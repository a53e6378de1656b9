import type { Pattern } from '../find-board/pattern.ts';
import type { FaceView } from '../find-fish/faceView.ts';
import { cellAt } from '../grid/planeGrid.ts';
import { medianOf } from '../image/median.ts';
import { logColourAt, type LogColour } from './logColour.ts';
import type { SeenCatch } from './seenCatch.ts';

/** A hand, a grip or another thing that reaches from beyond the face's edge onto the fish. */
export interface ReachingThing {
  /** Where it crosses the edge, mm along the board. */
  fromMm: number;
  toMm: number;
  side: 'near' | 'far';
  /** Share of a box in shares of the fish's length and height that it hides. */
  coverOf: (box: FishBox) => number;
  /** Whether a place of the fish (mm along, share of its height) shows this thing's colour. */
  hides: (xMm: number, across: number) => boolean;
  /** Where along the fish it lies over the body's middle, mm; null where it does not reach so far. */
  overMm: readonly [number, number] | null;
}

/** Shares of the length from the stop, and of the height from the upper edge. */
export interface FishBox {
  alongFrom: number;
  alongTo: number;
  acrossFrom: number;
  acrossTo: number;
}

/** Colours are compared in this many bands across the fish. */
const BANDS = 8;
/** Fish next to a hand lies in its shadow, and some of it is hand, mm. */
const BESIDE_MM = 22;
/** How far inside and outside of the edge a thing's own colour is taken, mm. */
const INSIDE_MM = [2, 9] as const;
const OUTSIDE_MM = [3, 10] as const;
/** What goes on beyond the edge in the same colour is no fin. */
const SAME = 0.34;

/** Everything that reaches in over the near or far edge and touches the fish. */
export function seeReaching(seen: SeenCatch): ReachingThing[] {
  const { fish, outline, pattern } = seen;
  const things: ReachingThing[] = [];
  for (const side of ['near', 'far'] as const) {
    const runs = joined([...outline.handMm, ...hiddenAtEdge(seen, side)]);
    for (const [fromMm, toMm] of runs.flatMap((run) => handsIn(fish.view, run, side, pattern))) {
      const own = ownColour(fish.view, fromMm, toMm, side, pattern.widthMm);
      if (!own) continue;
      things.push({ fromMm, toMm, side, ...coverBy(seen, own, fromMm, toMm) });
    }
  }
  return things;
}

/** The nearest lines to the edge are looked at so far from it, mm. */
const EDGE_BAND_MM = [3, 13] as const;
/** Lines hidden over less than this are no hand's doing, mm. */
const LEAST_HIDDEN_MM = 12;
const HIDDEN = 0.3;

/** Where the lines next to an edge are not seen: a thing in the board's own colour does not show in the mask. */
function hiddenAtEdge({ fish, pattern, farMm }: SeenCatch, side: 'near' | 'far'): [number, number][] {
  const { evidence } = fish;
  const bandOf = (offMm: number): number => (side === 'near' ? pattern.widthMm - offMm : offMm);
  const [y0, y1] = [bandOf(EDGE_BAND_MM[0]), bandOf(EDGE_BAND_MM[1])].sort((a, b) => a - b);
  const runs: [number, number][] = [];
  let start: number | null = null;
  let last = 0;
  const end = (): void => {
    if (start !== null && last - start >= LEAST_HIDDEN_MM) runs.push([start, last]);
    start = null;
  };
  pattern.lines.forEach((line, index) => {
    if (line.xMm > farMm + 40) return;
    const values: number[] = [];
    for (let row = Math.ceil(y0 / evidence.rowMm); row < y1 / evidence.rowMm; row++) {
      const value = evidence.seen[index * evidence.rows + row];
      if (value !== undefined && value >= 0) values.push(value);
    }
    if (values.length < 2) return;
    const hidden = medianOf(values) < HIDDEN;
    if (hidden) start ??= line.xMm;
    else end();
    last = line.xMm;
  });
  end();
  return runs;
}

/** Overlapping runs as one. */
function joined(runs: readonly (readonly [number, number])[]): [number, number][] {
  const out: [number, number][] = [];
  for (const [from, to] of [...runs].sort((a, b) => a[0] - b[0])) {
    const before = out.at(-1);
    if (before && from <= before[1] + 6) before[1] = Math.max(before[1], to);
    else out.push([from, to]);
  }
  return out;
}

/** No hand crosses the edge over more than this, mm: a longer run is a deep fish's belly and fins, with or without one. */
const LONGEST_HAND_MM = 130;
const WINDOW_MM = 12;
/** What lies outside differs by so much from the ground there (in logs). */
const OTHER_THAN_GROUND = 0.3;

/** The hands in a run along the edge: of a long one the parts that go on outside in their own colour, not the ground's. */
function handsIn(
  view: FaceView,
  [fromMm, toMm]: readonly [number, number],
  side: 'near' | 'far',
  { widthMm, lengthMm }: Pattern,
): (readonly [number, number])[] {
  if (toMm - fromMm <= LONGEST_HAND_MM) return [[fromMm, toMm]];
  const at = (offMm: number): number => (side === 'near' ? widthMm + offMm : -offMm);
  const ground = meanColour(view, 0, lengthMm, at(OUTSIDE_MM[0]), at(OUTSIDE_MM[1]));
  const hands: [number, number][] = [];
  for (let x = fromMm; x + WINDOW_MM <= toMm; x += WINDOW_MM / 2) {
    const inside = meanColour(view, x, x + WINDOW_MM, at(-INSIDE_MM[1]), at(-INSIDE_MM[0]));
    const outside = meanColour(view, x, x + WINDOW_MM, at(OUTSIDE_MM[0]), at(OUTSIDE_MM[1]));
    if (!ground || !inside || !outside) continue;
    if (differenceOf(inside, outside) > SAME || differenceOf(outside, ground) < OTHER_THAN_GROUND) continue;
    const last = hands.at(-1);
    if (last && x <= last[1] + WINDOW_MM) last[1] = x + WINDOW_MM;
    else hands.push([x, x + WINDOW_MM]);
  }
  const found = hands.filter(([from, to]) => to - from >= NARROW_MM && to - from <= LONGEST_HAND_MM);
  return found.length > 0 ? found : [[fromMm, toMm]];
}

/** The colour of what crosses the edge; null where it does not go on outside. */
function ownColour(
  view: FaceView,
  fromMm: number,
  toMm: number,
  side: 'near' | 'far',
  widthMm: number,
): LogColour | null {
  const at = (offMm: number): number => (side === 'near' ? widthMm + offMm : -offMm);
  const inside = meanColour(view, fromMm + 2, toMm - 2, at(-INSIDE_MM[1]), at(-INSIDE_MM[0]));
  const outside = meanColour(view, fromMm + 2, toMm - 2, at(OUTSIDE_MM[0]), at(OUTSIDE_MM[1]));
  if (!inside || !outside) return null;
  return differenceOf(inside, outside) < SAME ? inside : null;
}

function meanColour(view: FaceView, x0: number, x1: number, ya: number, yb: number): LogColour | null {
  const [y0, y1] = [Math.min(ya, yb), Math.max(ya, yb)];
  const lights: number[] = [];
  const warms: number[] = [];
  const cools: number[] = [];
  for (let yMm = y0; yMm < y1; yMm += 1 / view.cellsPerMm) {
    for (let xMm = x0; xMm < x1; xMm += 1 / view.cellsPerMm) {
      const colour = colourAt(view, xMm, yMm);
      if (!colour) continue;
      lights.push(colour[0]);
      warms.push(colour[1]);
      cools.push(colour[2]);
    }
  }
  return lights.length < 12 ? null : [medianOf(lights), medianOf(warms), medianOf(cools)];
}

function colourAt(view: FaceView, xMm: number, yMm: number): LogColour | null {
  const i = cellAt(view, xMm, yMm);
  return view.inPhoto[i] ? logColourAt(view.rgb, i) : null;
}

/** Difference of two colours in logs; brightness counts half: light falls unevenly. */
function differenceOf(a: LogColour, b: LogColour): number {
  return Math.hypot(0.5 * (a[0] - b[0]), a[1] - b[1], a[2] - b[2]);
}

function coverBy(
  { fish, outline, farMm: lengthMm }: SeenCatch,
  own: LogColour,
  fromMm: number,
  toMm: number,
): Pick<ReachingThing, 'coverOf' | 'hides' | 'overMm'> {
  const { view } = fish;
  const at = (xMm: number): number =>
    Math.max(0, Math.min(outline.xMm.length - 1, Math.round((xMm - outline.xMm[0]) / 2)));
  const placeY = (xMm: number, across: number): number => {
    const i = at(xMm);
    const upper = outline.upperMm[i];
    return upper + across * (outline.lowerMm[i] - upper);
  };
  // The fish's own colours, in bands across, from where nothing lies on it.
  const bands = Array.from({ length: BANDS }, (_, band): LogColour | null => {
    const lists: [number[], number[], number[]] = [[], [], []];
    for (let xMm = 0.04 * lengthMm; xMm < 0.9 * lengthMm; xMm += 2) {
      if (xMm > fromMm - BESIDE_MM && xMm < toMm + BESIDE_MM) continue;
      const colour = colourAt(view, xMm, placeY(xMm, (band + 0.5) / BANDS));
      if (colour) lists.forEach((list, i) => list.push(colour[i]));
    }
    return lists[0].length < 8 ? null : [medianOf(lists[0]), medianOf(lists[1]), medianOf(lists[2])];
  });
  const isOwn = (xMm: number, across: number): boolean => {
    const colour = colourAt(view, xMm, placeY(xMm, across));
    const body = bands[Math.min(BANDS - 1, Math.max(0, Math.floor(across * BANDS)))];
    if (!colour || !body) return false;
    return differenceOf(colour, own) < 0.8 * differenceOf(colour, body);
  };
  const coverOf = ({ alongFrom, alongTo, acrossFrom, acrossTo }: FishBox): number => {
    let [count, hidden] = [0, 0];
    for (let xMm = alongFrom * lengthMm; xMm < alongTo * lengthMm; xMm += 1) {
      for (let across = acrossFrom; across < acrossTo; across += 0.05) {
        count++;
        if (isOwn(xMm, across)) hidden++;
      }
    }
    return count ? hidden / count : 0;
  };
  const over: number[] = [];
  for (let xMm = Math.max(0, fromMm - 60); xMm < Math.min(lengthMm, toMm + 60); xMm += 2) {
    let hidden = 0;
    for (let across = 0.4; across < 0.75; across += 0.05) if (isOwn(xMm, across)) hidden++;
    if (hidden >= 4) over.push(xMm);
  }
  const overMm =
    over.length >= 4
      ? ([over[Math.floor(0.08 * over.length)], over[Math.floor(0.92 * over.length)]] as const)
      : null;
  return { coverOf, hides: isOwn, overMm };
}

/** What crosses the edge over less than this is narrower than four fingers, mm. */
export const NARROW_MM = 34;

/** The hands among what reaches in: from the angler's side, as broad as four fingers. */
export function handsOf(things: readonly ReachingThing[]): ReachingThing[] {
  return things.filter(({ side, fromMm, toMm }) => side === 'near' && toMm - fromMm >= NARROW_MM);
}

/**
 * Whether a hand comes in over a stretch of the edge, shares of the length: it begins there and ends before too far back.
 */
export function comesInAt(
  { fromMm, toMm }: ReachingThing,
  { beginsAt: [least, most], endsBefore }: { beginsAt: readonly [number, number]; endsBefore: number },
  lengthMm: number,
): boolean {
  return fromMm > least * lengthMm && fromMm < most * lengthMm && toMm < endsBefore * lengthMm;
}
