import { fitEvenShift, type BlockFits } from './evenShift.ts';
import { HIDDEN, coarserFlank, type FlankDescriptor } from './describe.ts';
import { FLANK_COLUMNS, FLANK_ROWS } from './straighten.ts';

/** How alike two flanks are. */
export interface FlankMatch {
  /** Mean correlation of the blocks where one even shift of the whole flank puts them, −1 to 1. */
  alike: number;
  /** Share of the blocks that fit best where that shift puts them: by chance each would fit best somewhere else. */
  agreeing: number;
  /** Share of the flank that both show. */
  shared: number;
  /** Places that match, in cells of both flanks: the first's and the second's. */
  places: readonly { from: readonly [number, number]; to: readonly [number, number]; alike: number }[];
}

const BLOCK_COLUMNS = 20;
const BLOCK_ROWS = 12;
/** Blocks overlap by half: each is two by two of these parts, and what is summed over a part serves four blocks. */
const PARTS_ALONG = FLANK_COLUMNS / (BLOCK_COLUMNS / 2);
const PARTS_ACROSS = FLANK_ROWS / (BLOCK_ROWS / 2);
/** How far a fish may lie otherwise as a whole, and a part of it beside that, cells. */
const WHOLE_SHIFT = [9, 6] as const;
const LOCAL_SHIFT = [5, 3] as const;
/** A block fits where the even shift puts it within so many cells each way, and agrees with it within so many. */
const NEAR_CELLS = 1;
const AGREES_CELLS = 1.5;
/** The fish shifted along itself by up to this shows how alike any two of their kind are, cells. */
const REST_SHIFT = 56;
/** Every so manieth of those shifts is looked at. */
const REST_STEP = 2;
const LEAST_BLOCKS = 5;
/** Where the whole fits is looked for on a pattern coarser by this. */
const HALF = 2;
/** The pattern is smooth over this many cells: of the full one every second column tells the same in half the time. */
const FINE_STEP = 2;
/** A block counts when both flanks show this share of it. */
const LEAST_KNOWN = 0.55;

/** A pattern, or a coarser one, and the size of its parts. */
interface Grid {
  columns: number;
  rows: number;
  cells: Int8Array;
  partColumns: number;
  partRows: number;
  /** Every so manieth column is looked at. */
  step: number;
}

/** Each block by its upper left part. */
const BLOCKS: readonly number[] = (() => {
  const blocks: number[] = [];
  for (let row = 0; row + 1 < PARTS_ACROSS; row++)
    for (let column = 0; column + 1 < PARTS_ALONG; column++) blocks.push(row * PARTS_ALONG + column);
  return blocks;
})();

/** Their middles, −0.5 to 0.5 along and across the flank. */
const BLOCK_PLACES: readonly (readonly [number, number])[] = BLOCKS.map((block) => [
  ((block % PARTS_ALONG) + 1) / PARTS_ALONG - 0.5,
  (Math.floor(block / PARTS_ALONG) + 1) / PARTS_ACROSS - 0.5,
]);

function gridOf(flank: FlankDescriptor, by: number): Grid {
  return {
    columns: FLANK_COLUMNS / by,
    rows: FLANK_ROWS / by,
    cells: coarserFlank(flank, by),
    partColumns: BLOCK_COLUMNS / 2 / by,
    partRows: BLOCK_ROWS / 2 / by,
    step: by === 1 ? FINE_STEP : 1,
  };
}

/** Where the whole of one flank fits best on the other, cells of the full pattern. */
interface Whole {
  dx: number;
  dy: number;
  alike: number;
}

/** The whole's fit under a shift of the coarser patterns; null where too little of both is known. */
function wholeFit(a: Grid, b: Grid, dx: number, dy: number): number | null {
  let [sum, energy, count] = [0, 0, 0];
  sumParts(a, b, dx, dy);
  for (const block of BLOCKS) {
    const fit = fitOf(a, block);
    if (fit === null) continue;
    sum += fit.both;
    energy += fit.energy;
    count++;
  }
  return count >= LEAST_BLOCKS && energy > 0 ? sum / energy : null;
}

const [MOST_X, MOST_Y] = [Math.floor(WHOLE_SHIFT[0] / HALF), Math.floor(WHOLE_SHIFT[1] / HALF)];

function bestWhole(a: Grid, b: Grid): Whole | null {
  let best: Whole | null = null;
  const ask = (dx: number, dy: number): void => {
    const alike = wholeFit(a, b, dx, dy);
    if (alike !== null && alike > (best?.alike ?? -Infinity)) best = { dx: HALF * dx, dy: HALF * dy, alike };
  };
  // Every second shift, then the neighbours of the best: the pattern is smooth.
  for (let dx = -MOST_X; dx <= MOST_X; dx += 2) for (let dy = -MOST_Y; dy <= MOST_Y; dy += 2) ask(dx, dy);
  const around = best as Whole | null;
  if (!around) return null;
  for (let dx = -1; dx <= 1; dx++)
    for (let dy = -1; dy <= 1; dy++)
      if (dx !== 0 || dy !== 0) ask(around.dx / HALF + dx, around.dy / HALF + dy);
  return best;
}

/**
 * How much better two flanks fit in their place than shifted along the fish, as a difference of correlations: bars fit
 * anywhere. 0 where that cannot be told.
 */
export function standsApart(a: FlankDescriptor, b: FlankDescriptor): number {
  const [halfA, halfB] = [gridOf(a, HALF), gridOf(b, HALF)];
  const whole = bestWhole(halfA, halfB);
  if (!whole) return 0;
  const elsewhere: number[] = [];
  for (let dx = -REST_SHIFT / HALF; dx <= REST_SHIFT / HALF; dx += REST_STEP) {
    if (Math.abs(dx) < 2 * MOST_X) continue;
    let best = -Infinity;
    for (let dy = -MOST_Y; dy <= MOST_Y; dy++)
      best = Math.max(best, wholeFit(halfA, halfB, dx, dy) ?? -Infinity);
    if (best > -Infinity) elsewhere.push(best);
  }
  if (elsewhere.length < 4) return 0;
  elsewhere.sort((p, q) => p - q);
  return whole.alike - elsewhere[Math.floor(0.8 * elsewhere.length)];
}

/**
 * Compares two flanks block by block: first where the whole fits best; then where each block does near to that; then one
 * even shift is laid through those places, and the blocks are held against it. Two photographs of one fish differ by such
 * a shift. Blocks of two fish fit somewhere too, but here and there.
 */
export function compareFlanks(a: FlankDescriptor, b: FlankDescriptor): FlankMatch | null {
  // The blocks are cut from the one of which more is seen: so it is the same whichever is named first.
  if (knownCells(b) <= knownCells(a)) return compareWith(a, b);
  const match = compareWith(b, a);
  return match && { ...match, places: match.places.map(({ from, to, alike }) => ({ from: to, to: from, alike })) }; // prettier-ignore
}

function knownCells(flank: FlankDescriptor): number {
  let count = 0;
  for (const value of flank) if (value !== HIDDEN) count++;
  return count;
}

function compareWith(a: FlankDescriptor, b: FlankDescriptor): FlankMatch | null {
  const whole = bestWhole(gridOf(a, HALF), gridOf(b, HALF));
  if (!whole) return null;
  const fits = localFits(gridOf(a, 1), gridOf(b, 1), whole);
  const shiftOf = fitEvenShift(fits);
  const { reach, alike, energy } = fits;
  const columns = 2 * reach[0] + 1;
  const places: { from: [number, number]; to: [number, number]; alike: number }[] = [];
  let [sum, weight, agreeing] = [0, 0, 0];
  for (let i = 0; i < BLOCKS.length; i++) {
    const [evenX, evenY] = shiftOf(i);
    let there = { alike: -Infinity, dx: 0, dy: 0 };
    let best = { alike: -Infinity, dx: 0, dy: 0, energy: 0 };
    for (let dy = -reach[1]; dy <= reach[1]; dy++) {
      for (let dx = -reach[0]; dx <= reach[0]; dx++) {
        const at = (i * (2 * reach[1] + 1) + dy + reach[1]) * columns + dx + reach[0];
        const value = alike[at];
        if (value > best.alike) best = { alike: value, dx, dy, energy: energy[at] };
        const isNear = Math.abs(dx - evenX) <= NEAR_CELLS && Math.abs(dy - evenY) <= NEAR_CELLS;
        if (isNear && value > there.alike) there = { alike: value, dx, dy };
      }
    }
    if (best.alike === -Infinity) continue;
    if (Math.hypot(best.dx - evenX, best.dy - evenY) <= AGREES_CELLS) agreeing++;
    // A shift that leads out of what was looked at explains nothing there.
    const explained = there.alike === -Infinity ? 0 : there.alike;
    sum += explained * best.energy;
    weight += best.energy;
    const block = BLOCKS[i];
    const middle: [number, number] = [
      ((block % PARTS_ALONG) + 1) * (BLOCK_COLUMNS / 2),
      (Math.floor(block / PARTS_ALONG) + 1) * (BLOCK_ROWS / 2),
    ];
    const to: [number, number] = [middle[0] + whole.dx + there.dx, middle[1] + whole.dy + there.dy];
    places.push({ from: middle, to, alike: explained });
  }
  if (places.length < LEAST_BLOCKS) return null;
  return {
    alike: sum / weight,
    agreeing: agreeing / places.length,
    shared: places.length / BLOCKS.length,
    places: places.sort((p, q) => q.alike - p.alike),
  };
}

/** How each block fits under each shift about the whole's. */
function localFits(a: Grid, b: Grid, whole: Whole): BlockFits {
  const reach = LOCAL_SHIFT;
  const [columns, rows] = [2 * reach[0] + 1, 2 * reach[1] + 1];
  const alike = new Float64Array(BLOCKS.length * columns * rows).fill(NaN);
  const energy = new Float64Array(alike.length);
  for (let dy = 0; dy < rows; dy++) {
    for (let dx = 0; dx < columns; dx++) {
      sumParts(a, b, whole.dx + dx - reach[0], whole.dy + dy - reach[1]);
      for (let i = 0; i < BLOCKS.length; i++) {
        const fit = fitOf(a, BLOCKS[i]);
        if (!fit) continue;
        const at = (i * rows + dy) * columns + dx;
        alike[at] = fit.both / fit.energy;
        energy[at] = fit.energy;
      }
    }
  }
  return { reach, places: BLOCK_PLACES, alike, energy };
}

/** Energy per cell below which a block says little. */
const FLOOR = 60;

/** What two blocks have in common, and what they have at all. */
interface Fit {
  both: number;
  energy: number;
}

/** Of a part: how many cells both show, and their sums of a, b, a², b² and a·b. */
const SUMS = 6;
/** In the place of a count: the part lies outside when it is shifted. */
const OUTSIDE = -1;
/** Of the shift that was summed last; written over by the next. */
const sums = new Int32Array(PARTS_ALONG * PARTS_ACROSS * SUMS);

/** Sums over each part of `a` with what lies (dx, dy) further in `b`. */
function sumParts(a: Grid, b: Grid, dx: number, dy: number): void {
  const { columns, rows, partColumns, partRows, cells, step } = a;
  const others = b.cells;
  for (let part = 0; part < PARTS_ALONG * PARTS_ACROSS; part++) {
    const left = (part % PARTS_ALONG) * partColumns;
    const top = Math.floor(part / PARTS_ALONG) * partRows;
    const at = part * SUMS;
    if (left + dx < 0 || top + dy < 0 || left + dx + partColumns > columns || top + dy + partRows > rows) {
      sums[at] = OUTSIDE;
      continue;
    }
    let n = 0;
    let sa = 0;
    let sb = 0;
    let saa = 0;
    let sbb = 0;
    let sab = 0;
    for (let row = top; row < top + partRows; row++) {
      const from = row * columns + left;
      const shift = dy * columns + dx;
      for (let i = from; i < from + partColumns; i += step) {
        const p = cells[i];
        const q = others[i + shift];
        if (p === HIDDEN || q === HIDDEN) continue;
        // Whole numbers throughout: that is several times as quick.
        n = (n + 1) | 0;
        sa = (sa + p) | 0;
        sb = (sb + q) | 0;
        saa = (saa + Math.imul(p, p)) | 0;
        sbb = (sbb + Math.imul(q, q)) | 0;
        sab = (sab + Math.imul(p, q)) | 0;
      }
    }
    sums[at] = n;
    sums[at + 1] = sa;
    sums[at + 2] = sb;
    sums[at + 3] = saa;
    sums[at + 4] = sbb;
    sums[at + 5] = sab;
  }
}

/** Correlation of one block under the shift that was summed last; null when too little of it is known. */
function fitOf({ partColumns, partRows, step }: Grid, block: number): Fit | null {
  const a = block * SUMS;
  const b = a + SUMS;
  const c = a + PARTS_ALONG * SUMS;
  const d = c + SUMS;
  if (sums[a] === OUTSIDE || sums[b] === OUTSIDE || sums[c] === OUTSIDE || sums[d] === OUTSIDE) return null;
  const n = ofFour(a, 0);
  if (n < (LEAST_KNOWN * 4 * partColumns * partRows) / step) return null;
  const sa = ofFour(a, 1);
  const sb = ofFour(a, 2);
  const va = ofFour(a, 3) - (sa * sa) / n;
  const vb = ofFour(a, 4) - (sb * sb) / n;
  return { both: ofFour(a, 5) - (sa * sb) / n, energy: Math.sqrt(va * vb) + n * FLOOR };
}

/** A sum over the four parts of a block. */
function ofFour(first: number, which: number): number {
  const at = first + which;
  const below = at + PARTS_ALONG * SUMS;
  return sums[at] + sums[at + SUMS] + sums[below] + sums[below + SUMS];
}
