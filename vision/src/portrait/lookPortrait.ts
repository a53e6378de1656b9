import type { Point } from '../geometry/point.ts';
import type { Raster } from '../image/raster.ts';
import { cellPieces, depthIn, type CellPiece } from './cellPieces.ts';
import { boxMean, findPortraitFish, type PortraitFish } from './findPortraitFish.ts';
import { skinMask, smallPicture, type SmallPicture } from './smallPicture.ts';

/** What may be better in a picture of a person with a fish, or of a fish in the water. Hints only: nothing is judged by them. */
export const PORTRAIT_HINTS = [
  'no-fish',
  'hand-over-flank',
  'arms-out',
  'glare',
  'water-line',
  'fins-folded',
  'dirt',
] as const;
export type PortraitHint = (typeof PORTRAIT_HINTS)[number];

export interface PortraitFinding {
  hint: PortraitHint;
  /** Shares of the picture's width and height; null where it is about the whole. */
  place: Point | null;
}

export interface PortraitLook {
  /** Whether a person holds it; otherwise it is taken for one in the water. */
  isHeld: boolean;
  /** The strongest first. */
  findings: PortraitFinding[];
}

/** Cells along the longer side: a hand is some twenty of them broad, a line of foam two. */
const LONG_SIDE = 320;

/**
 * Looks at a portrait for what a person would do otherwise in the next frame. The fish is found by its colours in the
 * middle of the picture; where none is found that alone is said. Our own method, measured on rendered portraits.
 */
export function lookPortrait(raster: Raster): PortraitLook {
  const picture = smallPicture(raster, LONG_SIDE);
  const skin = skinMask(picture);
  const skinPieces = cellPieces(skin, picture.columns, Math.round(0.0012 * skin.length));
  const face = findFace(picture, skinPieces);
  const isHeld = face !== null;
  const fish = findPortraitFish(picture, skin, isHeld);
  if (!fish) return { isHeld, findings: [{ hint: 'no-fish', place: null }] };
  const body = bodyCells(picture, fish);
  const view: FishView = { picture, skin, fish, body, whole: wholeFish(picture, skin, fish, body) };
  const findings = [
    handOverFlank(view),
    face && armsOut(view, face),
    isHeld ? null : glare(view),
    isHeld ? null : waterLine(view),
    isHeld ? null : finsFolded(view),
    dirt(view),
  ].filter((one) => one !== null);
  return { isHeld, findings };
}

interface FishView {
  picture: SmallPicture;
  skin: Uint8Array;
  fish: PortraitFish;
  body: readonly BodyCell[];
  /** The fish with its holes: patches of light, flecks, and a hand on it. */
  whole: Uint8Array;
}

/** A cell of the body without fins and tail: shares of its length, and of half its height from its axis. */
interface BodyCell {
  cell: number;
  s: number;
  v: number;
}

/** Half the body's height as a share of the length, fins and tail left out: a bass's by its length. */
const BODY_SHARE = 0.115;
/** The body between gill cover and wrist; both ends, for nobody said where the head lies. */
const BODY_ALONG = [0.14, 0.84] as const;

function bodyCells({ columns, rows }: SmallPicture, fish: PortraitFish): BodyCell[] {
  const { x, y, along, length, depth } = fish;
  const half = Math.min(BODY_SHARE * length, 0.5 * depth);
  const cells: BodyCell[] = [];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const [dx, dy] = [column - x, row - y];
      const s = (dx * along[0] + dy * along[1]) / length + 0.5;
      const v = (dy * along[0] - dx * along[1]) / half;
      if (s > BODY_ALONG[0] && s < BODY_ALONG[1] && Math.abs(v) < 1) cells.push({ cell: row * columns + column, s, v }); // prettier-ignore
    }
  }
  return cells;
}

function wholeFish(
  { columns, rows }: SmallPicture,
  skin: Uint8Array,
  { mask }: PortraitFish,
  body: readonly BodyCell[],
): Uint8Array {
  const whole = mask.slice();
  for (const { cell, v } of body) if (skin[cell] === 1 && Math.abs(v) < 0.9) whole[cell] = 1;
  const outside = whole.map((value) => 1 - value);
  const isAtEdge = (cell: number): boolean =>
    cell % columns === 0 || (cell + 1) % columns === 0 || cell < columns || cell >= columns * (rows - 1);
  for (const { cells } of cellPieces(outside, columns, 1))
    if (!cells.some(isAtEdge)) for (const cell of cells) whole[cell] = 1;
  return whole;
}

function placeOf({ columns, rows }: SmallPicture, cells: readonly number[]): Point | null {
  if (cells.length === 0) return null;
  let [x, y] = [0, 0];
  for (const cell of cells) {
    x += (cell % columns) + 0.5;
    y += Math.floor(cell / columns) + 0.5;
  }
  return [x / cells.length / columns, y / cells.length / rows];
}

/** A face: the roundest large piece of skin above the middle. */
function findFace({ columns, rows }: SmallPicture, pieces: readonly CellPiece[]): CellPiece | null {
  const high = pieces.filter(({ meanX, meanY, cells }) => {
    const lowest = Math.max(...sample(cells).map((cell) => Math.floor(cell / columns)));
    return meanY < 0.45 * rows && lowest < 0.62 * rows && Math.abs(meanX / columns - 0.5) < 0.34;
  });
  return high.sort((a, b) => b.cells.length - a.cells.length)[0] ?? null;
}

function sample(cells: readonly number[]): number[] {
  const every = Math.max(1, Math.floor(cells.length / 2000));
  return cells.filter((_, i) => i % every === 0 || i === cells.length - 1);
}

/** Steps along the fish in which a hand's cover is asked. */
const STEPS = 40;
/** A hand that hides so much of the body's height at a place crosses it there. */
const CROSSES = 0.45;
/** Crossed over so much of the length it hides the fish. */
const LEAST_CROSSED = 0.05;

function handOverFlank({ picture, skin, body }: FishView): PortraitFinding | null {
  const all = new Float32Array(STEPS);
  const hidden = new Float32Array(STEPS);
  for (const { cell, s } of body) {
    const step = Math.floor(s * STEPS);
    all[step] = all[step] + 1;
    if (skin[cell] === 1) hidden[step] = hidden[step] + 1;
  }
  const crossed = new Set<number>();
  for (let step = 0; step < STEPS; step++)
    if (all[step] > 0 && hidden[step] / all[step] > CROSSES) crossed.add(step); // prettier-ignore
  if (crossed.size < LEAST_CROSSED * STEPS) return null;
  const cells = body.filter(({ s, cell }) => crossed.has(Math.floor(s * STEPS)) && skin[cell] === 1);
  return { hint: 'hand-over-flank', place: placeOf(picture, cells.map(({ cell }) => cell)) }; // prettier-ignore
}

/**
 * An adult's hand is about 0.63 of the face's breadth (88 to 140 mm, from memory of anthropometric tables). Held
 * near the body it looks some 1.2 times as broad, at arms' length 1.6 times.
 */
const THRUST_RATIO = 0.86;

function armsOut({ picture, skin, fish }: FishView, face: CellPiece): PortraitFinding | null {
  const depth = depthIn(skin, picture.columns);
  const breadthOf = (cells: readonly number[]): number => 2 * Math.max(...sample(cells).map((cell) => depth[cell])); // prettier-ignore
  const faceBreadth = breadthOf(face.cells);
  const near = 0.75 * fish.length;
  const hands: number[] = [];
  for (let cell = 0; cell < skin.length; cell++) {
    if (skin[cell] !== 1) continue;
    const [dx, dy] = [(cell % picture.columns) - fish.x, Math.floor(cell / picture.columns) - fish.y];
    if (dy > -0.1 * fish.length && Math.hypot(dx, dy) < near) hands.push(cell);
  }
  if (hands.length === 0 || faceBreadth <= 0) return null;
  return breadthOf(hands) / faceBreadth > THRUST_RATIO ? { hint: 'arms-out', place: null } : null;
}

const WHITE = 236;
/** A wet flank's ridge shines over less than this. */
const LEAST_GLARE = 0.035;

function glare({ picture, body }: FishView): PortraitFinding | null {
  const white = body.filter(({ cell }) => isWhite(picture, cell));
  if (white.length < LEAST_GLARE * body.length) return null;
  // A line is the water's surface, a patch is the sky.
  const mask = new Uint8Array(picture.luma.length);
  for (const { cell } of white) mask[cell] = 1;
  const patch = cellPieces(mask, picture.columns, Math.round(0.012 * body.length)).filter(
    ({ cells }) => cells.length / spanOf(cells, picture.columns) > LEAST_PATCH_CELLS,
  );
  const cells = patch.flatMap((one) => one.cells);
  return cells.length < LEAST_GLARE * body.length ? null : { hint: 'glare', place: placeOf(picture, cells) };
}

/** Thicker than this, in cells, white is no line. */
const LEAST_PATCH_CELLS = 4;

function spanOf(cells: readonly number[], columns: number): number {
  const xs = cells.map((cell) => cell % columns);
  return Math.max(...xs) - Math.min(...xs) + 1;
}

function isWhite({ red, green, blue }: SmallPicture, cell: number): boolean {
  return Math.min(red[cell], green[cell], blue[cell]) > WHITE;
}

/** A column shows the line where a cell is so much brighter than what lies over and under it. */
const LINE_STEP = 38;
const LINE_REACH = 5;
/** The line is seen in so many of the columns from end to end of the fish, and beyond an end. */
const LINE_SHARE = 0.5;

function waterLine({ picture, fish }: FishView): PortraitFinding | null {
  const { columns, rows, luma } = picture;
  const { x, y, along, length } = fish;
  const points: [number, number][] = [];
  const from = Math.max(0, Math.floor(x - 0.58 * length));
  const to = Math.min(columns - 1, Math.ceil(x + 0.58 * length));
  for (let column = from; column <= to; column++) {
    const middle = y + ((column - x) * along[1]) / along[0];
    const row0 = Math.max(LINE_REACH, Math.round(middle - 0.13 * length));
    const row1 = Math.min(rows - 1 - LINE_REACH, Math.round(middle + 0.16 * length));
    for (let row = row0; row <= row1; row++) {
      const at = (step: number): number => luma[(row + step) * columns + column];
      const own = at(0);
      if (own < 150 || own < at(-1) || own <= at(1)) continue;
      if (own - at(-LINE_REACH) > LINE_STEP && own - at(LINE_REACH) > LINE_STEP) points.push([column, row]);
    }
  }
  const line = straightThrough(points, to - from + 1);
  if (!line) return null;
  const isBeyond = [x - 0.5 * length, x + 0.5 * length].some((end, i) =>
    line.some(([column]) => (i === 0 ? column < end : column > end)),
  );
  if (!isBeyond) return null;
  const cells = line.map(([column, row]) => row * columns + column);
  return { hint: 'water-line', place: placeOf(picture, cells) };
}

/** The points of the best nearly level line that enough columns share; null where there is none. */
function straightThrough(points: readonly [number, number][], span: number): [number, number][] | null {
  let best: [number, number][] = [];
  const tried = points.filter((_, i) => i % Math.max(1, Math.floor(points.length / 60)) === 0);
  for (const [x0, y0] of tried) {
    for (const [x1, y1] of tried) {
      if (x1 - x0 < 0.4 * span) continue;
      const slope = (y1 - y0) / (x1 - x0);
      if (Math.abs(slope) > 0.3) continue;
      const near = points.filter(([x, y]) => Math.abs(y - y0 - slope * (x - x0)) < 2.6);
      if (near.length > best.length) best = near;
    }
  }
  const seen = new Set(best.map(([x]) => x)).size;
  return seen > LINE_SHARE * span ? best : null;
}

/** Fins that stand open make up at least so much of what lies beside the body. */
const LEAST_FINS = 0.013;

function finsFolded({ picture, fish, whole }: FishView): PortraitFinding | null {
  const { columns, rows } = picture;
  const { x, y, along, length } = fish;
  // What a disc of the body's breadth does not reach is fin; the tail stays out of it.
  const radius = 0.062 * length;
  const inside = depthIn(whole, columns);
  const core = Uint8Array.from(inside, (depth) => (depth > radius ? 1 : 0));
  const far = depthIn(
    core.map((value) => 1 - value),
    columns,
  );
  let [fins, all] = [0, 0];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const cell = row * columns + column;
      if (whole[cell] !== 1) continue;
      const [dx, dy] = [column - x, row - y];
      const s = (dx * along[0] + dy * along[1]) / length + 0.5;
      if (s < 0.25 || s > 0.75) continue;
      all++;
      if (far[cell] > radius + 1.5) fins++;
    }
  }
  return all > 0 && fins / all < LEAST_FINS ? { hint: 'fins-folded', place: null } : null;
}

/** A fleck differs so much from the fish around it in its shares of red and green. */
const FLECK_STEP = 0.075;
const LEAST_FLECKS = 4;

function dirt({ picture, fish, skin, body, whole }: FishView): PortraitFinding | null {
  const { columns, rows, red, green, blue } = picture;
  const shares = [red, green].map(
    (channel) =>
    Float32Array.from(channel, (value, cell) => value / (red[cell] + green[cell] + blue[cell] + 6)), // prettier-ignore
  );
  const radius = Math.max(3, Math.round(0.03 * fish.length));
  const around = shares.map((values) => boxMean(values, columns, rows, radius));
  // What is next to a hand differs from it, and is no dirt.
  const beside = boxMean(Float32Array.from(skin), columns, rows, radius);
  const withinFish = boxMean(Float32Array.from(whole), columns, rows, radius);
  const mask = new Uint8Array(columns * rows);
  for (const { cell, v } of body) {
    if (Math.abs(v) > 0.85 || beside[cell] > 0.25) continue;
    if (withinFish[cell] < 0.9) continue;
    const off = shares.map((values, i) => Math.abs(values[cell] - around[i]?.[cell]));
    if (Math.hypot(off[0], off[1]) > FLECK_STEP) mask[cell] = 1;
  }
  const flecks = cellPieces(mask, columns, 3).filter(({ cells }) => cells.length < 0.02 * body.length);
  if (flecks.length < LEAST_FLECKS) return null;
  return { hint: 'dirt', place: placeOf(picture, flecks.flatMap(({ cells }) => cells)) }; // prettier-ignore
}
