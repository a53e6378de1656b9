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
const STRIDE_COLUMNS = 10;
const STRIDE_ROWS = 6;
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

interface Block {
  column: number;
  row: number;
}

/** A pattern, or a coarser one, and the size of its blocks. */
interface Grid {
  columns: number;
  rows: number;
  cells: Int8Array;
  blockColumns: number;
  blockRows: number;
}

const BLOCKS: readonly Block[] = (() => {
  const blocks: Block[] = [];
  for (let row = 0; row + BLOCK_ROWS <= FLANK_ROWS; row += STRIDE_ROWS)
    for (let column = 0; column + BLOCK_COLUMNS <= FLANK_COLUMNS; column += STRIDE_COLUMNS)
      blocks.push({ column, row });
  return blocks;
})();
const HALF_BLOCKS: readonly Block[] = BLOCKS.map(({ column, row }) => ({
  column: column / HALF,
  row: row / HALF,
}));

function gridOf(flank: FlankDescriptor, by: number): Grid {
  return {
    columns: FLANK_COLUMNS / by,
    rows: FLANK_ROWS / by,
    cells: coarserFlank(flank, by),
    blockColumns: BLOCK_COLUMNS / by,
    blockRows: BLOCK_ROWS / by,
  };
}

/** Compares two flanks block by block: first where the whole fits best, then each block near to that. */
export function compareFlanks(a: FlankDescriptor, b: FlankDescriptor): FlankMatch | null {
  const [halfA, halfB] = [gridOf(a, HALF), gridOf(b, HALF)];
  const fitAt = (dx: number, dy: number): number | null => {
    let [sum, energy, count] = [0, 0, 0];
    for (const block of HALF_BLOCKS) {
      const fit = correlate(halfA, halfB, block, dx, dy);
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
  let [sum, energy, count] = [0, 0, 0];
  const places: { from: [number, number]; to: [number, number]; alike: number }[] = [];
  for (const block of BLOCKS) {
    let best: (Fit & { dx: number; dy: number }) | null = null;
    for (let dy = -LOCAL_SHIFT[1]; dy <= LOCAL_SHIFT[1]; dy++) {
      for (let dx = -LOCAL_SHIFT[0]; dx <= LOCAL_SHIFT[0]; dx++) {
        const fit = correlate(fineA, fineB, block, whole.dx + dx, whole.dy + dy);
        if (fit && (!best || fit.both / fit.energy > best.both / best.energy))
          best = { ...fit, dx: whole.dx + dx, dy: whole.dy + dy };
      }
    }
    if (!best) continue;
    sum += best.both;
    energy += best.energy;
    count++;
    const middle: [number, number] = [block.column + BLOCK_COLUMNS / 2, block.row + BLOCK_ROWS / 2];
    places.push({
      from: middle,
      to: [middle[0] + best.dx, middle[1] + best.dy],
      alike: best.both / best.energy,
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

/** Correlation of one block of `a` with the block of `b` that lies (dx, dy) further; null when too little is known. */
function correlate(a: Grid, b: Grid, { column, row }: Block, dx: number, dy: number): Fit | null {
  const { columns, rows, blockColumns, blockRows } = a;
  if (column + dx < 0 || row + dy < 0 || column + dx + blockColumns > columns || row + dy + blockRows > rows)
    return null;
  let n = 0;
  let sa = 0;
  let sb = 0;
  let saa = 0;
  let sbb = 0;
  let sab = 0;
  for (let r = 0; r < blockRows; r++) {
    let i = (row + r) * columns + column;
    let j = (row + r + dy) * columns + column + dx;
    for (let c = 0; c < blockColumns; c++, i++, j++) {
      const p = a.cells[i] as number;
      const q = b.cells[j] as number;
      if (p === HIDDEN || q === HIDDEN) continue;
      n++;
      sa += p;
      sb += q;
      saa += p * p;
      sbb += q * q;
      sab += p * q;
    }
  }
  if (n < LEAST_KNOWN * blockColumns * blockRows) return null;
  const va = saa - (sa * sa) / n;
  const vb = sbb - (sb * sb) / n;
  return { both: sab - (sa * sb) / n, energy: Math.sqrt(va * vb) + n * FLOOR };
}
