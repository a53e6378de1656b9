import type { LensPose } from '../camera/lens.ts';
import type { Lattice } from './heights.ts';
import type { Pattern } from './pattern.ts';
import type { MarkedPlane } from './boardPlane.ts';
import type { Tones } from './tones.ts';

/** A pose at which much of the pattern is seen where it should be. */
export interface Placement {
  pose: LensPose;
  /** Seen share of the pattern less what is seen where nothing is printed; 1 at best. */
  score: number;
}

const CELL_MM = 2;
/** Second difference of log brightness that counts as a full line. */
const FULL_RIDGE = 0.45;
/** Beyond the ends and edges this much must be free of marks. */
const OUTSIDE_LINES = 4;
const OUTSIDE_MM = 8;

/**
 * Lays the pattern onto a plane's lattice: which of its lines is the first, and where the far edge lies.
 * The board's two-dimensional pattern is correlated with the ridges seen at the lattice's places.
 */
export function placePattern(
  smooth: Tones,
  plane: MarkedPlane,
  lattice: Lattice,
  pattern: Pattern,
  most: number,
): Placement[] {
  const { heightMm, phase } = lattice;
  const step = pattern.stepMm;
  const across = [...plane.marks.flatMap((mark) => [mark.v0, mark.v1])].sort((a, b) => a - b);
  const along = plane.marks.map((mark) => mark.u).sort((a, b) => a - b);
  const at = (sorted: readonly number[], share: number): number =>
    sorted[Math.floor(share * (sorted.length - 1))];
  // Marks far off (a tilted ground to the horizon) are no board's.
  const middleAcross = at(across, 0.5) * heightMm;
  const middleAlong = at(along, 0.5) * heightMm;
  const farMm = Math.max(
    at(across, 0.02) * heightMm - 0.4 * pattern.widthMm,
    middleAcross - 2 * pattern.widthMm,
  );
  const nearMm = Math.min(
    at(across, 0.98) * heightMm + 0.4 * pattern.widthMm,
    middleAcross + 2 * pattern.widthMm,
  );
  const spare = OUTSIDE_LINES + 8;
  const lowest = Math.max(at(along, 0.01) * heightMm, middleAlong - 1.1 * pattern.lengthMm);
  const highest = Math.min(at(along, 0.99) * heightMm, middleAlong + 1.1 * pattern.lengthMm);
  const first = Math.floor(lowest / step) - spare;
  const last = Math.ceil(highest / step) + spare;
  const columns = last - first + 1;
  const rows = Math.ceil((nearMm - farMm) / CELL_MM);
  const lineCount = Math.round(pattern.lengthMm / step) + 1;
  if (rows < 4 || columns < 4) return [];
  const sums = ridgeSums(smooth, plane, heightMm, {
    xMm: (column) => (column + first + phase) * step,
    yMm: (row) => farMm + (row + 0.5) * CELL_MM,
    columns,
    rows,
    pattern,
  });
  const weights = kindWeights(pattern);
  const kindAt = new Int8Array(lineCount).fill(-1);
  for (const line of pattern.lines) kindAt[Math.round(line.xMm / step)] = line.kind;
  const wanted = weights.reduce(
    (sum, kind, i) => sum + kind.drawnCells * pattern.lines.filter((line) => line.kind === i).length,
    0,
  );
  const widthCells = pattern.widthMm / CELL_MM;
  const outside = weights.length;
  const perColumn = new Float32Array((weights.length + 1) * columns);
  const found: { score: number; shift: number; row: number }[] = [];
  const lowestShift = -Math.floor(lineCount * 0.5);
  const highestShift = columns - Math.ceil(lineCount * 0.5);
  const scores = new Float64Array(Math.max(0, highestShift - lowestShift + 1));
  for (const row of likelyRows(sums, columns, rows, pattern)) {
    for (let column = 0; column < columns; column++) {
      for (let i = 0; i < weights.length; i++) {
        let sum = 0;
        for (const { from, to, weight } of weights[i].bands)
          sum += weight * between(sums, rows, column, row + from, row + to);
        perColumn[i * columns + column] = sum;
      }
      perColumn[outside * columns + column] = -between(sums, rows, column, row, row + widthCells);
    }
    scores.fill(0);
    // Line by line: one after the other, scores of neighbouring shifts are quicker to add to.
    for (let i = -OUTSIDE_LINES; i < lineCount + OUTSIDE_LINES; i++) {
      const kind = i < 0 || i >= lineCount ? outside : kindAt[i];
      if (kind < 0) continue;
      const to = Math.min(highestShift, columns - 1 - i);
      for (let shift = Math.max(lowestShift, -i); shift <= to; shift++)
        scores[shift - lowestShift] = scores[shift - lowestShift] + perColumn[kind * columns + shift + i];
    }
    for (let shift = lowestShift; shift <= highestShift; shift++)
      keep(found, { score: scores[shift - lowestShift] / wanted, shift, row }, most);
  }
  return found.map(({ score, shift, row }) => {
    const xMm = (shift + first + phase) * step;
    const yMm = farMm + row * CELL_MM;
    return { score, pose: poseAt(plane, heightMm, xMm, yMm) };
  });
}

const ROWS_TRIED = 7;

/**
 * Where across the plane the far edge may lie, best first: how much is seen across all columns, correlated with how
 * much the whole pattern draws there. Each place comes with its neighbours.
 */
function likelyRows(sums: Float32Array, columns: number, rows: number, pattern: Pattern): number[] {
  const seen = new Float64Array(rows);
  for (let column = 0; column < columns; column++) {
    const at = column * (rows + 1);
    for (let row = 0; row < rows; row++) seen[row] = seen[row] + sums[at + row + 1] - sums[at + row];
  }
  const width = Math.round(pattern.widthMm / CELL_MM);
  const margin = Math.round(OUTSIDE_MM / CELL_MM);
  const drawn = new Float64Array(width + 2 * margin);
  for (const line of pattern.lines)
    for (const [from, to] of line.spansMm)
      for (let cell = Math.round(from / CELL_MM); cell < Math.round(to / CELL_MM); cell++)
        drawn[cell + margin] = drawn[cell + margin] + 1;
  const mean = drawn.reduce((sum, value) => sum + value, 0) / drawn.length;
  const scored: { row: number; score: number }[] = [];
  for (let row = -Math.floor(0.3 * width); row < rows - 0.5 * width; row++) {
    let score = 0;
    for (let i = 0; i < drawn.length; i++) {
      const at = row + i - margin;
      if (at >= 0 && at < rows) score += (drawn[i] - mean) * seen[at];
    }
    scored.push({ row, score });
  }
  scored.sort((a, b) => b.score - a.score);
  const chosen: number[] = [];
  for (const { row } of scored) {
    if (chosen.some((other) => Math.abs(other - row) <= 3)) continue;
    chosen.push(row);
    if (chosen.length === ROWS_TRIED) break;
  }
  return chosen.flatMap((row) => [row - 2, row - 1, row, row + 1, row + 2]);
}

/** The best of each neighbourhood, best first. */
function keep(
  found: { score: number; shift: number; row: number }[],
  next: { score: number; shift: number; row: number },
  most: number,
): void {
  if (found.length >= most && next.score <= (found[found.length - 1]?.score ?? 0)) return;
  const near = found.findIndex((item) => item.shift === next.shift && Math.abs(item.row - next.row) <= 4);
  if (near >= 0) {
    if (found[near].score >= next.score) return;
    found.splice(near, 1);
  }
  const place = found.findIndex((item) => item.score < next.score);
  found.splice(place < 0 ? found.length : place, 0, next);
  if (found.length > most) found.pop();
}

function poseAt(plane: MarkedPlane, heightMm: number, xMm: number, yMm: number): LensPose {
  const r = plane.rotation;
  return {
    rotation: r,
    zeroMm: [
      r[0] * xMm + r[1] * yMm + r[2] * heightMm,
      r[3] * xMm + r[4] * yMm + r[5] * heightMm,
      r[6] * xMm + r[7] * yMm + r[8] * heightMm,
    ],
    ...plane.lens,
  };
}

interface Band {
  from: number;
  to: number;
  weight: number;
}

interface KindWeight {
  bands: Band[];
  drawnCells: number;
}

/** For each kind of line: + where it is drawn, − in the gaps (numerals left out) and beyond the edges; in cells. */
function kindWeights(pattern: Pattern): KindWeight[] {
  const edge = OUTSIDE_MM / CELL_MM;
  const width = pattern.widthMm / CELL_MM;
  return pattern.kinds.map((spans) => {
    const drawn = spans.map(([from, to]) => ({ from: from / CELL_MM, to: to / CELL_MM, weight: 1 }));
    const gaps: Band[] = [];
    let reached = 0;
    for (const band of [...drawn].sort((a, b) => a.from - b.from)) {
      if (band.from > reached) gaps.push({ from: reached, to: band.from, weight: -1 });
      reached = Math.max(reached, band.to);
    }
    if (reached < width) gaps.push({ from: reached, to: width, weight: -1 });
    const free = gaps.flatMap((gap) => withoutNumerals(gap, pattern));
    return {
      bands: [
        ...drawn,
        ...free.map((band) => ({ ...band, weight: -0.5 })),
        { from: -edge, to: -0.5, weight: -1 },
        { from: width + 0.5, to: width + edge, weight: -1 },
      ],
      drawnCells: drawn.reduce((sum, band) => sum + band.to - band.from, 0),
    };
  });
}

function withoutNumerals(gap: Band, pattern: Pattern): Band[] {
  let parts = [gap];
  for (const [fromMm, toMm] of pattern.numeralBandsMm) {
    const from = fromMm / CELL_MM;
    const to = toMm / CELL_MM;
    parts = parts.flatMap((part) =>
      [
        { ...part, to: Math.min(part.to, from) },
        { ...part, from: Math.max(part.from, to) },
      ].filter((piece) => piece.to > piece.from),
    );
  }
  return parts;
}

/** Sum of seen cells of a column between two places in cells, which may be fractions. */
function between(sums: Float32Array, rows: number, column: number, from: number, to: number): number {
  return sumUpTo(sums, rows, column, to) - sumUpTo(sums, rows, column, from);
}

function sumUpTo(sums: Float32Array, rows: number, column: number, cell: number): number {
  const at = column * (rows + 1);
  if (cell <= 0) return 0;
  if (cell >= rows) return sums[at + rows];
  const whole = cell | 0;
  const low = sums[at + whole];
  return low + (cell - whole) * (sums[at + whole + 1] - low);
}

interface Sampling {
  xMm: (column: number) => number;
  yMm: (row: number) => number;
  columns: number;
  rows: number;
  pattern: Pattern;
}

/** How much of a line is seen at each lattice place, summed from the far edge on. */
function ridgeSums(smooth: Tones, plane: MarkedPlane, heightMm: number, sampling: Sampling): Float32Array {
  const { columns, rows, pattern } = sampling;
  const r = plane.rotation;
  const { focalPx, k1, centrePx } = plane.lens;
  const { widthPx, heightPx, data } = smooth;
  const sign = pattern.inkDarker ? 1 : -1;
  const strokeMm = Math.max(...pattern.lines.map((line) => line.strokeMm));
  const sums = new Float32Array(columns * (rows + 1));
  for (let column = 0; column < columns; column++) {
    const x = sampling.xMm(column);
    let sum = 0;
    for (let row = 0; row < rows; row++) {
      const y = sampling.yMm(row);
      const depth = r[6] * x + r[7] * y + r[8] * heightMm;
      const nx = (r[0] * x + r[1] * y + r[2] * heightMm) / depth;
      const ny = (r[3] * x + r[4] * y + r[5] * heightMm) / depth;
      const bend = focalPx * (1 + k1 * (nx * nx + ny * ny));
      const px = Math.round(centrePx[0] + bend * nx);
      const py = Math.round(centrePx[1] + bend * ny);
      const reach = Math.max(2, Math.min(9, Math.round((0.5 * strokeMm * focalPx) / depth + 1)));
      if (py >= 0 && py < heightPx && px > reach && px < widthPx - reach - 1) {
        const i = py * widthPx + px;
        let best = 0;
        for (let d = -1; d <= 1; d++) {
          const ridge = sign * (data[i + d - reach] + data[i + d + reach] - 2 * data[i + d]);
          if (ridge > best) best = ridge;
        }
        sum += best > FULL_RIDGE ? 1 : best / FULL_RIDGE;
      }
      sums[column * (rows + 1) + row + 1] = sum;
    }
  }
  return sums;
}
