import { projectBoardPoint, type LensPose } from '../camera/lens.ts';
import { crossingsAt, glyphOf, textWidthMm } from '../board/lettering.ts';
import { numeralStepMm, slipStepMm, type Pattern } from './pattern.ts';
import { toneAt, type Tones } from './tones.ts';

/** Which shift and which way round the numerals speak for. */
export interface NumeralVote {
  /** By how many slips (`slipStepMm`) the fitted pattern must move for its zero to be the board's. */
  shift: number;
  turned: boolean;
  /** Sum over the cells of how much better the numeral there fits than others would, and upright than turned. */
  support: number;
  /** In how many cells something is seen at all. */
  cells: number;
}

const PX_PER_MM = 1;
const GAP_MM = 1.5;
/** A cell with less contrast than this says nothing. */
const LEAST_DEVIATION = 0.08;
const OFFSETS_PX = [-1, 0, 1];
/** A fit may lie so far off across the scale, px of the patches either way: the lines say little about that. */
const MOST_ACROSS_PX = 4;
const ACROSS_PX = [0, -2, 2, -4, 4];

interface Stamp {
  widthPx: number;
  heightPx: number;
  /** Zero mean, unit norm. */
  data: Float32Array;
}

/**
 * Correlates every numeral's cell with every numeral in a plain font (normalised cross-correlation) and sums over
 * all shifts and both turns. Which way round also follows from how well the cells resemble any numeral at all.
 * @param reach shifts up to this many slips are tried
 */
export function voteByNumerals(
  smooth: Tones,
  pose: LensPose,
  pattern: Pattern,
  reach: number,
): NumeralVote[] {
  const { board } = pattern;
  const { stamps, widthMm, heightMm, unitMm } = stampsOf(pattern);
  const slipMm = slipStepMm(pattern);
  const slips = Math.round(unitMm / slipMm);
  const votes: NumeralVote[] = [];
  const likeNumerals = { upright: 0, turned: 0 };
  for (const turned of [false, true]) {
    const support = new Float64Array(2 * reach + 1);
    const cells = new Float64Array(2 * reach + 1);
    for (const at of board.numerals.centresAt) {
      const patches = Array.from({ length: slips * (stamps.length - 1) + 2 * reach + 1 }, (_, i) => {
        const rightMm = (slips - reach + i) * slipMm - GAP_MM;
        const cell = { rightMm, centreMm: at * pattern.widthMm, widthMm, heightMm };
        return samplePatch(smooth, pose, pattern, cell, turned, stamps[0], MOST_ACROSS_PX);
      });
      const across = likeliestAcross(patches, stamps);
      for (const [i, patch] of patches.entries()) {
        const fits = patch && patchFits(patch, stamps, OFFSETS_PX, across);
        if (!fits) continue;
        const cell = slips - reach + i;
        const mean = fits.reduce((sum, fit) => sum + fit, 0) / fits.length;
        likeNumerals[turned ? 'turned' : 'upright'] += Math.max(0, mean);
        for (let shift = -reach; shift <= reach; shift++) {
          const fit = (cell - shift) % slips === 0 ? fits[(cell - shift) / slips - 1] : undefined;
          if (fit === undefined) continue;
          support[shift + reach] = support[shift + reach] + fit - mean;
          cells[shift + reach] = cells[shift + reach] + 1;
        }
      }
    }
    support.forEach((sum, i) => votes.push({ shift: i - reach, turned, support: sum, cells: cells[i] }));
  }
  const upright = (likeNumerals.upright - likeNumerals.turned) / 2;
  return votes.map((vote) => ({ ...vote, support: vote.support + (vote.turned ? -upright : upright) }));
}

function stampsOf(pattern: Pattern): { stamps: Stamp[]; widthMm: number; heightMm: number; unitMm: number } {
  const { every, heightMm } = pattern.board.numerals;
  const unitMm = numeralStepMm(pattern);
  const count = Math.floor(pattern.lengthMm / unitMm + 1e-6);
  const longest = numeralText(count * every);
  const widthMm = Math.min(textWidthMm(longest, heightMm) * 1.05, unitMm - GAP_MM) + 1;
  const stamps = Array.from({ length: count }, (_, i) =>
    stampOf(numeralText((i + 1) * every), widthMm, heightMm, unitMm, pattern.inkDarker),
  );
  return { stamps, widthMm, heightMm, unitMm };
}

/** How well each numeral is seen in its place (correlation with a plain font, −1 to 1); null outside of the picture. */
export function numeralsSeen(smooth: Tones, pose: LensPose, pattern: Pattern): (number | null)[][] {
  const { stamps, widthMm, heightMm, unitMm } = stampsOf(pattern);
  return stamps.map((stamp, i) =>
    pattern.board.numerals.centresAt.map((at) => {
      const cell = { rightMm: (i + 1) * unitMm - GAP_MM, centreMm: at * pattern.widthMm, widthMm, heightMm };
      const patch = samplePatch(smooth, pose, pattern, cell, false, stamp, 0);
      return (patch && patchFits(patch, [stamp], OFFSETS_PX, 0)?.[0]) ?? null;
    }),
  );
}

export function numeralText(value: number): string {
  return String(Math.round(value * 100) / 100);
}

interface Cell {
  rightMm: number;
  centreMm: number;
  widthMm: number;
  heightMm: number;
}

/** What is seen about a numeral's place, with room to look for it beside. */
interface Patch {
  columns: number;
  /** Room above and below, px. */
  acrossPx: number;
  tones: Float32Array;
}

const PAD = OFFSETS_PX.length >> 1;

/** Null where the numeral's own place lies outside of the picture. */
function samplePatch(
  smooth: Tones,
  pose: LensPose,
  pattern: Pattern,
  cell: Cell,
  turned: boolean,
  { widthPx, heightPx }: Stamp,
  acrossPx: number,
): Patch | null {
  const columns = widthPx + 2 * PAD;
  const rows = heightPx + 2 * acrossPx;
  const tones = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    const isOwn = row >= acrossPx && row < rows - acrossPx;
    for (let column = 0; column < columns; column++) {
      let xMm = cell.rightMm - cell.widthMm + 0.5 + (column - PAD + 0.5) / PX_PER_MM;
      let yMm = cell.centreMm + (row + 0.5 - rows / 2) / PX_PER_MM;
      if (turned) [xMm, yMm] = [pattern.lengthMm - xMm, pattern.widthMm - yMm];
      const [x, y] = projectBoardPoint(pose, xMm, yMm);
      if (isOwn && (x < 1 || y < 1 || x > smooth.widthPx - 2 || y > smooth.heightPx - 2)) return null;
      tones[row * columns + column] = toneAt(smooth, x, y);
    }
  }
  return { columns, acrossPx, tones };
}

/** By how many px the row of numerals lies off across the scale: where its cells resemble numerals most. */
function likeliestAcross(patches: readonly (Patch | null)[], stamps: readonly Stamp[]): number {
  // Every other cell tells as well: the row lies off as a whole.
  const asked = patches.filter((_, i) => i % 2 === 0);
  const likeness = (px: number): number =>
    asked.reduce((sum, patch) => {
      const fits = patch && patchFits(patch, stamps, [0], px);
      return fits ? sum + Math.max(...fits) : sum;
    }, 0);
  const best = (of: readonly number[]): number => {
    const found = of.map((px) => ({ px, like: likeness(px) }));
    return found.reduce((a, b) => (b.like > a.like ? b : a)).px;
  };
  const coarse = best(ACROSS_PX);
  return best([coarse, coarse - 1, coarse + 1].filter((px) => Math.abs(px) <= MOST_ACROSS_PX));
}

/** How well each stamp fits, at the best of some places along; null where too little is to be seen. */
function patchFits(
  { columns, acrossPx, tones }: Patch,
  stamps: readonly Stamp[],
  offsetsPx: readonly number[],
  across: number,
): number[] | null {
  const { widthPx, heightPx } = stamps[0];
  const fits = new Array<number>(stamps.length).fill(-1);
  let deepest = 0;
  for (const dx of offsetsPx) {
    const first = (acrossPx + across) * columns + PAD + dx;
    let sum = 0;
    let squares = 0;
    for (let row = 0; row < heightPx; row++) {
      for (let column = 0, at = first + row * columns; column < widthPx; column++, at++) {
        const tone = tones[at];
        sum += tone;
        squares += tone * tone;
      }
    }
    const count = widthPx * heightPx;
    const spread = squares - (sum * sum) / count;
    deepest = Math.max(deepest, spread / count);
    if (spread <= 1e-6) continue;
    const norm = 1 / Math.sqrt(spread);
    for (let i = 0; i < stamps.length; i++) {
      const { data } = stamps[i];
      let product = 0;
      for (let row = 0, k = 0; row < heightPx; row++)
        for (let column = 0, at = first + row * columns; column < widthPx; column++, at++, k++)
          product += tones[at] * data[k];
      fits[i] = Math.max(fits[i], product * norm);
    }
  }
  return Math.sqrt(Math.max(0, deepest)) < LEAST_DEVIATION ? null : fits;
}

function stampOf(text: string, widthMm: number, heightMm: number, unitMm: number, inkDarker: boolean): Stamp {
  const fine = 4;
  const widthPx = Math.ceil(widthMm * PX_PER_MM);
  const heightPx = Math.ceil((heightMm + 3) * PX_PER_MM);
  const cover = new Float32Array(widthPx * heightPx);
  const natural = textWidthMm(text, heightMm);
  const narrow = Math.min(1, (unitMm - GAP_MM) / natural);
  let penMm = widthMm - 0.5 - natural * narrow;
  const baseMm = (heightPx / PX_PER_MM + heightMm) / 2;
  for (const letter of text) {
    const glyph = glyphOf(letter);
    const outline = glyph.contours.map((contour) =>
      contour.map((value, i) =>
        i % 2 === 0
          ? (penMm + value * heightMm * narrow) * PX_PER_MM
          : (baseMm - value * heightMm) * PX_PER_MM,
      ),
    );
    for (let line = 0; line < heightPx * fine; line++) {
      const crossings = crossingsAt(outline, (line + 0.5) / fine);
      for (let i = 0; i + 1 < crossings.length; i += 2)
        fillRun(cover, widthPx, line / fine, crossings[i], crossings[i + 1], 1 / fine);
    }
    penMm += glyph.advance * heightMm * narrow;
  }
  const blurred = blur(cover, widthPx, heightPx);
  const mean = blurred.reduce((sum, value) => sum + value, 0) / blurred.length;
  const norm = Math.sqrt(blurred.reduce((sum, value) => sum + (value - mean) ** 2, 0)) || 1;
  const sign = inkDarker ? -1 : 1;
  return { widthPx, heightPx, data: blurred.map((value) => (sign * (value - mean)) / norm) };
}

function fillRun(
  cover: Float32Array,
  widthPx: number,
  y: number,
  from: number,
  to: number,
  share: number,
): void {
  const row = Math.floor(y) * widthPx;
  for (let column = Math.max(0, Math.floor(from)); column < Math.min(widthPx, Math.ceil(to)); column++) {
    const part = Math.min(to, column + 1) - Math.max(from, column);
    cover[row + column] = cover[row + column] + part * share;
  }
}

/** (1 2 1)/4 both ways: about the blur of a phone's picture at this scale. */
function blur(cover: Float32Array, widthPx: number, heightPx: number): Float32Array {
  const at = (data: Float32Array, x: number, y: number): number =>
    x < 0 || y < 0 || x >= widthPx || y >= heightPx ? 0 : data[y * widthPx + x];
  const across = cover.map((value, i) => {
    const x = i % widthPx;
    const y = (i - x) / widthPx;
    return (at(cover, x - 1, y) + 2 * value + at(cover, x + 1, y)) / 4;
  });
  return across.map((value, i) => {
    const x = i % widthPx;
    const y = (i - x) / widthPx;
    return (at(across, x, y - 1) + 2 * value + at(across, x, y + 1)) / 4;
  });
}
