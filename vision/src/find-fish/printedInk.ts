import { textWidthMm } from '../board/lettering.ts';
import { numeralText } from '../find-board/numerals.ts';
import { numeralStepMm, type Pattern } from '../find-board/pattern.ts';
import type { FaceView } from './faceView.ts';
import { columnMiddle, columnsTo, rowAt, rowMiddle, rowsTo } from '../grid/planeGrid.ts';
import { lumaOf } from '../image/luma.ts';

const GAP_MM = 1.5;
/** A numeral that correlates less with a plain font is covered. */
const SEEN_FIT = 0.42;
/** A model for others fits at least this share of what the clearer third does. */
const CLEAR_SHARE = 0.85;
/** Shares of the ink's contrast from which a cell counts as full ink, and as its blurred edge. */
const FULL_INK = 0.55;
const EDGE_INK = 0.2;

/** What is printed at a cell: nothing, the blurred edge of ink, ink. */
export const BARE = 0;
export const INK_EDGE = 1;
export const INK = 2;

/**
 * The ink of every numeral, cell by cell (BARE, INK_EDGE, INK). Fonts differ, but the same numeral or its digits stand in several places of the face: where
 * one is covered, those that are seen tell its shape. Where none is seen the whole of its box may be either.
 * @param fits how well each numeral is seen, by value and place across the face
 */
export function numeralInk(
  view: FaceView,
  pattern: Pattern,
  fits: readonly (readonly (number | null)[])[],
): Uint8Array {
  const ink = new Uint8Array(view.columns * view.rows);
  const { every, heightMm, centresAt } = pattern.board.numerals;
  const unitMm = numeralStepMm(pattern);
  const digitMm = textWidthMm('0', heightMm);
  const rows = Math.round((heightMm + 4) * view.cellsPerMm);
  const seen: SeenNumeral[] = [];
  const boxes = fits.flatMap((places, i) => {
    const text = numeralText((i + 1) * every);
    const rightMm = (i + 1) * unitMm - GAP_MM;
    const widthMm = Math.min(text.length * digitMm * 1.2, unitMm - GAP_MM) + 1.5;
    const columns = Math.round((widthMm + 1.5) * view.cellsPerMm);
    const left = Math.round(columnsTo(view, rightMm + 1)) - columns;
    return places.map((fit, place) => {
      const centreMm = centresAt[place] * pattern.widthMm;
      const top = Math.round(rowsTo(view, centreMm) - rows / 2);
      const box = { text, left, top, columns, rows };
      if (fit !== null && fit > SEEN_FIT) seen.push({ text, fit, columns, ink: shapeAt(view, pattern, box) });
      return box;
    });
  });
  seen.sort((a, b) => b.fit - a.fit);
  // A numeral that is covered in part fits worse than the clear ones: its shape is no model.
  const clear = CLEAR_SHARE * (seen[Math.floor(seen.length / 3)]?.fit ?? 1);
  const models = seen.filter(({ fit }) => fit > clear);
  const digitColumns = Math.round((digitMm + 0.7 + 1) * view.cellsPerMm);
  for (const box of boxes) {
    const twin = models.find((other) => other.text === box.text);
    const lastDigit = models.find((other) => other.text.at(-1) === box.text.at(-1));
    const others = models.find(
      (other) => other.text.length === box.text.length && other.text.startsWith(box.text.slice(0, -1)),
    );
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < box.columns; column++) {
        const [x, y] = [box.left + column, box.top + row];
        if (x < 0 || y < 0 || x >= view.columns || y >= view.rows) continue;
        const fromRight = box.columns - 1 - column;
        const source = twin ?? (fromRight < digitColumns ? lastDigit : others);
        const printed = source
          ? (source.ink[row * source.columns + source.columns - 1 - fromRight] ?? BARE)
          : fromRight < (box.text.length * digitMm + 1.5) * view.cellsPerMm
            ? INK_EDGE
            : BARE;
        const at = y * view.columns + x;
        ink[at] = Math.max(ink[at], printed);
      }
    }
  }
  return ink;
}

interface NumeralBox {
  text: string;
  left: number;
  top: number;
  columns: number;
  rows: number;
}

interface SeenNumeral {
  text: string;
  fit: number;
  columns: number;
  ink: Uint8Array;
}

/** What is printed in a box, read off the picture. */
function shapeAt(view: FaceView, pattern: Pattern, { left, top, columns, rows }: NumeralBox): Uint8Array {
  const tones = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const x = Math.min(view.columns - 1, Math.max(0, left + column));
      const y = Math.min(view.rows - 1, Math.max(0, top + row));
      const i = (y * view.columns + x) * 3;
      tones[row * columns + column] = Math.log(lumaOf(view.rgb[i], view.rgb[i + 1], view.rgb[i + 2]) + 6);
    }
  }
  const sorted = Array.from(tones).sort((a, b) => a - b);
  const face = sorted[Math.floor((pattern.inkDarker ? 0.8 : 0.2) * sorted.length)];
  const sign = pattern.inkDarker ? 1 : -1;
  const full = FULL_INK * pattern.inkContrast;
  const edge = EDGE_INK * pattern.inkContrast;
  const shape = new Uint8Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const at = row * columns + column;
      const level = sign * (face - tones[at]);
      if (level > full) shape[at] = INK;
      else if (level > edge) shape[at] = Math.max(shape[at], INK_EDGE);
      if (level <= full) continue;
      for (let r = Math.max(0, row - 1); r <= Math.min(rows - 1, row + 1); r++)
        for (let c = Math.max(0, column - 1); c <= Math.min(columns - 1, column + 1); c++)
          shape[r * columns + c] = Math.max(shape[r * columns + c], INK_EDGE);
    }
  }
  return shape;
}

/** Adds the printed lines to what is printed. */
export function addLines(ink: Uint8Array, view: FaceView, pattern: Pattern): Uint8Array {
  const out = ink.slice();
  for (const line of pattern.lines) {
    const outer = line.strokeMm / 2 + 0.7;
    const core = line.strokeMm / 2 - 0.3;
    const left = Math.max(0, Math.ceil(columnsTo(view, line.xMm - outer) - 0.5));
    const right = Math.min(view.columns - 1, Math.floor(columnsTo(view, line.xMm + outer) - 0.5));
    for (const [fromMm, toMm] of line.spansMm) {
      const top = Math.max(0, rowAt(view, fromMm - 0.8));
      const bottom = Math.min(view.rows - 1, Math.ceil(rowsTo(view, toMm + 0.8)));
      for (let row = top; row <= bottom; row++) {
        const yMm = rowMiddle(view, row);
        const within = yMm > fromMm + 0.5 && yMm < toMm - 0.5;
        for (let column = left; column <= right; column++) {
          const off = Math.abs(columnMiddle(view, column) - line.xMm);
          const at = row * view.columns + column;
          out[at] = within && off < core ? INK : Math.max(out[at], INK_EDGE);
        }
      }
    }
  }
  return out;
}

/** A view in larger cells: the colour of what is bare in each, and of what is fully inked. */
export interface BareView extends FaceView {
  /** Share of each cell that is bare. */
  bare: Float32Array;
  /** Log brightness of the inked part; NaN where there is none. */
  inkLight: Float32Array;
}

/** Means over blocks of `by` × `by` cells, ink apart; cells without bare parts are filled along the board. */
export function bareCells(view: FaceView, ink: Uint8Array, by: number): BareView {
  const columns = Math.floor(view.columns / by);
  const rows = Math.floor(view.rows / by);
  const rgb = new Float32Array(columns * rows * 3);
  const inPhoto = new Uint8Array(columns * rows).fill(1);
  const bare = new Float32Array(columns * rows);
  const inkSum = new Float32Array(columns * rows);
  const inkCount = new Uint8Array(columns * rows);
  for (let row = 0; row < rows * by; row++) {
    for (let column = 0; column < columns * by; column++) {
      const from = row * view.columns + column;
      const to = Math.floor(row / by) * columns + Math.floor(column / by);
      if (!view.inPhoto[from]) inPhoto[to] = 0;
      const [red, green, blue] = [view.rgb[from * 3], view.rgb[from * 3 + 1], view.rgb[from * 3 + 2]];
      if (ink[from] === BARE) {
        bare[to] = bare[to] + 1;
        rgb[to * 3] = rgb[to * 3] + red;
        rgb[to * 3 + 1] = rgb[to * 3 + 1] + green;
        rgb[to * 3 + 2] = rgb[to * 3 + 2] + blue;
      } else if (ink[from] === INK) {
        inkSum[to] = inkSum[to] + Math.log(lumaOf(red, green, blue) + 6);
        inkCount[to] = inkCount[to] + 1;
      }
    }
  }
  for (let i = 0; i < bare.length; i++) {
    const count = bare[i];
    if (count === 0) continue;
    for (let channel = 0; channel < 3; channel++) rgb[i * 3 + channel] = rgb[i * 3 + channel] / count;
    bare[i] = count / (by * by);
  }
  fillAlong(rgb, bare, columns, rows);
  const inkLight = inkSum.map((sum, i) => sum / inkCount[i]);
  return { ...view, columns, rows, cellsPerMm: view.cellsPerMm / by, rgb, inPhoto, bare, inkLight };
}

function fillAlong(rgb: Float32Array, bare: Float32Array, columns: number, rows: number): void {
  for (let row = 0; row < rows; row++) {
    const at = row * columns;
    for (let column = 0; column < columns; column++) {
      if (bare[at + column] > 0) continue;
      let end = column;
      while (end < columns && bare[at + end] === 0) end++;
      const left = column > 0 ? column - 1 : end;
      const right = end < columns ? end : column - 1;
      if (left >= columns || right < 0) break;
      for (let channel = 0; channel < 3; channel++) {
        const a = rgb[(at + left) * 3 + channel];
        const b = rgb[(at + right) * 3 + channel];
        for (let k = column; k < end; k++)
          rgb[(at + k) * 3 + channel] = a + ((b - a) * (k - left)) / (right - left || 1);
      }
      column = end;
    }
  }
}
