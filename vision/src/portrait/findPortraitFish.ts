import { cellPieces } from './cellPieces.ts';
import type { SmallPicture } from './smallPicture.ts';

/** A fish in a portrait: its cells, and its straight axis. Shares run from one end to the other. */
export interface PortraitFish {
  mask: Uint8Array;
  /** Middle, in cells. */
  x: number;
  y: number;
  /** Unit vector along it, to the right. */
  along: readonly [number, number];
  length: number;
  /** Height of the body at its highest. */
  depth: number;
}

/** Where a fish is expected: the middle of the picture, as the outline on the screen asks for it. Shares of the width. */
export const PORTRAIT_PLACE = { x: 0.5, y: 0.54, halfLength: 0.3, halfDepth: 0.085 } as const;

const LIGHT_BINS = 12;
const SHARE_BINS = 26;
const ROUNDS = 5;
/** Colour alone carries no farther than so many times the expected outline. */
const REACH = 1.5;
/** Half the height of the expected outline, as a share of the length: a fish with its fins is no higher and no flatter. */
const HALF_DEPTH = [0.11, 0.17] as const;
/** What lies within so many times the expected outline is told apart from it. */
const AROUND = 2.6;
const SMOOTH_CELLS = 1;

/** Bounds of what is a fish that is held lengthwise: shares of the picture's width, and its length over its depth. */
const LEAST_LENGTH = 0.24;
const SLENDER = [2, 7.5] as const;

/**
 * Finds the fish by what tells its colours from those around it: the colours of the expected place against those of
 * the rest, told apart anew from what was found, a few rounds long. Null where nothing of a fish's shape comes of it.
 * @param skin cells that are hands or a face
 * @param isHeld before a person: what is behind it has colours of its own
 */
export function findPortraitFish(
  picture: SmallPicture,
  skin: Uint8Array,
  isHeld: boolean,
): PortraitFish | null {
  const { columns, rows } = picture;
  const bins = colourBins(picture);
  const around = isHeld ? 0.5 : 1.1;
  let place: Parameters<typeof farFrom>[0] = {
    x: PORTRAIT_PLACE.x * columns,
    y: PORTRAIT_PLACE.y * rows,
    along: [1, 0],
    halfLength: PORTRAIT_PLACE.halfLength * columns,
    halfDepth: PORTRAIT_PLACE.halfDepth * columns,
  };
  let inside: Uint8Array | null = null;
  let told = 0;
  for (let round = 0; round < ROUNDS; round++) {
    const far = farFrom(place, columns, rows);
    const fish = new Float32Array(LIGHT_BINS * SHARE_BINS * SHARE_BINS).fill(0.5);
    const other = new Float32Array(fish.length).fill(0.5);
    let [fishSum, otherSum] = [1, 1];
    for (let cell = 0; cell < bins.length; cell++) {
      if (skin[cell] === 1) continue;
      const bin = bins[cell];
      const isFish: boolean = inside ? inside[cell] === 1 : far[cell] < 1;
      if (isFish) {
        fish[bin] = fish[bin] + 1;
        fishSum++;
      } else if (far[cell] < AROUND) {
        other[bin] = other[bin] + 1;
        otherSum++;
      }
    }
    const odds = new Float32Array(bins.length);
    const byColour = new Float32Array(bins.length);
    for (let cell = 0; cell < bins.length; cell++) {
      const bin = bins[cell];
      // Between counts and shares: a shirt behind the fish has most of its cells elsewhere, dark water has a few of a fin's.
      const colour = Math.log(fish[bin] / other[bin]) + around * Math.log(otherSum / fishSum);
      byColour[cell] = Math.max(-3, Math.min(3, colour));
      const off = far[cell];
      const here = off < 1 ? 1.2 * (1 - off) : 2.2 * (1 - off);
      odds[cell] = skin[cell] === 1 ? -2 : off > REACH ? -9 : byColour[cell] + here;
    }
    const smooth = boxMean(odds, columns, rows, SMOOTH_CELLS);
    const mask = Uint8Array.from(smooth, (value) => (value > 0 ? 1 : 0));
    inside = largest(mask, columns, far);
    if (!inside) return null;
    told = meanWithin(byColour, inside);
    const found = axisOf(inside, columns);
    place = { ...found, halfLength: 0.5 * found.length, halfDepth: found.length * Math.max(HALF_DEPTH[0], Math.min(HALF_DEPTH[1], (0.5 * found.depth) / found.length)) }; // prettier-ignore
  }
  // Without a colour of its own the middle of a picture is no fish.
  if (!inside || told < LEAST_TOLD) return null;
  const { x, y, along, length, depth } = axisOf(inside, columns);
  const slender = length / depth;
  if (length < LEAST_LENGTH * columns || slender < SLENDER[0] || slender > SLENDER[1]) return null;
  return { mask: inside, x, y, along, length, depth };
}

/** Mean log odds by colour alone within what was found, at least. */
const LEAST_TOLD = 0.9;

function meanWithin(values: Float32Array, mask: Uint8Array): number {
  let [sum, count] = [0, 0];
  for (let cell = 0; cell < mask.length; cell++) {
    if (mask[cell] !== 1) continue;
    sum += values[cell];
    count++;
  }
  return sum / count;
}

/** Each cell's bin by its light and the shares of red and green in it. */
function colourBins({ columns, rows, red, green, blue, luma }: SmallPicture): Uint16Array {
  const bins = new Uint16Array(columns * rows);
  for (let cell = 0; cell < bins.length; cell++) {
    const [r, g, b] = [red[cell] + 4, green[cell] + 4, blue[cell] + 4];
    const sum = r + g + b;
    const light = Math.min(LIGHT_BINS - 1, Math.floor((luma[cell] / 256) * LIGHT_BINS));
    // Shares of what is neither pure nor missing lie between 0.15 and 0.6.
    const bin = (share: number): number => Math.max(0, Math.min(SHARE_BINS - 1, Math.floor(((share - 0.2) / 0.32) * SHARE_BINS))); // prettier-ignore
    bins[cell] = (light * SHARE_BINS + bin(r / sum)) * SHARE_BINS + bin(g / sum);
  }
  return bins;
}

/** How far each cell lies from an ellipse's middle: 1 on the ellipse. */
function farFrom(
  {
    x,
    y,
    along: [ax, ay],
    halfLength,
    halfDepth,
  }: { x: number; y: number; along: readonly [number, number]; halfLength: number; halfDepth: number },
  columns: number,
  rows: number,
): Float32Array {
  const far = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const [dx, dy] = [column - x, row - y];
      far[row * columns + column] = Math.hypot((dx * ax + dy * ay) / halfLength, (dy * ax - dx * ay) / halfDepth); // prettier-ignore
    }
  }
  return far;
}

/** The piece that fills the expected place best, with what a hand has cut off from it. */
function largest(mask: Uint8Array, columns: number, far: Float32Array): Uint8Array | null {
  const pieces = cellPieces(mask, columns, 12).map(({ cells }) => ({
    cells,
    within: cells.filter((cell) => far[cell] < 1).length,
  }));
  const most = Math.max(0, ...pieces.map(({ within }) => within));
  if (most === 0) return null;
  const out = new Uint8Array(mask.length);
  for (const { cells, within } of pieces)
    if (within > 0.12 * most && within > 0.3 * cells.length) for (const cell of cells) out[cell] = 1;
  return out;
}

/** Middle, direction, length and depth of cells, by their moments and what lies along the axis. */
function axisOf(mask: Uint8Array, columns: number) {
  let [count, sx, sy] = [0, 0, 0];
  for (let cell = 0; cell < mask.length; cell++) {
    if (mask[cell] !== 1) continue;
    count++;
    sx += cell % columns;
    sy += Math.floor(cell / columns);
  }
  const [x, y] = [sx / count, sy / count];
  let [xx, xy, yy] = [0, 0, 0];
  for (let cell = 0; cell < mask.length; cell++) {
    if (mask[cell] !== 1) continue;
    const [dx, dy] = [(cell % columns) - x, Math.floor(cell / columns) - y];
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
  }
  const turn = 0.5 * Math.atan2(2 * xy, xx - yy);
  const along = [Math.cos(turn), Math.sin(turn)] as const;
  const places: number[] = [];
  const across: number[] = [];
  for (let cell = 0; cell < mask.length; cell++) {
    if (mask[cell] !== 1) continue;
    const [dx, dy] = [(cell % columns) - x, Math.floor(cell / columns) - y];
    places.push(dx * along[0] + dy * along[1]);
    across.push(dy * along[0] - dx * along[1]);
  }
  const from = shareOf(places, 0.004);
  const to = shareOf(places, 0.996);
  const middle = 0.5 * (from + to);
  return {
    x: x + middle * along[0],
    y: y + middle * along[1],
    along,
    length: Math.max(1, to - from),
    depth: Math.max(1, shareOf(across, 0.97) - shareOf(across, 0.03)),
  };
}

function shareOf(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))];
}

/** Mean over a square of 2·radius + 1 cells. */
export function boxMean(values: Float32Array, columns: number, rows: number, radius: number): Float32Array {
  const pass = (from: Float32Array, step: number, size: number, lines: number, lineStep: number) => {
    const out = new Float32Array(from.length);
    for (let line = 0; line < lines; line++) {
      const at = (i: number): number => line * lineStep + i * step;
      let [sum, count] = [0, 0];
      for (let i = 0; i < Math.min(size, radius); i++) {
        sum += from[at(i)];
        count++;
      }
      for (let i = 0; i < size; i++) {
        if (i + radius < size) {
          sum += from[at(i + radius)];
          count++;
        }
        if (i - radius - 1 >= 0) {
          sum -= from[at(i - radius - 1)];
          count--;
        }
        out[at(i)] = sum / count;
      }
    }
    return out;
  };
  return pass(pass(values, 1, columns, rows, columns), columns, rows, columns, 1);
}
