import type { Pattern } from '../find-board/pattern.ts';
import type { LensPose } from '../camera/lens.ts';
import type { Raster } from '../image/raster.ts';
import { viewFace, type FaceView } from './faceView.ts';
import { BARE, INK, INK_EDGE } from './printedInk.ts';
import {
  columnAt,
  columnMiddle,
  columnStart,
  columnsTo,
  rowAt,
  rowMiddle,
  rowsTo,
} from '../grid/planeGrid.ts';
import { lumaOf } from '../image/luma.ts';

/** The fish's far end, seen closely. */
export interface TailTip {
  xMm: number;
  yMm: number;
  /** How far the edge scatters about the tip, mm. */
  scatterMm: number;
  /** Distance of the tail's colour from the board's over the noise there. */
  contrast: number;
  inNumeral: boolean;
  /** Width of the printed line (with its blurred edges) that the tip lies at, mm; 0 where there is none. */
  blindMm: number;
  /** The tail differs from the board by its shade alone. */
  likeShadow: boolean;
  /** The tail's edge row by row, mm. */
  edge: readonly (readonly [number, number])[];
}

const CELLS_PER_MM = 4;
/** How much a darker shade of the board's own colour counts: it may be shadow. */
const SHADE_WEIGHT = 0.15;
/** How much better light than the smoothed face's counts. */
const LIT_WEIGHT = 0.1;
/** How much white added to the board's colour counts: it may be glare. */
const GLARE_WEIGHT = 0.45;
/** How much of the light comes from the fin at what is called its edge: fins thin out towards it. */
const EDGE_COVER = 0.35;
/** A tail hardly darker or lighter than the face differs by its hue: light and its 8-bit value go alike, 8-bit steps. */
const LEAST_LUMA_STEP = 12;
/** Light goes as about this power of an 8-bit value (IEC 61966-2-1). */
const GAMMA = 2.2;
/** An edge farther than this from the coarse mask's is not the tail's. */
const NEAR_MASK_MM = 2.2;

export interface TailHint {
  /** Coarse edge: largest x of the mask, mm, for each row of `rowMm` from `fromYMm` on; NaN where the mask has none. */
  edgeMm: Float32Array;
  fromYMm: number;
  rowMm: number;
  tipMm: number;
  /** What a numeral prints at a place: BARE, INK_EDGE or INK. */
  printedAt: (xMm: number, yMm: number) => number;
  /** Brightness of the face where it is lit best, 0-255. */
  brightestFace: number;
}

/** The bare face's colour at a place, 0-255. */
export type FaceColourAt = (xMm: number, yMm: number) => readonly [number, number, number];

/**
 * Finds the far end at sub-pixel: for each row the place where the colour's distance from the bare board falls to
 * half of what it is inside; the farthest of these, smoothed over neighbouring rows.
 */
export function findTailTip(
  photo: Raster,
  pose: LensPose,
  pattern: Pattern,
  hint: TailHint,
  faceAt: FaceColourAt,
): TailTip | null {
  const window = {
    fromXMm: hint.tipMm - 34,
    toXMm: hint.tipMm + 14,
    fromYMm: Math.max(-4, hint.fromYMm - 6),
    toYMm: Math.min(pattern.widthMm + 4, hint.fromYMm + hint.edgeMm.length * hint.rowMm + 6),
    cellsPerMm: CELLS_PER_MM,
  };
  const view = viewFace(photo, pose, window);
  let away = distances(view, pattern, hint, faceAt, distance);
  let level = edgeLevel(view, away, hint, faceAt);
  const likeShadow = !level;
  if (!level) {
    // A tail in a shade of the board's own colour: all that is left is that it is darker.
    away = distances(view, pattern, hint, faceAt, plainDistance);
    level = edgeLevel(view, away, hint, faceAt);
  }
  if (!level) return null;
  const edges = withoutSpikes(rowEdges(view, away, hint, level.atLevel, seenLines(view, pattern)));
  const farthestTip = farthest(view, edges, hint);
  if (!farthestTip) return null;
  const clear = farthest(view, awayFromNumerals(view, edges, hint), hint);
  // Between where the tail is seen apart from numerals and where it seems to end in one, nobody knows.
  const doubtfulMm = clear ? Math.max(0, farthestTip.xMm - clear.xMm) : 0;
  const tip =
    doubtfulMm > MOST_IN_NUMERAL_MM ? { ...farthestTip, xMm: farthestTip.xMm - doubtfulMm / 2 } : farthestTip;
  const edge = edges.flatMap((at, row) => (at === null ? [] : [[at, rowMiddle(view, row)] as const]));
  const inNumeral = [0, 0.5, 1, 1.5].some((off) => hint.printedAt(tip.xMm + off, tip.yMm) !== BARE);
  const blindMm = Math.max(
    blindAt(pattern, tip.xMm, tip.yMm),
    doubtfulMm > MOST_IN_NUMERAL_MM ? doubtfulMm : 0,
  );
  return { ...tip, contrast: level.contrast, blindMm, inNumeral, likeShadow, edge };
}

/** A tail that ends by more than this farther out in a numeral than beside it may be the numeral itself, mm. */
const MOST_IN_NUMERAL_MM = 1.5;
const BESIDE_NUMERAL_MM = [-0.5, 0, 0.5, 1, 1.5];

function awayFromNumerals(
  view: FaceView,
  edges: readonly (number | null)[],
  { printedAt }: TailHint,
): (number | null)[] {
  return edges.map((edge, row) => {
    const yMm = rowMiddle(view, row);
    return edge !== null && BESIDE_NUMERAL_MM.every((off) => printedAt(edge + off, yMm) === BARE)
      ? edge
      : null;
  });
}

/** A line is seen in a row when it is this deep, as a share of the ink's own depth, in most rows about it. */
const SEEN_DEPTH = 0.5;
const SEEN_ROWS = 6;
const SEEN_SHARE = 0.7;
/** The face beside a line is looked at this far beyond its edge, mm. */
const BESIDE_LINE_MM = 1.2;

interface BareLine {
  xMm: number;
  /** Half its stroke and its blur, mm. */
  outerMm: number;
  /** 1 for each row in which it lies bare. */
  bare: Uint8Array;
}

/** Colours on both sides of a line that differ by less are of one and the same thing, 8-bit steps. */
const SAME_COLOUR = 14;

/** Whether what ends at a line goes on behind it: then it is face, in another light than was thought. */
function goesOnBeyond(view: FaceView, row: number, edgeMm: number, beyondMm: number): boolean {
  const meanOf = (fromMm: number, toMm: number): [number, number, number] | null => {
    const sum: [number, number, number] = [0, 0, 0];
    let count = 0;
    for (let xMm = fromMm; xMm <= toMm; xMm += 1 / view.cellsPerMm) {
      const column = columnAt(view, xMm);
      const i = row * view.columns + column;
      if (column < 0 || column >= view.columns || !view.inPhoto[i]) return null;
      for (const channel of [0, 1, 2] as const) sum[channel] += view.rgb[3 * i + channel];
      count++;
    }
    return [sum[0] / count, sum[1] / count, sum[2] / count];
  };
  const inside = meanOf(edgeMm - 3.5, edgeMm - 1);
  const outside = meanOf(beyondMm + 0.5, beyondMm + 3);
  return inside !== null && outside !== null && plainDistance(inside, outside) < SAME_COLOUR;
}

/** The printed lines about the tail, and in which rows each lies bare. */
function seenLines(view: FaceView, pattern: Pattern): BareLine[] {
  const { columns, rows, fromXMm } = view;
  const logAt = (row: number, xMm: number): number | null => {
    const column = columnAt(view, xMm);
    const i = row * columns + column;
    if (column < 0 || column >= columns || !view.inPhoto[i]) return null;
    return Math.log(lumaOfColour(colourOf(view, i)) + 6);
  };
  const sign = pattern.inkDarker ? 1 : -1;
  return pattern.lines
    .filter(({ xMm }) => xMm > fromXMm && xMm < columnStart(view, columns))
    .map(({ xMm, strokeMm, spansMm }) => {
      const deep = new Uint8Array(rows);
      for (let row = 0; row < rows; row++) {
        const yMm = rowMiddle(view, row);
        if (!spansMm.some(([from, to]) => yMm > from && yMm < to)) continue;
        const middle = logAt(row, xMm);
        const before = logAt(row, xMm - strokeMm / 2 - BESIDE_LINE_MM);
        const after = logAt(row, xMm + strokeMm / 2 + BESIDE_LINE_MM);
        if (middle === null || before === null || after === null) continue;
        const depth = Math.min(sign * (before - middle), sign * (after - middle)) / pattern.inkContrast;
        deep[row] = depth > SEEN_DEPTH ? 1 : 0;
      }
      const bare = new Uint8Array(rows);
      for (let row = SEEN_ROWS; row + SEEN_ROWS < rows; row++) {
        let count = 0;
        for (let near = row - SEEN_ROWS; near <= row + SEEN_ROWS; near++) count += deep[near];
        if (count >= SEEN_SHARE * (2 * SEEN_ROWS + 1)) bare[row] = 1;
      }
      return { xMm, outerMm: strokeMm / 2 + 0.5, bare };
    });
}

/** Within the blurred edges of a printed line nobody sees where a tail ends. */
function blindAt(pattern: Pattern, xMm: number, yMm: number): number {
  const line = pattern.lines.find(
    (one) =>
      Math.abs(xMm - one.xMm) < one.strokeMm / 2 + 1 &&
      one.spansMm.some(([from, to]) => yMm > from && yMm < to),
  );
  return line ? line.strokeMm + 1.4 : 0;
}

/** Distance of each cell's colour from the board's, along which a shade counts little; across ink edges interpolated. */
function distances(
  view: FaceView,
  pattern: Pattern,
  hint: TailHint,
  faceAt: FaceColourAt,
  between: (
    p: readonly [number, number, number],
    face: readonly [number, number, number],
    brightestFace: number,
  ) => number,
): Float32Array {
  const { columns, rows } = view;
  const away = new Float32Array(columns * rows);
  const known = new Uint8Array(columns * rows);
  const ink = inkZones(view, pattern);
  const tailShare = tailInkShare(view, pattern, hint, faceAt);
  for (let row = 0; row < rows; row++) {
    const yMm = rowMiddle(view, row);
    for (let column = 0; column < columns; column++) {
      const i = row * columns + column;
      if (!view.inPhoto[i]) continue;
      const xMm = columnMiddle(view, column);
      const zone = Math.max(ink[i], hint.printedAt(xMm, yMm));
      if (zone === INK_EDGE) continue;
      const [red, green, blue] = faceAt(xMm, yMm);
      const p = colourOf(view, i);
      if (zone === INK) {
        // Where ink is expected and seen it is board, unless the tail is as dark (or as light) as ink.
        if (tailShare !== null && Math.abs(tailShare - 1) < 0.35) continue;
        const share = inkShareOf(p, [red, green, blue], pattern);
        if (share < 0.6) continue;
        away[i] = 0;
        known[i] = 1;
        continue;
      }
      away[i] = between(p, [red, green, blue], hint.brightestFace);
      known[i] = 1;
    }
  }
  bridge(away, known, columns, rows);
  return medianOfNine(away, columns, rows);
}

/**
 * Distance of a colour from a bare face's, in 8-bit steps. Darker shades of it (shadow) and white on top of it (a
 * mirrored sky) count little.
 */
function distance(
  p: readonly [number, number, number],
  face: readonly [number, number, number],
  brightestFace: number,
): number {
  const size = face[0] * face[0] + face[1] * face[1] + face[2] * face[2];
  const shade = (p[0] * face[0] + p[1] * face[1] + p[2] * face[2]) / size;
  if (shade <= 1) {
    const perp = Math.hypot(p[0] - shade * face[0], p[1] - shade * face[1], p[2] - shade * face[2]);
    return Math.hypot(perp, shadeCount(shade) * Math.sqrt(size));
  }
  const luma = lumaOfColour(face);
  if (shade * luma < 1.08 * brightestFace) {
    // The same face in better light: next to a shadow's edge.
    const lit = Math.hypot(p[0] - shade * face[0], p[1] - shade * face[1], p[2] - shade * face[2]);
    return Math.min(lit + LIT_WEIGHT * (shade - 1) * Math.sqrt(size), overGlare(p, face));
  }
  return overGlare(p, face);
}

/** Distance from a face with white on top of it. */
function overGlare(p: readonly [number, number, number], face: readonly [number, number, number]): number {
  const [dr, dg, db] = [p[0] - face[0], p[1] - face[1], p[2] - face[2]];
  const white = Math.max(0, (dr + dg + db) / 3);
  return Math.hypot(dr - white, dg - white, db - white, GLARE_WEIGHT * white);
}

function plainDistance(
  p: readonly [number, number, number],
  face: readonly [number, number, number],
): number {
  return Math.hypot(p[0] - face[0], p[1] - face[1], p[2] - face[2]);
}

/** A shadow leaves half of an 8-bit value or more; what is darker than that is hardly shadow. */
function shadeCount(shade: number): number {
  return shade > 0.5 ? SHADE_WEIGHT * (1 - shade) : SHADE_WEIGHT * 0.5 + (0.5 - shade);
}

/** How far a colour is from the face towards the ink, 0 to 1, by log brightness. */
function inkShareOf(
  p: readonly [number, number, number],
  face: readonly [number, number, number],
  pattern: Pattern,
): number {
  const log = (c: readonly [number, number, number]): number => Math.log(lumaOfColour(c) + 6);
  return ((pattern.inkDarker ? 1 : -1) * (log(face) - log(p))) / pattern.inkContrast;
}

/** The same for the tail's usual colour; null when too little of it is seen. */
function tailInkShare(view: FaceView, pattern: Pattern, hint: TailHint, faceAt: FaceColourAt): number | null {
  const shares: number[] = [];
  for (let row = 0; row < view.rows; row += 3) {
    const yMm = rowMiddle(view, row);
    const coarseMm = coarseEdge(hint, yMm);
    if (Number.isNaN(coarseMm)) continue;
    for (let column = 0; column < view.columns; column += 3) {
      const xMm = columnMiddle(view, column);
      if (xMm > coarseMm - 1 || xMm < coarseMm - 10) continue;
      shares.push(inkShareOf(colourOf(view, row * view.columns + column), faceAt(xMm, yMm), pattern));
    }
  }
  if (shares.length < 12) return null;
  return shares.sort((a, b) => a - b)[shares.length >> 1];
}

/** What lines print at each cell. */
function inkZones(view: FaceView, pattern: Pattern): Uint8Array {
  const zones = new Uint8Array(view.columns * view.rows);
  for (const line of pattern.lines) {
    const outer = line.strokeMm / 2 + 0.7;
    const core = line.strokeMm / 2 - 0.35;
    const left = Math.max(0, Math.ceil(columnsTo(view, line.xMm - outer) - 0.5));
    const right = Math.min(view.columns - 1, Math.floor(columnsTo(view, line.xMm + outer) - 0.5));
    if (right < 0 || left >= view.columns) continue;
    for (const [fromMm, toMm] of line.spansMm) {
      const top = Math.max(0, rowAt(view, fromMm - 0.6));
      const bottom = Math.min(view.rows - 1, Math.ceil(rowsTo(view, toMm + 0.6)));
      for (let row = top; row <= bottom; row++) {
        for (let column = left; column <= right; column++) {
          const off = Math.abs(columnMiddle(view, column) - line.xMm);
          zones[row * view.columns + column] = off < core ? INK : INK_EDGE;
        }
      }
    }
  }
  return zones;
}

/** Fills unknown cells from the nearest known ones of their row, in proportion. */
function bridge(values: Float32Array, known: Uint8Array, columns: number, rows: number): void {
  for (let row = 0; row < rows; row++) {
    let last = -1;
    for (let column = 0; column < columns; column++) {
      if (!known[row * columns + column]) continue;
      if (last >= 0 && column - last > 1) {
        const a = values[row * columns + last];
        const b = values[row * columns + column];
        for (let k = last + 1; k < column; k++)
          values[row * columns + k] = a + ((b - a) * (k - last)) / (column - last);
      }
      last = column;
    }
  }
}

/** Median over three by three cells: grain goes, edges stay where they are. */
function medianOfNine(values: Float32Array, columns: number, rows: number): Float32Array {
  const out = values.slice();
  const nine = new Float32Array(9);
  for (let row = 1; row + 1 < rows; row++) {
    for (let column = 1; column + 1 < columns; column++) {
      const at = row * columns + column;
      for (let k = 0; k < 9; k++) nine[k] = values[at + (Math.floor(k / 3) - 1) * columns + (k % 3) - 1];
      nine.sort();
      out[at] = nine[4];
    }
  }
  return out;
}

/** The distance from the bare board at which the tail begins: between the board's noise and the tail's own. */
function edgeLevel(
  view: FaceView,
  away: Float32Array,
  hint: TailHint,
  faceAt: FaceColourAt,
): { atLevel: number; contrast: number } | null {
  const inside: number[] = [];
  const outside: number[] = [];
  const tailLumas: number[] = [];
  const faceLumas: number[] = [];
  for (let row = 0; row < view.rows; row += 2) {
    const coarseMm = coarseEdge(hint, rowMiddle(view, row));
    if (Number.isNaN(coarseMm)) continue;
    for (let column = 0; column < view.columns; column += 2) {
      const xMm = columnMiddle(view, column);
      const off = xMm - coarseMm;
      const i = row * view.columns + column;
      if (off < -1 && off > -12) {
        inside.push(away[i]);
        if (off > -5) {
          tailLumas.push(lumaOfColour(colourOf(view, i))); // prettier-ignore
          faceLumas.push(lumaOfColour(faceAt(xMm, rowMiddle(view, row))));
        }
      } else if (off > 1.5 && off < 9) outside.push(away[row * view.columns + column]);
    }
  }
  if (inside.length < 20 || outside.length < 20) return null;
  const at = (values: number[], share: number): number =>
    values.sort((a, b) => a - b)[Math.floor(share * (values.length - 1))];
  const noise = at(outside, 0.5);
  const tail = at(inside, 0.5);
  if (tail < 1.5 * noise + 4) return null;
  const share = edgeShare(at(faceLumas, 0.5), at(tailLumas, 0.5));
  return { atLevel: noise + share * (tail - noise), contrast: tail / Math.max(1, at(outside, 0.75)) };
}

/**
 * At which share of the way from the face's 8-bit value to the tail's the fin gives its share of the light. On a dark
 * board a trace of a light fin already lifts the value far; on a light one a dark fin takes little away.
 */
function edgeShare(face: number, tail: number): number {
  if (Math.abs(tail - face) < LEAST_LUMA_STEP) return EDGE_COVER;
  const light = (1 - EDGE_COVER) * face ** GAMMA + EDGE_COVER * tail ** GAMMA;
  return (light ** (1 / GAMMA) - face) / (tail - face);
}

/** Colour of a cell of the view, 0-255. */
function colourOf({ rgb }: FaceView, cell: number): readonly [number, number, number] {
  return [rgb[3 * cell], rgb[3 * cell + 1], rgb[3 * cell + 2]];
}

const lumaOfColour = (c: readonly [number, number, number]): number => lumaOf(c[0], c[1], c[2]);

function rowEdges(
  view: FaceView,
  away: Float32Array,
  hint: TailHint,
  level: number,
  bareLines: readonly BareLine[],
): (number | null)[] {
  const { columns, rows } = view;
  const edges: (number | null)[] = [];
  for (let row = 0; row < rows; row++) {
    const coarseMm = coarseEdge(hint, rowMiddle(view, row));
    const edge = Number.isNaN(coarseMm)
      ? null
      : rowEdge(away.subarray(row * columns, (row + 1) * columns), view, coarseMm, level);
    const isFace =
      edge !== null &&
      bareLines.some(
        ({ bare, xMm, outerMm }) =>
          bare[row] === 1 &&
          // Inside of what seems to be tail, or the only thing that ends it.
          (edge > xMm + 1 || (edge > xMm - outerMm - 2 && goesOnBeyond(view, row, edge, xMm + outerMm))),
      );
    edges.push(isFace ? null : edge);
  }
  return edges;
}

/** The coarse edge at or next to a row. */
function coarseEdge({ edgeMm, fromYMm, rowMm }: TailHint, yMm: number): number {
  const at = Math.floor((yMm - fromYMm) / rowMm);
  let best = NaN;
  for (let i = at - 1; i <= at + 1; i++) {
    const edge = edgeMm[i];
    if (edge !== undefined && !Number.isNaN(edge)) best = Number.isNaN(best) ? edge : Math.max(best, edge);
  }
  return best;
}

/** A tail's edge, even a pointed lobe's, does not jump outwards by so much over the median of its neighbours, mm. */
const SPIKE_MM = 1.6;
const SPIKE_ROWS = 6;

function withoutSpikes(edges: readonly (number | null)[]): (number | null)[] {
  return edges.map((edge, row) => {
    if (edge === null) return null;
    const near = edges
      .slice(Math.max(0, row - SPIKE_ROWS), row + SPIKE_ROWS + 1)
      .filter((one) => one !== null)
      .sort((a, b) => a - b);
    return edge - near[near.length >> 1] > SPIKE_MM ? null : edge;
  });
}

function rowEdge(away: Float32Array, view: FaceView, coarseMm: number, level: number): number | null {
  const at = (xMm: number): number => Math.round(columnsTo(view, xMm) - 0.5);
  const start = Math.min(view.columns - 2, at(coarseMm + NEAR_MASK_MM));
  const end = Math.max(6, at(coarseMm - NEAR_MASK_MM));
  for (let column = start; column > end; column--) {
    const here = away[column];
    const next = away[column - 1];
    if (here >= level || next < level) continue;
    // It must stay inside for a millimetre, but for a light ray of the fin.
    let inside = 0;
    for (let k = 1; k <= 5; k++) if (away[column - k] >= level) inside++;
    if (inside < 4) continue;
    const share = (level - here) / (next - here || 1);
    return columnStart(view, column + 0.5 - share);
  }
  return null;
}

/** The farthest edge, as the last but one of five neighbouring rows. */
function farthest(
  view: FaceView,
  edges: readonly (number | null)[],
  hint: TailHint,
): Pick<TailTip, 'xMm' | 'yMm' | 'scatterMm'> | null {
  let best: Pick<TailTip, 'xMm' | 'yMm' | 'scatterMm'> | null = null;
  const reach = 2;
  for (let row = reach; row + reach < edges.length; row++) {
    const near = edges.slice(row - reach, row + reach + 1).filter((edge) => edge !== null);
    if (near.length < 4) continue;
    const places = [...near].sort((a, b) => a - b);
    const xMm = places[places.length - 2];
    if (best && xMm <= best.xMm) continue;
    const scatterMm = Math.sqrt(places.reduce((sum, x) => sum + (x - xMm) ** 2, 0) / places.length);
    best = { xMm, yMm: rowMiddle(view, row), scatterMm };
  }
  return best && best.xMm > hint.tipMm - 12 ? best : null;
}
