import type { LensPose } from '../camera/lens.ts';
import type { Raster } from '../image/raster.ts';
import { SummedArea } from '../image/summedArea.ts';
import { viewCode, type CardView } from './cardView.ts';
import { cellAt, columnMiddle, rowMiddle } from '../grid/planeGrid.ts';

/** Something that looks like the card's code: dark and light mixed, with white about it. Board coordinates, mm. */
export interface CodeCandidate {
  xMm: number;
  yMm: number;
  /** Share of the ring about the code that is white and even, 0 to 1. */
  whiteShare: number;
  /** How strongly dark and light differ within it, over the white's brightness. */
  contrast: number;
  /** How finely dark and light are mixed, both ways: about 0.5 to 1 for a code. */
  grain: number;
  /** The picture ends within the card about it. */
  isCut: boolean;
}

/** The code itself is some 31 mm square; beyond its quiet zone the card is white up to 27 mm from its middle. */
const INSIDE_MM = 13;
const RING_MM = [22.5, 25.5] as const;
const RING_PLACES = 28;
/** A mix of dark and light differs by at least this share of its mean, and by at most this share of the white. */
const LEAST_MIX = 0.1;
const MOST_CONTRAST = 0.32;
/** Brightness of the mix over the white's. */
const MIX_MEAN = [0.3, 0.93] as const;
/** White that differs by more than this share of its brightness is not even. */
const EVEN = 0.08;
const LEAST_WHITE = 0.33;
const MOST_CHROMA = 0.3;
const MOST_LOOKED_AT = 14;
const MOST_CANDIDATES = 4;
/** A code changes between dark and light at each module, some 1.1 mm, along and across. */
const GRAIN_MM = 1.1;
const FULL_GRAIN = 0.55;
const LEAST_COARSE_GRAIN = 0.4;

/**
 * Places where a code may lie, likeliest first.
 * @param isBare whether a place (mm) is known to be bare board: its lines and numerals are dark and light too
 */
export function findCodes(
  photo: Raster,
  pose: LensPose,
  view: CardView,
  isBare: (xMm: number, yMm: number) => boolean,
): CodeCandidate[] {
  const { columns, rows, cellsPerMm, luma } = view;
  const area = (valueAt: (cell: number) => number): SummedArea => new SummedArea(columns, rows, valueAt);
  const lumaOf = (cell: number): number => luma[cell];
  const means = area(lumaOf);
  const squares = area((cell) => lumaOf(cell) ** 2);
  const along = area((cell) => Math.abs(lumaOf(cell) - (luma[cell + 1] ?? lumaOf(cell))));
  const across = area((cell) => Math.abs(lumaOf(cell) - (luma[cell + columns] ?? lumaOf(cell))));
  const reach = Math.round(INSIDE_MM * cellsPerMm * 0.9);
  const ring = RING_MM.flatMap((radiusMm) =>
    Array.from({ length: RING_PLACES }, (_, i): readonly [number, number] => {
      const turn = (2 * Math.PI * i) / RING_PLACES;
      const round = (value: number): number => Math.round(radiusMm * cellsPerMm * value);
      return [round(Math.cos(turn)), round(Math.sin(turn))];
    }),
  );
  const spokes = ring.filter((_, i) => i < RING_PLACES && i % 3 === 0);
  const found: (Omit<CodeCandidate, 'grain' | 'isCut'> & { score: number })[] = [];
  for (let row = reach; row < rows - reach; row += 2) {
    for (let column = reach; column < columns - reach; column += 2) {
      const mean = means.meanAround(column, row, reach);
      const spread = Math.sqrt(Math.max(0, squares.meanAround(column, row, reach) - mean * mean));
      if (spread < LEAST_MIX * mean || mean < 12) continue;
      const coarseGrain =
        Math.min(along.meanAround(column, row, reach), across.meanAround(column, row, reach)) / spread;
      // Most places are dropped here, or after a few looks.
      if (coarseGrain < LEAST_COARSE_GRAIN) continue;
      let lighter = 0;
      for (const [dx, dy] of spokes) if (lumaAt(view, column + dx, row + dy) > 1.06 * mean) lighter++;
      if (lighter < 0.4 * spokes.length) continue;
      const whiteShare = evenShare(view, ring, column, row, mean);
      if (!whiteShare) continue;
      const contrast = spread / whiteShare.white;
      const mix = mean / whiteShare.white;
      if (contrast > MOST_CONTRAST || mix < MIX_MEAN[0] || mix > MIX_MEAN[1]) continue;
      const xMm = columnMiddle(view, column);
      const yMm = rowMiddle(view, row);
      if (isBare(xMm, yMm)) continue;
      found.push({
        xMm,
        yMm,
        whiteShare: whiteShare.share,
        contrast,
        score: whiteShare.share * Math.min(1, coarseGrain / FULL_GRAIN),
      });
    }
  }
  found.sort((a, b) => b.score - a.score);
  const apart: typeof found = [];
  for (const one of found) {
    if (apart.some((other) => Math.hypot(other.xMm - one.xMm, other.yMm - one.yMm) < 24)) continue;
    apart.push(one);
    if (apart.length === MOST_LOOKED_AT) break;
  }
  return apart
    .map((one) => ({ ...one, grain: grainAt(photo, pose, one) }))
    .map((one) => ({ ...one, score: one.whiteShare * Math.min(1, one.grain / FULL_GRAIN) }))
    .sort((a, b) => b.score - a.score)
    .slice(0, MOST_CANDIDATES)
    .map(({ xMm, yMm, whiteShare, contrast, grain }) => ({
      xMm,
      yMm,
      whiteShare,
      contrast,
      grain,
      isCut: !isWholeAround(view, xMm, yMm),
    }));
}

/** Whether the picture shows everything within a code's ring. */
function isWholeAround(view: CardView, xMm: number, yMm: number): boolean {
  return [0, 1, 2, 3].every((quarter) => {
    const turn = (quarter * Math.PI) / 2;
    const at = cellAt(view, xMm + RING_MM[1] * Math.cos(turn), yMm + RING_MM[1] * Math.sin(turn));
    return view.inPhoto[at] === 1;
  });
}

/** Mean step between places a module apart over the spread of all, the lesser of both directions. */
function grainAt(photo: Raster, pose: LensPose, { xMm, yMm }: { xMm: number; yMm: number }): number {
  const close = viewCode(photo, pose, [xMm, yMm], 28, 2 / GRAIN_MM);
  const { widthPx, heightPx, data } = close;
  const lag = 2;
  let [sum, squares, along, across, count] = [0, 0, 0, 0, 0];
  for (let row = 0; row + lag < heightPx; row++) {
    for (let column = 0; column + lag < widthPx; column++) {
      const at = (row * widthPx + column) * 4 + 1;
      const here = data[at];
      sum += here;
      squares += here * here;
      along += Math.abs(here - data[at + 4 * lag]);
      across += Math.abs(here - data[at + 4 * lag * widthPx]);
      count++;
    }
  }
  const spread = Math.sqrt(Math.max(1, squares / count - (sum / count) ** 2));
  return Math.min(along, across) / count / spread;
}

function lumaAt(view: CardView, column: number, row: number): number {
  if (column < 0 || row < 0 || column >= view.columns || row >= view.rows) return 0;
  return view.luma[row * view.columns + column];
}

/** Places of a ring; thousands of rings are looked at a picture. */
const LIT = new Float64Array(RING_MM.length * RING_PLACES);

/** Brightness of the white about a place, and the share of the ring that is of it; null where there is none. */
function evenShare(
  view: CardView,
  ring: readonly (readonly [number, number])[],
  column: number,
  row: number,
  mean: number,
): { white: number; share: number } | null {
  let count = 0;
  for (const [dx, dy] of ring) {
    const x = column + dx;
    const y = row + dy;
    if (x < 0 || y < 0 || x >= view.columns || y >= view.rows) continue;
    const at = y * view.columns + x;
    if (view.inPhoto[at] && view.chroma[at] < MOST_CHROMA) LIT[count++] = view.luma[at];
  }
  if (count < LEAST_WHITE * ring.length) return null;
  const lit = LIT.subarray(0, count).sort();
  // White is what most of the ring is: letters, and what lies on the card, take some of it.
  const white = lit[Math.floor(0.65 * lit.length)];
  if (white < 1.06 * mean) return null;
  let even = 0;
  for (const value of lit) if (Math.abs(value - white) < EVEN * white) even++;
  const share = even / ring.length;
  return share < LEAST_WHITE ? null : { white, share };
}
