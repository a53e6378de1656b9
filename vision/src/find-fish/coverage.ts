import type { Pattern } from '../find-board/pattern.ts';
import type { FaceView } from './faceView.ts';
import type { LineEvidence } from './lineEvidence.ts';
import type { BareView } from './printedInk.ts';
import { columnMiddle, columnsTo, rowMiddle } from '../grid/planeGrid.ts';
import { lumaOf } from '../image/luma.ts';

/** What the empty board would look like, and how far each cell is from that. */
export interface Coverage {
  /** Evidence (log odds) that something lies on the board here; under 0 it is board. */
  odds: Float32Array;
  /** Seeds that are surely board. */
  board: Uint8Array;
  /** Local colour of the bare face, three values a cell (0-255). */
  face: Float32Array;
  /** Brightness of the face where it is lit best, 0-255. */
  brightest: number;
}

const FLOOR = 6;
const LOG = Float32Array.from({ length: 256 * 16 + 1 }, (_, i) => Math.log(i / 16 + FLOOR));

function logOf(value: number): number {
  return LOG[(value * 16) | 0];
}

/**
 * Compares each cell of the face with what the bare board would show there.
 * Where printed lines are seen in their places it is board: these seeds give the face's local colour and its spread.
 * Elsewhere a cell is as likely covered as its chroma, and its brightness (generously towards the dark: shadow), lie
 * beyond that spread.
 */
export function coverageOf(view: BareView, evidence: LineEvidence, pattern: Pattern): Coverage {
  const { columns, rows } = view;
  const count = columns * rows;
  const lines = lineField(view, evidence, pattern);
  const board = new Uint8Array(count);
  for (let i = 0; i < count; i++) board[i] = lines[i] > 0.62 && view.inPhoto[i] && view.bare[i] > 0 ? 1 : 0;
  const light = new Float32Array(count);
  const warm = new Float32Array(count);
  const cool = new Float32Array(count);
  for (let i = 0; i < count; i++) {
    const red = logOf(view.rgb[i * 3]);
    const green = logOf(view.rgb[i * 3 + 1]);
    const blue = logOf(view.rgb[i * 3 + 2]);
    light[i] = lumaOf(red, green, blue);
    warm[i] = red - green;
    cool[i] = blue - green;
  }
  const model = faceModel(view, board, light, warm, cool);
  const odds = new Float32Array(count);
  const face = new Float32Array(count * 3);
  for (let i = 0; i < count; i++) {
    const l = model.light[i];
    const own = light[i];
    const dl = own - l;
    const bare = Math.min(own, l);
    const bareWarm = warmthAt(model, i, bare);
    const bareCool = coolnessAt(model, i, bare);
    const ownLevel = Math.exp(own);
    const level = Math.exp(l);
    // Noise of a px weighs more in the dark, on a log scale.
    const noise = 2.5 / ownLevel;
    const spread = Math.hypot(model.chromaSpread, noise);
    // Brighter than the face by a mirrored sky or sun: white is added, and the chroma goes with it.
    const glare = dl > 0 ? ownLevel - level : 0;
    let [wantedWarm, wantedCool] = [bareWarm, bareCool];
    if (glare > 0) {
      const green = greenOf(bare, bareWarm, bareCool);
      const whitened = Math.exp(green) + glare;
      wantedWarm = Math.log((Math.exp(green + bareWarm) + glare) / whitened);
      wantedCool = Math.log((Math.exp(green + bareCool) + glare) / whitened);
    }
    const dw = (warm[i] - wantedWarm) / spread;
    const dc = (cool[i] - wantedCool) / (1.4 * spread);
    const bright = dl > 0 ? dl / Math.hypot(2 * model.lightSpread, 14 / level) : 0;
    const dark = darkness(-dl, DEEPEST_SHADE - (model.brightest - l));
    let colour = Math.sqrt(dw * dw + dc * dc + bright * bright + dark * dark);
    if (dl > 0 && own < model.brightest + LIT_SLACK) {
      // Beside a hard shadow the sunlit face is brighter than what is smoothed over both.
      const lw = (warm[i] - warmthAt(model, i, own)) / spread;
      const lc = (cool[i] - coolnessAt(model, i, own)) / (1.4 * spread);
      colour = Math.min(colour, Math.sqrt(lw * lw + lc * lc));
    }
    // A darker shade may be shadow or a dull tail: there the lines decide.
    let value = Math.max(dl < -0.25 ? -0.8 : -2.5, Math.min(5, 1.1 * (colour - 3.2)));
    // What is under ink is not told by the bare colour next to it, but by whether the ink is there.
    if (view.bare[i] === 0) value = 0;
    const inked = view.inkLight[i];
    if (!Number.isNaN(inked))
      value += inkOdds(((pattern.inkDarker ? 1 : -1) * (l - inked)) / pattern.inkContrast);
    const line = lines[i];
    if (line >= 0) value += line > 0.62 ? -4 * line : line < 0.3 ? 2.2 * (1 - line / 0.3) : 0;
    odds[i] = value;
    const [plainWarm, plainCool] = [warmthAt(model, i, l), coolnessAt(model, i, l)];
    const plainGreen = greenOf(l, plainWarm, plainCool);
    face[i * 3] = Math.exp(plainGreen + plainWarm) - FLOOR;
    face[i * 3 + 1] = Math.exp(plainGreen) - FLOOR;
    face[i * 3 + 2] = Math.exp(plainGreen + plainCool) - FLOOR;
  }
  return { odds, board, face, brightest: Math.exp(model.brightest) - FLOOR };
}

/** Odds of being covered by the share of the ink's contrast that is seen where there should be ink. */
function inkOdds(share: number): number {
  return share > 0.5 ? -2 : share < 0.25 ? 1.5 : 0;
}

/** How far over the face's usual best light a cell may be and still be face, in logs. */
const LIT_SLACK = 0.1;

/** A shadow takes up to about so much off the log of an 8-bit value. */
const DEEPEST_SHADE = 0.7;

/**
 * How far a darker shade speaks for something on the board: little as long as it may be shadow.
 * @param room what a shadow could still take away here: in shade there is not much left
 */
function darkness(below: number, room: number): number {
  const from = 0.25;
  if (below <= from) return 0;
  const end = Math.min(DEEPEST_SHADE, Math.max(from + 0.05, room));
  return below < end ? (below - from) / 0.45 : (end - from) / 0.45 + (below - end) / 0.15;
}

/** The bare face's chroma (red over green, in logs) at a cell under a given log brightness. */
function warmthAt({ warmLine, warmOff }: FaceModel, i: number, light: number): number {
  return warmLine.offset + warmLine.slope * light + warmOff[i];
}

/** The same of blue over green. */
function coolnessAt({ coolLine, coolOff }: FaceModel, i: number, light: number): number {
  return coolLine.offset + coolLine.slope * light + coolOff[i];
}

/** Log of green (0-255 plus the floor): light = 0.3 red + 0.6 green + 0.1 blue in logs. */
function greenOf(light: number, warm: number, cool: number): number {
  return light - 0.3 * warm - 0.1 * cool;
}

/** How much the printed lines to both sides of a cell are seen, 0 to 1; −1 where none is near. */
function lineField(view: FaceView, evidence: LineEvidence, pattern: Pattern): Float32Array {
  const field = new Float32Array(view.columns * view.rows).fill(-1);
  const mostMm = 0.6 * Math.max(pattern.stepMm, 8);
  for (let row = 0; row < view.rows; row++) {
    const yMm = rowMiddle(view, row);
    if (yMm < 0 || yMm >= pattern.widthMm) continue;
    const e = Math.min(evidence.rows - 1, Math.floor(yMm / evidence.rowMm));
    let before: { xMm: number; seen: number } | null = null;
    pattern.lines.forEach((line, index) => {
      const seen = seenAround(evidence, index, e);
      if (seen < 0) return;
      if (before && line.xMm - before.xMm < 4.5 * pattern.stepMm) {
        const gap = line.xMm - before.xMm;
        const from = Math.ceil(columnsTo(view, before.xMm) - 0.5);
        const to = Math.floor(columnsTo(view, line.xMm) - 0.5);
        for (let column = Math.max(0, from); column <= Math.min(view.columns - 1, to); column++) {
          const xMm = columnMiddle(view, column);
          const fromBefore = xMm - before.xMm;
          const nearest = Math.min(fromBefore, gap - fromBefore);
          const ofNearest = fromBefore < gap / 2 ? before.seen : seen;
          // Neighbours that agree tell of all that lies between them, if that is not far; else each tells of its side.
          const agree = Math.min(before.seen, seen) > 0.62 || Math.max(before.seen, seen) < 0.3;
          const bothHidden = Math.max(before.seen, seen) < 0.3;
          const told =
            agree && (gap <= 2 * mostMm || bothHidden) ? nearest + 1 : Math.min(mostMm * 0.5, gap * 0.3);
          const value = nearest <= told ? ofNearest : -1;
          if (value >= 0) field[row * view.columns + column] = value;
        }
      }
      before = { xMm: line.xMm, seen };
    });
  }
  return field;
}

/** Median over three rows of the evidence, so that a drop on a line is forgiven. */
function seenAround({ rows, seen }: LineEvidence, line: number, row: number): number {
  const here = seen[line * rows + row];
  if (here < 0) return -1;
  const above = row > 0 ? seen[line * rows + row - 1] : -1;
  const below = row + 1 < rows ? seen[line * rows + row + 1] : -1;
  if (above < 0 || below < 0) return here;
  return Math.max(Math.min(here, above), Math.min(Math.max(here, above), below));
}

interface Line {
  slope: number;
  offset: number;
}

interface FaceModel {
  light: Float32Array;
  warmOff: Float32Array;
  coolOff: Float32Array;
  warmLine: Line;
  coolLine: Line;
  chromaSpread: number;
  lightSpread: number;
  /** Log brightness of the face where it is lit best. */
  brightest: number;
}

/** The bare face's colour at every cell from the seeds: chroma as a line over brightness (shade is bluer), both smoothed widely. */
function faceModel(
  view: FaceView,
  board: Uint8Array,
  light: Float32Array,
  warm: Float32Array,
  cool: Float32Array,
): FaceModel {
  const seeds: number[] = [];
  for (let i = 0; i < board.length; i += 3) if (board[i]) seeds.push(i);
  const warmLine = robustLine(seeds, light, warm);
  const coolLine = robustLine(seeds, light, cool);
  const count = board.length;
  const warmLeft = new Float32Array(count);
  const coolLeft = new Float32Array(count);
  for (let i = 0; i < count; i++) {
    warmLeft[i] = warm[i] - (warmLine.offset + warmLine.slope * light[i]);
    coolLeft[i] = cool[i] - (coolLine.offset + coolLine.slope * light[i]);
  }
  const lightField = spreadSeeds(view, board, light);
  const warmOff = spreadSeeds(view, board, warmLeft);
  const coolOff = spreadSeeds(view, board, coolLeft);
  const chromaSpread = spreadOf(seeds, (i) => warmLeft[i] - warmOff[i], 0.012);
  const lightSpread = spreadOf(seeds, (i) => light[i] - lightField[i], 0.05);
  const lit = Float64Array.from(seeds, (i) => lightField[i]).sort();
  const brightest = lit[Math.floor(0.9 * (lit.length - 1))] ?? 0;
  return {
    light: lightField, warmOff, coolOff, warmLine, coolLine, chromaSpread, lightSpread, brightest,
  }; // prettier-ignore
}

/** Robust standard deviation: 1.48 times the median of the absolute values (at least `least`). */
function spreadOf(seeds: readonly number[], valueAt: (i: number) => number, least: number): number {
  if (seeds.length === 0) return least;
  // Typed: sorted by number, and several times as fast.
  const sizes = Float64Array.from(seeds, (i) => Math.abs(valueAt(i))).sort();
  return Math.max(least, 1.4826 * sizes[sizes.length >> 1]);
}

function robustLine(seeds: readonly number[], x: Float32Array, y: Float32Array): Line {
  let slope = 0;
  let offset = 0;
  let scale = Infinity;
  for (let round = 0; round < 4; round++) {
    let [w, sx, sy, sxx, sxy] = [0, 0, 0, 0, 0];
    for (const i of seeds) {
      const u = x[i];
      const v = y[i];
      const r = (v - offset - slope * u) / scale;
      const weight = scale === Infinity ? 1 : 1 / (1 + r * r);
      w += weight;
      sx += weight * u;
      sy += weight * v;
      sxx += weight * u * u;
      sxy += weight * u * v;
    }
    if (w === 0) break;
    // A little ridge keeps the slope near 0 where all is equally bright.
    const variance = sxx / w - (sx / w) ** 2 + 0.01;
    slope = (sxy / w - (sx / w) * (sy / w)) / variance;
    offset = sy / w - slope * (sx / w);
    scale = 2 * spreadOf(seeds, (i) => y[i] - offset - slope * x[i], 0.01);
  }
  return { slope, offset };
}

/** Seeds smoothed widely, the same everywhere where there are none: a pyramid of normalised means. */
function spreadSeeds(view: FaceView, board: Uint8Array, values: Float32Array): Float32Array {
  const { columns, rows } = view;
  const size = Math.max(1, Math.round(4 * view.cellsPerMm));
  const c = Math.ceil(columns / size);
  const r = Math.ceil(rows / size);
  let sum: Float32Array = new Float32Array(c * r);
  let weight: Float32Array = new Float32Array(c * r);
  let [total, totalWeight] = [0, 0];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const i = row * columns + column;
      if (!board[i]) continue;
      const at = Math.floor(row / size) * c + Math.floor(column / size);
      sum[at] = sum[at] + values[i];
      weight[at] = weight[at] + 1;
      total += values[i];
      totalWeight++;
    }
  }
  const mean = totalWeight ? total / totalWeight : 0;
  // Fine where seeds are dense, wide where they are rare.
  const out = new Float32Array(c * r).fill(mean);
  const done = new Float32Array(c * r);
  for (const reach of [1, 3, 8, 20]) {
    sum = boxSum(sum, c, r, reach);
    weight = boxSum(weight, c, r, reach);
    for (let i = 0; i < out.length; i++) {
      const trust = Math.min(1, weight[i] / (size * size * 3 * (2 * reach + 1)));
      const share = trust * (1 - done[i]);
      if (share <= 0 || weight[i] === 0) continue;
      out[i] = out[i] * (1 - share) + share * (sum[i] / weight[i]);
      done[i] = done[i] + share;
    }
  }
  const field = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    const v = Math.min(r - 1.001, Math.max(0, (row + 0.5) / size - 0.5));
    for (let column = 0; column < columns; column++) {
      const u = Math.min(c - 1.001, Math.max(0, (column + 0.5) / size - 0.5));
      const [c0, r0] = [u | 0, v | 0];
      const [fu, fv] = [u - c0, v - r0];
      const at = r0 * c + c0;
      field[row * columns + column] =
        (1 - fv) * ((1 - fu) * out[at] + fu * out[at + 1]) +
        fv * ((1 - fu) * out[at + c] + fu * out[at + c + 1]);
    }
  }
  return field;
}

function boxSum(values: Float32Array, columns: number, rows: number, reach: number): Float32Array {
  const across = new Float32Array(values.length);
  const out = new Float32Array(values.length);
  for (let row = 0; row < rows; row++) {
    let sum = 0;
    for (let k = 0; k < Math.min(reach, columns); k++) sum += values[row * columns + k];
    for (let column = 0; column < columns; column++) {
      if (column + reach < columns) sum += values[row * columns + column + reach];
      if (column - reach - 1 >= 0) sum -= values[row * columns + column - reach - 1];
      across[row * columns + column] = sum;
    }
  }
  for (let column = 0; column < columns; column++) {
    let sum = 0;
    for (let k = 0; k < Math.min(reach, rows); k++) sum += across[k * columns + column];
    for (let row = 0; row < rows; row++) {
      if (row + reach < rows) sum += across[(row + reach) * columns + column];
      if (row - reach - 1 >= 0) sum -= across[(row - reach - 1) * columns + column];
      out[row * columns + column] = sum;
    }
  }
  return out;
}
