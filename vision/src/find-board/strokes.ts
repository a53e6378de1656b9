import type { Tones } from './tones.ts';

/** A thin straight mark, px of the searched picture: from its upper to its lower end. */
export interface Stroke {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  lengthPx: number;
}

/** Least second difference of log brightness (at ±2 px) of a mark. */
const LEAST_RIDGE = 0.1;
const LEAST_ROWS = 8;
const MOST_MISSING_ROWS = 1;
/** A mark's centres may lie this far off its line on average, px. */
const MOST_OFF_PX = 0.55;

interface Chain {
  count: number;
  firstRow: number;
  lastRow: number;
  sumX: number;
  sumY: number;
  sumXY: number;
  sumYY: number;
  sumXX: number;
  lastX: number;
}

/**
 * Finds thin marks that run more or less from top to bottom (up to 45° off).
 * Each row's ridges (dark or light by `inkDarker`) are linked from row to row along the straight line that they
 * have made so far.
 */
export function findStrokes(smooth: Tones, inkDarker: boolean): Stroke[] {
  const { widthPx, heightPx, data } = smooth;
  const sign = inkDarker ? 1 : -1;
  const strokes: Stroke[] = [];
  let open: Chain[] = [];
  for (let row = 2; row < heightPx - 2; row++) {
    const at = row * widthPx;
    const next: Chain[] = [];
    let first = 0;
    let here = ridgeAt(data, at + 2, sign);
    let right = ridgeAt(data, at + 3, sign);
    for (let x = 3; x < widthPx - 3; x++) {
      const left = here;
      here = right;
      right = ridgeAt(data, at + x + 1, sign);
      if (here < LEAST_RIDGE || here < left || here <= right) continue;
      const centre = x + (0.5 * (left - right)) / (left - 2 * here + right);
      // Chains are kept in the order of their places, so those far to the left are done with.
      while (first < open.length && open[first].lastX < centre - 6) first++;
      let nearest: Chain | null = null;
      let nearestPx = Infinity;
      for (let c = first; c < open.length; c++) {
        const chain = open[c];
        if (chain.lastX > centre + 6) break;
        if (chain.lastRow === row) continue;
        const off = Math.abs(centre - expectedX(chain, row));
        const allowed = chain.count < 4 ? 1.25 * (row - chain.lastRow) : 0.9;
        if (off < allowed && off < nearestPx) [nearest, nearestPx] = [chain, off];
      }
      const chain: Chain = nearest ?? {
        count: 0, firstRow: row, lastRow: row, sumX: 0, sumY: 0, sumXY: 0, sumYY: 0, sumXX: 0, lastX: centre,
      }; // prettier-ignore
      addTo(chain, centre, row);
      next.push(chain);
    }
    const kept: Chain[] = [];
    for (const chain of open) {
      if (chain.lastRow === row) continue;
      if (row - chain.lastRow <= MOST_MISSING_ROWS) kept.push(chain);
      else close(chain, strokes);
    }
    open = mergeByPlace(next, kept);
  }
  for (const chain of open) close(chain, strokes);
  return strokes;
}

function ridgeAt(data: Float32Array, i: number, sign: number): number {
  return sign * (data[i - 2] + data[i + 2] - 2 * data[i]);
}

function addTo(chain: Chain, x: number, row: number): void {
  const y = row - chain.firstRow;
  chain.count++;
  chain.lastRow = row;
  chain.lastX = x;
  chain.sumX += x;
  chain.sumY += y;
  chain.sumXY += x * y;
  chain.sumYY += y * y;
  chain.sumXX += x * x;
}

function slopeOf(chain: Chain): number {
  const spread = chain.count * chain.sumYY - chain.sumY * chain.sumY;
  return spread > 0 ? (chain.count * chain.sumXY - chain.sumX * chain.sumY) / spread : 0;
}

function expectedX(chain: Chain, row: number): number {
  if (chain.count < 4) return chain.lastX;
  const slope = slopeOf(chain);
  return chain.sumX / chain.count + slope * (row - chain.firstRow - chain.sumY / chain.count);
}

function close(chain: Chain, strokes: Stroke[]): void {
  const rows = chain.lastRow - chain.firstRow + 1;
  if (rows < LEAST_ROWS || chain.count < 0.7 * rows) return;
  const slope = slopeOf(chain);
  if (Math.abs(slope) > 1) return;
  const meanX = chain.sumX / chain.count;
  const meanY = chain.sumY / chain.count;
  const variance =
    chain.sumXX / chain.count - meanX * meanX - slope * (chain.sumXY / chain.count - meanX * meanY);
  if (variance > MOST_OFF_PX * MOST_OFF_PX) return;
  const last = chain.lastRow - chain.firstRow;
  strokes.push({
    x0: meanX - slope * meanY,
    y0: chain.firstRow,
    x1: meanX + slope * (last - meanY),
    y1: chain.lastRow,
    lengthPx: last * Math.hypot(1, slope),
  });
}

function mergeByPlace(a: Chain[], b: Chain[]): Chain[] {
  const out: Chain[] = [];
  let i = 0;
  let j = 0;
  while (i < a.length || j < b.length) {
    const fromA = j >= b.length || (i < a.length && a[i].lastX <= b[j].lastX);
    out.push(fromA ? a[i++] : b[j++]);
  }
  return out;
}
