import { HIDDEN, coarserFlank, type FlankDescriptor } from './describe.ts';
import { FLANK_COLUMNS, FLANK_ROWS } from './straighten.ts';

/** How alike two flanks are. */
export interface FlankMatch {
  /** Mean correlation of the blocks, −1 to 1. */
  alike: number;
  /** How much better they fit in their place than shifted along the fish: stripes fit anywhere. */
  apart: number;
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
const LOCAL_SHIFT = [3, 2] as const;
/** The fish shifted along itself by up to this shows how alike any two of their kind are, cells. */
const REST_SHIFT = 56;
/** Every so manieth of those shifts is looked at. */
const REST_STEP = 2;
const LEAST_BLOCKS = 5;
/** Where the whole fits is looked for on a pattern coarser by this. */
const HALF = 2;
/** A block counts when both flanks show this share of it. */
const LEAST_KNOWN = 0.55;

/** A pattern, or a coarser one, and the size of its parts. */
interface Grid {
  columns: number;
  rows: number;
  cells: Int8Array;
  partColumns: number;
  partRows: number;
}

/** Each block by its upper left part. */
const BLOCKS: readonly number[] = (() => {
  const blocks: number[] = [];
  for (let row = 0; row + 1 < PARTS_ACROSS; row++)
    for (let column = 0; column + 1 < PARTS_ALONG; column++) blocks.push(row * PARTS_ALONG + column);
  return blocks;
})();

function gridOf(flank: FlankDescriptor, by: number): Grid {
  return {
    columns: FLANK_COLUMNS / by,
    rows: FLANK_ROWS / by,
    cells: coarserFlank(flank, by),
    partColumns: BLOCK_COLUMNS / 2 / by,
    partRows: BLOCK_ROWS / 2 / by,
  };
}

/** Compares two flanks block by block: first where the whole fits best, then each block near to that. */
export function compareFlanks(a: FlankDescriptor, b: FlankDescriptor): FlankMatch | null {
  const [halfA, halfB] = [gridOf(a, HALF), gridOf(b, HALF)];
  const fitAt = (dx: number, dy: number): number | null => {
    let [sum, energy, count] = [0, 0, 0];
    sumParts(halfA, halfB, dx, dy);
    for (const block of BLOCKS) {
      const fit = fitOf(halfA, block);
      if (fit === null) continue;
      sum += fit.both;
      energy += fit.energy;
      count++;
    }
    return count >= LEAST_BLOCKS && energy > 0 ? sum / energy : null;
  };
  let whole = { dx: 0, dy: 0, alike: -Infinity };
  const elsewhere: number[] = [];
  const [mostX, mostY] = [Math.floor(WHOLE_SHIFT[0] / HALF), Math.floor(WHOLE_SHIFT[1] / HALF)];
  for (let dx = -REST_SHIFT / HALF; dx <= REST_SHIFT / HALF; dx++) {
    const isNear = Math.abs(dx) <= mostX;
    if (!isNear && (Math.abs(dx) < 2 * mostX || dx % REST_STEP !== 0)) continue;
    let best = -Infinity;
    for (let dy = -mostY; dy <= mostY; dy++) {
      const alike = fitAt(dx, dy);
      if (alike === null) continue;
      best = Math.max(best, alike);
      if (isNear && alike > whole.alike) whole = { dx: HALF * dx, dy: HALF * dy, alike };
    }
    if (!isNear && best > -Infinity) elsewhere.push(best);
  }
  if (whole.alike === -Infinity) return null;
  elsewhere.sort((p, q) => p - q);
  const apart =
    elsewhere.length >= 4 ? whole.alike - (elsewhere[Math.floor(0.8 * elsewhere.length)] as number) : 0;
  const [fineA, fineB] = [gridOf(a, 1), gridOf(b, 1)];
  const best: (PlacedFit | null)[] = BLOCKS.map(() => null);
  for (let dy = whole.dy - LOCAL_SHIFT[1]; dy <= whole.dy + LOCAL_SHIFT[1]; dy++) {
    for (let dx = whole.dx - LOCAL_SHIFT[0]; dx <= whole.dx + LOCAL_SHIFT[0]; dx++) {
      sumParts(fineA, fineB, dx, dy);
      for (let i = 0; i < BLOCKS.length; i++) {
        const fit = fitOf(fineA, BLOCKS[i] as number);
        const former = best[i];
        if (fit && (!former || fit.both / fit.energy > former.both / former.energy))
          best[i] = { both: fit.both, energy: fit.energy, dx, dy };
      }
    }
  }
  let [sum, energy, count] = [0, 0, 0];
  const places: { from: [number, number]; to: [number, number]; alike: number }[] = [];
  for (const [i, block] of BLOCKS.entries()) {
    const fit = best[i];
    if (!fit) continue;
    sum += fit.both;
    energy += fit.energy;
    count++;
    const middle: [number, number] = [
      ((block % PARTS_ALONG) + 1) * (BLOCK_COLUMNS / 2),
      (Math.floor(block / PARTS_ALONG) + 1) * (BLOCK_ROWS / 2),
    ];
    places.push({
      from: middle,
      to: [middle[0] + fit.dx, middle[1] + fit.dy],
      alike: fit.both / fit.energy,
    });
  }
  if (count < LEAST_BLOCKS) return null;
  return {
    alike: sum / energy,
    apart,
    shared: count / BLOCKS.length,
    places: places.sort((p, q) => q.alike - p.alike),
  };
}

/** Energy per cell below which a block says little. */
const FLOOR = 60;

/** What two blocks have in common, and what they have at all. */
interface Fit {
  both: number;
  energy: number;
}

interface PlacedFit extends Fit {
  dx: number;
  dy: number;
}

/** Of a part: how many cells both show, and their sums of a, b, a², b² and a·b. */
const SUMS = 6;
/** In the place of a count: the part lies outside when it is shifted. */
const OUTSIDE = -1;
/** Of the shift that was summed last; written over by the next. */
const sums = new Int32Array(PARTS_ALONG * PARTS_ACROSS * SUMS);

/** Sums over each part of `a` with what lies (dx, dy) further in `b`. */
function sumParts(a: Grid, b: Grid, dx: number, dy: number): void {
  const { columns, rows, partColumns, partRows, cells } = a;
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
      for (let i = from; i < from + partColumns; i++) {
        const p = cells[i] as number;
        const q = others[i + shift] as number;
        if (p === HIDDEN || q === HIDDEN) continue;
        n++;
        sa += p;
        sb += q;
        saa += p * p;
        sbb += q * q;
        sab += p * q;
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
function fitOf({ partColumns, partRows }: Grid, block: number): Fit | null {
  const a = block * SUMS;
  const b = a + SUMS;
  const c = a + PARTS_ALONG * SUMS;
  const d = c + SUMS;
  if (sums[a] === OUTSIDE || sums[b] === OUTSIDE || sums[c] === OUTSIDE || sums[d] === OUTSIDE) return null;
  const n = ofFour(a, 0);
  if (n < LEAST_KNOWN * 4 * partColumns * partRows) return null;
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
  return (
    (sums[at] as number) +
    (sums[at + SUMS] as number) +
    (sums[below] as number) +
    (sums[below + SUMS] as number)
  );
}
