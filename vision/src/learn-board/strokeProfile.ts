import { projectBoardPoint } from '../camera/lens.ts';
import type { MeasuringBoard } from '../board/board.ts';
import { boardLines, faceLengthMm, mmPerUnit } from '../board/board.ts';
import { quantile } from './lineContrast.ts';
import { colourAt, lumaOf, medianColour, type Rgb, type SeenFace } from './seenFace.ts';

/** Brightness between px (bilinear), 0 to 255; null outside. */
function lumaAt({ photo, pose }: SeenFace, xMm: number, yMm: number): number | null {
  const [x, y] = projectBoardPoint(pose, xMm, yMm);
  const { widthPx, heightPx, data } = photo;
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  if (!(x0 >= 0 && y0 >= 0 && x0 < widthPx - 1 && y0 < heightPx - 1)) return null;
  const of = (column: number, row: number): number => {
    const at = (row * widthPx + column) * 4;
    return lumaOf([data[at], data[at + 1], data[at + 2]]);
  };
  const fx = x - x0;
  const fy = y - y0;
  const top = of(x0, y0) * (1 - fx) + of(x0 + 1, y0) * fx;
  return top * (1 - fy) + (of(x0, y0 + 1) * (1 - fx) + of(x0 + 1, y0 + 1) * fx) * fy;
}

const STROKE_STEP_MM = 0.125;
const WIDEST_STROKE_MM = 6;

/**
 * Brightness across all lines of one kind, laid over each other: a share of the face's own brightness beside them, so
 * that neither light nor a single scratch matters.
 */
export interface StrokeProfile {
  /** From −reach to +reach in steps of an eighth mm. */
  shares: readonly number[];
  strokeMm(inkShare: number): number;
  /** Of the darkest (lightest) place: ink alone where the stroke is broader than the blur. */
  extreme: number;
}

/** @param reachMm how far beside the lines nothing else is printed */
export function strokeProfile(
  face: SeenFace,
  widthMm: number,
  placesMm: readonly number[],
  spans: readonly (readonly number[])[],
  reachMm: number,
  inkDarker: boolean,
): StrokeProfile {
  const half = Math.round(Math.min(WIDEST_STROKE_MM / 2 + 1, reachMm) / STROKE_STEP_MM);
  const columns: number[][] = Array.from({ length: 2 * half + 1 }, () => []);
  for (const xMm of placesMm) {
    for (const [from = 0, to = 1] of spans) {
      const inset = Math.min(1.5, (0.25 * (to - from) * widthMm) / 2);
      for (let yMm = from * widthMm + inset; yMm <= to * widthMm - inset; yMm += 1.5) {
        const before = lumaAt(face, xMm - half * STROKE_STEP_MM, yMm);
        const after = lumaAt(face, xMm + half * STROKE_STEP_MM, yMm);
        if (before === null || after === null) continue;
        // A numeral beside the line would be taken for the face.
        const ground = inkDarker ? Math.max(before, after) : Math.min(before, after);
        columns.forEach((column, i) => {
          const luma = lumaAt(face, xMm + (i - half) * STROKE_STEP_MM, yMm);
          if (luma !== null) column.push(luma / Math.max(1, ground));
        });
      }
    }
  }
  const shares = columns.map((column) => quantile(column, 0.5));
  const extreme = inkDarker ? Math.min(...shares) : Math.max(...shares);
  return {
    shares,
    extreme,
    strokeMm(inkShare) {
      const covered = shares.reduce(
        (sum, share) => sum + Math.min(1.1, Math.max(0, (1 - share) / (1 - inkShare))),
        0,
      );
      return Math.min(WIDEST_STROKE_MM, Math.max(0.3, covered * STROKE_STEP_MM));
    },
  };
}

/** A numeral ends 1.5 mm to the left of its line: ink is looked for from just right of that, as far as its last digit. */
const NUMERAL_GAP_MM = 1.2;
const NUMERAL_REACH_MM = 13;
const NUMERAL_REACH_SHARE = 0.62;
const NUMERAL_STEPS = [1, 2, 5, 10];
const ROW_MM = 0.5;
const LEAST_NUMERAL_MM = 4;
/** Share of the numerals of a row that must show ink at a height. */
const LEAST_FILLED = 0.6;

/**
 * Where numerals may stand: beside every how many units' lines, how tall, and centred where across. Ink beside every
 * unit may be that of broad numerals beside every second one: which is right is told by reading them.
 */
export function numeralsOf(
  face: SeenFace,
  board: MeasuringBoard,
  inkShare: number,
): { every: number; heightMm: number; centresAt: number[] }[] {
  const candidates: { every: number; heightMm: number; centresAt: number[] }[] = [];
  const inkDarker = inkShare < 1;
  const unitMm = mmPerUnit(board);
  const rows = Math.floor(board.widthMm / ROW_MM);
  const lines = boardLines(board);
  const inkAt = (value: number, reachMm: number): boolean[] => {
    const lineMm = value * unitMm;
    const here = lines.find(({ xMm }) => Math.abs(xMm - lineMm) < 0.05);
    const rightMm = lineMm - Math.max(NUMERAL_GAP_MM, (here?.strokeMm ?? 0) / 2 + 0.5);
    const near = lines.filter(({ xMm }) => xMm > lineMm - reachMm - 3 && xMm <= lineMm);
    const flags: boolean[] = [];
    for (let row = 0; row < rows; row++) {
      const yMm = (row + 0.5) * ROW_MM;
      const lumas: number[] = [];
      for (let xMm = lineMm - reachMm; xMm < rightMm; xMm += 0.4) {
        const onLine = near.some(
          (line) =>
            Math.abs(line.xMm - xMm) < line.strokeMm / 2 + 0.6 &&
            line.spans.some(([from = 0, to = 1]) => yMm > from * board.widthMm - 1.5 && yMm < to * board.widthMm + 1.5), // prettier-ignore
        );
        const luma = onLine ? null : lumaAt(face, xMm, yMm);
        if (luma !== null) lumas.push(luma);
      }
      const ground = groundNear(face, lineMm, yMm, inkDarker);
      const mostInk = inkDarker ? Math.min(...lumas) : Math.max(...lumas);
      flags.push(
        lumas.length > 3 && ground !== null && (1 - mostInk / Math.max(1, ground)) / (1 - inkShare) > 0.45,
      );
    }
    return flags;
  };
  for (const every of NUMERAL_STEPS) {
    const values: number[] = [];
    for (let value = every; value <= board.scaleLength + 1e-6; value += every) values.push(value);
    if (values.length < 2) break;
    const reachMm = Math.min(NUMERAL_REACH_MM, NUMERAL_REACH_SHARE * every * unitMm);
    const inked = values.map((value) => inkAt(value, reachMm));
    const filled = Array.from(
      { length: rows },
      (_, row) => inked.filter((flags) => flags[row]).length / values.length,
    );
    const found = runsOver(filled, LEAST_FILLED)
      .map(([from, to]) => ({ centreMm: ((from + to) / 2) * ROW_MM, heightMm: (to - from) * ROW_MM }))
      .filter(({ heightMm }) => heightMm >= LEAST_NUMERAL_MM);
    if (found.length === 0) continue;
    const heights = found.map(({ heightMm }) => heightMm);
    candidates.push({
      every,
      heightMm: Number(quantile(heights, 0.5).toFixed(1)),
      centresAt: found.map(({ centreMm }) => Number((centreMm / board.widthMm).toFixed(3))),
    });
  }
  return candidates;
}

/** Brightness of the bare face just right of a line, where no numeral stands. */
function groundNear(face: SeenFace, lineMm: number, yMm: number, inkDarker: boolean): number | null {
  const lumas: number[] = [];
  for (let off = 1.5; off <= 9; off += 0.5) {
    for (const xMm of [lineMm + off, lineMm - off]) {
      const luma = lumaAt(face, xMm, yMm);
      if (luma !== null) lumas.push(luma);
    }
  }
  return lumas.length > 0 ? quantile(lumas, inkDarker ? 0.8 : 0.2) : null;
}

/** Runs of values over a level, their ends between places; single gaps are bridged. */
function runsOver(values: readonly number[], level: number): [number, number][] {
  const runs: [number, number][] = [];
  values.forEach((value, i) => {
    if (value < level) return;
    const last = runs.at(-1);
    if (last && i - last[1] <= 3) last[1] = i + 1;
    else runs.push([i, i + 1]);
  });
  return runs;
}

/** Colours as printed, as far as one photograph tells: the lighter of both is taken for a well-lit light grey. */
export function coloursOf(
  face: SeenFace,
  board: MeasuringBoard,
  inkShare: number,
): { face: string; ink: string; gain: number } {
  const lines = boardLines(board);
  const bare: Rgb[] = [];
  for (let xMm = 4; xMm < faceLengthMm(board); xMm += 7) {
    for (let share = 0.06; share < 1; share += 0.055) {
      if (lines.some((line) => Math.abs(line.xMm - xMm) < line.strokeMm / 2 + 0.8)) continue;
      const colour = colourAt(face, xMm, share * board.widthMm);
      if (colour) bare.push(colour);
    }
  }
  const middle = medianColour(bare); // prettier-ignore
  const printed: Rgb[] = [];
  for (const line of lines) {
    for (const [from = 0, to = 1] of line.spans) {
      const colour = colourAt(face, line.xMm, ((from + to) / 2) * board.widthMm);
      if (colour) printed.push(colour);
    }
  }
  const target = lumaOf(middle) * inkShare;
  printed.sort((a, b) => Math.abs(lumaOf(a) - target) - Math.abs(lumaOf(b) - target));
  const closest = printed.slice(0, Math.max(5, Math.floor(printed.length / 10)));
  const ink = medianColour(closest); // prettier-ignore
  // The ink's hue by its px, its brightness by all lines of the broadest kind.
  const brighter = target / Math.max(1, lumaOf(ink));
  const exact: Rgb = [ink[0] * brighter, ink[1] * brighter, ink[2] * brighter];
  const gain = Math.min(2.5, Math.max(0.8, LIGHT_LUMA / Math.max(lumaOf(middle), lumaOf(exact), 1)));
  return { face: hexOf(middle, gain), ink: hexOf(exact, gain), gain };
}

const LIGHT_LUMA = 222;

function hexOf(colour: Rgb, gain: number): string {
  const part = (value: number): string =>
    Math.round(Math.min(255, Math.max(0, value * gain)))
      .toString(16)
      .padStart(2, '0');
  return `#${colour.map(part).join('')}`;
}

const HIGHEST_UPRIGHT_MM = 120;
const LEAST_UPRIGHT_MM = 22;
const HIGHEST_BAND_MM = 20;
/** Two neighbouring stretches of an upright whose colours differ by less are one. */
const COLOUR_STEP = 22;

/** An upright plate as it is seen from above its foot: a guess of its height, its colour, and a band at its foot. */
export function uprightOf(
  face: SeenFace,
  along: 'stop' | 'wall',
  board: MeasuringBoard,
  gain: number,
): { heightMm: number; colour: string; band: string | null } | null {
  const lengthMm = faceLengthMm(board);
  const profile: Rgb[] = [];
  for (let zMm = 0; zMm <= HIGHEST_UPRIGHT_MM; zMm++) {
    const seen: Rgb[] = [];
    for (let share = 0.12; share <= 0.88; share += 0.04) {
      const colour =
        along === 'stop'
          ? colourAt(face, 0, share * board.widthMm, zMm)
          : colourAt(face, share * lengthMm, 0, zMm);
      if (colour) seen.push(colour);
    }
    if (seen.length < 6) break;
    profile.push(medianColour(seen)); // prettier-ignore
  }
  if (profile.length < LEAST_UPRIGHT_MM) return null;
  const meanOf = (from: number, to: number): Rgb => {
    const part = profile.slice(Math.max(0, from), Math.max(1, to));
    const mean = (channel: 0 | 1 | 2): number =>
      part.reduce((sum, colour) => sum + colour[channel], 0) / Math.max(1, part.length);
    return [mean(0), mean(1), mean(2)];
  };
  const stepAt = (z: number): number => {
    const a = meanOf(z - 4, z - 1);
    const b = meanOf(z + 1, z + 4);
    return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
  };
  const steps = profile.map((_, z) => (z >= 3 && z < profile.length - 4 ? stepAt(z) : 0));
  const isPeak = (z: number): boolean =>
    steps[z] > COLOUR_STEP && steps.slice(Math.max(0, z - 4), z + 5).every((other) => other <= steps[z]);
  const bandTop = steps.findIndex((_, z) => z <= HIGHEST_BAND_MM && isPeak(z));
  const tops = steps.map((_, z) => z).filter((z) => z >= LEAST_UPRIGHT_MM && isPeak(z));
  const heightMm = tops.sort((a, b) => steps[b] - steps[a])[0];
  const from = bandTop > 0 ? bandTop + 2 : 2;
  return {
    heightMm: heightMm ?? 40,
    colour: hexOf(meanOf(from, Math.max(from + 3, (heightMm ?? 24) - 3)), gain),
    band: bandTop > 0 ? hexOf(meanOf(1, bandTop - 1), gain) : null,
  };
}
