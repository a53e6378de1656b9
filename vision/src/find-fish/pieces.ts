import type { FaceView } from './faceView.ts';
import { columnsTo, rowsTo } from '../grid/planeGrid.ts';

/** Neighbouring covered cells. */
export interface Piece {
  label: number;
  area: number;
  fromColumn: number;
  toColumn: number;
  fromRow: number;
  toRow: number;
}

/** The outermost part of the face lies in the shadow of wall and edge: it counts only when joined to the inside. */
const EDGE_MM = 5;

/** What lies only within so much of the face's far or near edge is no fish. */
const RIM_MM = 10;

export interface FaceBounds {
  lengthMm: number;
  widthMm: number;
}

/** Smooths the odds, keeps the pieces inside of the face and picks the fish: large, long and near the stop. */
export function pieceTogether(
  view: FaceView,
  odds: Float32Array,
  face: FaceBounds,
): { labels: Int32Array; pieces: Piece[] } {
  const { columns, rows, cellsPerMm } = view;
  const smooth = smoothOdds(odds, columns, rows);
  const covered = new Uint8Array(columns * rows);
  const left = Math.round(columnsTo(view, 0));
  const right = Math.round(columnsTo(view, face.lengthMm));
  const top = Math.round(rowsTo(view, 0));
  const bottom = Math.round(rowsTo(view, face.widthMm));
  const edge = Math.round(EDGE_MM * cellsPerMm);
  for (let row = Math.max(0, top + edge); row < Math.min(rows, bottom - edge); row++)
    for (let column = Math.max(0, left + edge); column < Math.min(columns, right - 1); column++)
      covered[row * columns + column] = smooth[row * columns + column] > 0 ? 1 : 0;
  dropEdgeRuns(
    covered,
    columns,
    top + Math.round(RIM_MM * cellsPerMm),
    bottom - Math.round(RIM_MM * cellsPerMm),
  );
  opened(covered, columns, rows, Math.max(1, Math.round(0.8 * cellsPerMm)));
  return label(covered, columns, rows);
}

/** Clears, column by column, what lies in the rims alone: the shadow of wall and edge, not joined to the inside. */
function dropEdgeRuns(mask: Uint8Array, columns: number, firstInside: number, lastInside: number): void {
  const rows = mask.length / columns;
  for (let column = 0; column < columns; column++) {
    let start = -1;
    for (let row = 0; row <= rows; row++) {
      const inside = row < rows && mask[row * columns + column] === 1;
      if (inside && start < 0) start = row;
      if (inside || start < 0) continue;
      if (row - 1 < firstInside || start > lastInside)
        for (let k = start; k < row; k++) mask[k * columns + column] = 0;
      start = -1;
    }
  }
}

/** Binomial (1 2 1)/4, twice both ways. */
function smoothOdds(odds: Float32Array, columns: number, rows: number): Float32Array {
  let from = odds;
  for (let round = 0; round < 2; round++) {
    const across = new Float32Array(from.length);
    const out = new Float32Array(from.length);
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        const i = row * columns + column;
        const a = column > 0 ? i - 1 : i;
        const b = column + 1 < columns ? i + 1 : i;
        across[i] = (from[a] + 2 * from[i] + from[b]) / 4;
      }
    }
    for (let i = 0; i < across.length; i++) {
      const a = i >= columns ? i - columns : i;
      const b = i + columns < across.length ? i + columns : i;
      out[i] = (across[a] + 2 * across[i] + across[b]) / 4;
    }
    from = out;
  }
  return from;
}

/** Opening by a square: what is thinner than it goes. */
export function opened(mask: Uint8Array, columns: number, rows: number, reach: number): void {
  const eroded = spread(mask, columns, rows, reach, 0);
  mask.set(spread(eroded, columns, rows, reach, 1));
}

/** Where any cell within reach has `value`, the cell gets it. */
function spread(mask: Uint8Array, columns: number, rows: number, reach: number, value: 0 | 1): Uint8Array {
  const across = mask.slice();
  for (let row = 0; row < rows; row++) {
    let last = -Infinity;
    for (let column = 0; column < columns; column++) {
      if (mask[row * columns + column] === value) last = column;
      if (column - last <= reach) across[row * columns + column] = value;
    }
    last = Infinity;
    for (let column = columns - 1; column >= 0; column--) {
      if (mask[row * columns + column] === value) last = column;
      if (last - column <= reach) across[row * columns + column] = value;
    }
  }
  const out = across.slice();
  for (let column = 0; column < columns; column++) {
    let last = -Infinity;
    for (let row = 0; row < rows; row++) {
      if (across[row * columns + column] === value) last = row;
      if (row - last <= reach) out[row * columns + column] = value;
    }
    last = Infinity;
    for (let row = rows - 1; row >= 0; row--) {
      if (across[row * columns + column] === value) last = row;
      if (last - row <= reach) out[row * columns + column] = value;
    }
  }
  return out;
}

/** Connected pieces (four neighbours), by a flood fill. */
export function label(
  mask: Uint8Array,
  columns: number,
  rows: number,
): { labels: Int32Array; pieces: Piece[] } {
  const labels = new Int32Array(columns * rows);
  const pieces: Piece[] = [];
  const stack: number[] = [];
  for (let start = 0; start < mask.length; start++) {
    if (!mask[start] || labels[start]) continue;
    const piece: Piece = {
      label: pieces.length + 1,
      area: 0,
      fromColumn: columns,
      toColumn: 0,
      fromRow: rows,
      toRow: 0,
    };
    labels[start] = piece.label;
    stack.push(start);
    while (stack.length > 0) {
      const at = stack.pop() ?? 0;
      const column = at % columns;
      const row = (at - column) / columns;
      piece.area++;
      piece.fromColumn = Math.min(piece.fromColumn, column);
      piece.toColumn = Math.max(piece.toColumn, column);
      piece.fromRow = Math.min(piece.fromRow, row);
      piece.toRow = Math.max(piece.toRow, row);
      const visit = (next: number, allowed: boolean): void => {
        if (!allowed || !mask[next] || labels[next]) return;
        labels[next] = piece.label;
        stack.push(next);
      };
      visit(at - 1, column > 0);
      visit(at + 1, column + 1 < columns);
      visit(at - columns, row > 0);
      visit(at + columns, row + 1 < rows);
    }
    pieces.push(piece);
  }
  return { labels, pieces };
}
