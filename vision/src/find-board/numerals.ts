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
    const cellsOf = (at: number, acrossPx: number, offsetsPx: readonly number[]) =>
      Array.from({ length: slips * (stamps.length - 1) + 2 * reach + 1 }, (_, i) => {
        const cell = slips - reach + i;
        const rightMm = cell * slipMm - GAP_MM;
        const centreMm = at * pattern.widthMm + acrossPx / PX_PER_MM;
        return { cell, fits: cellFits(smooth, pose, pattern, { rightMm, centreMm, widthMm, heightMm }, turned, stamps, offsetsPx) }; // prettier-ignore
      });
    const support = new Float64Array(2 * reach + 1);
    const cells = new Float64Array(2 * reach + 1);
    for (const at of board.numerals.centresAt) {
      let [across, most] = [0, -Infinity];
      for (let px = -MOST_ACROSS_PX; px <= MOST_ACROSS_PX; px++) {
        const sum = cellsOf(at, px, [0]).reduce(
          (total, { fits }) => total + (fits ? Math.max(...fits) : 0),
          0,
        );
        if (sum > most) [across, most] = [px, sum];
      }
      for (const { cell, fits } of cellsOf(at, across, OFFSETS_PX)) {
        if (!fits) continue;
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
      return cellFits(smooth, pose, pattern, cell, false, [stamp])?.[0] ?? null;
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

function cellFits(
  smooth: Tones,
  pose: LensPose,
  pattern: Pattern,
  cell: Cell,
  turned: boolean,
  stamps: readonly Stamp[],
  offsetsPx: readonly number[] = OFFSETS_PX,
): number[] | null {
  const pad = offsetsPx.length >> 1;
  const columns = stamps[0].widthPx + 2 * pad;
  const rows = stamps[0].heightPx + 2 * pad;
  const patch = new Float32Array(columns * rows);
  let sum = 0;
  let squares = 0;
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      let xMm = cell.rightMm - cell.widthMm + 0.5 + (column - pad + 0.5) / PX_PER_MM;
      let yMm = cell.centreMm + (row + 0.5 - rows / 2) / PX_PER_MM;
      if (turned) [xMm, yMm] = [pattern.lengthMm - xMm, pattern.widthMm - yMm];
      const [x, y] = projectBoardPoint(pose, xMm, yMm);
      if (x < 1 || y < 1 || x > smooth.widthPx - 2 || y > smooth.heightPx - 2) return null;
      const tone = toneAt(smooth, x, y);
      patch[row * columns + column] = tone;
      sum += tone;
      squares += tone * tone;
    }
  }
  const n = columns * rows;
  const deviation = Math.sqrt(Math.max(0, squares / n - (sum / n) ** 2));
  if (deviation < LEAST_DEVIATION) return null;
  return stamps.map((stamp) => {
    let best = -1;
    for (const dx of offsetsPx) best = Math.max(best, correlation(patch, columns, dx + pad, pad, stamp));
    return best;
  });
}

function correlation(patch: Float32Array, columns: number, dx: number, dy: number, stamp: Stamp): number {
  let product = 0;
  let sum = 0;
  let squares = 0;
  let i = 0;
  for (let row = 0; row < stamp.heightPx; row++) {
    let at = (row + dy) * columns + dx;
    for (let column = 0; column < stamp.widthPx; column++, at++, i++) {
      const tone = patch[at];
      product += tone * stamp.data[i];
      sum += tone;
      squares += tone * tone;
    }
  }
  const spread = squares - (sum * sum) / i;
  return spread > 1e-6 ? product / Math.sqrt(spread) : 0;
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
