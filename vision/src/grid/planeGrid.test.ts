import { describe, expect, it } from 'vitest';
import {
  cellAt,
  columnAt,
  columnMiddle,
  columnsTo,
  columnStart,
  rowAt,
  rowMiddle,
  rowStart,
  rowsTo,
  type PlaneGrid,
} from './planeGrid.ts';

/** Two cells a mm, from 10 mm before the stop and 4 mm beyond the far edge. */
const GRID: PlaneGrid = { columns: 40, rows: 20, cellsPerMm: 2, fromXMm: -10, fromYMm: -4 };

describe('a grid over the board', () => {
  it('has a cell’s middle in the cell itself', () => {
    for (const [column, row] of [
      [0, 0],
      [39, 19],
      [7, 13],
    ] as const)
      // prettier-ignore
      expect(cellAt(GRID, columnMiddle(GRID, column), rowMiddle(GRID, row))).toBe(row * 40 + column);
  });

  it('begins a column half a cell before its middle', () => {
    expect(columnStart(GRID, 20)).toBe(0);
    expect(columnMiddle(GRID, 20)).toBe(0.25);
    expect(rowStart(GRID, 8)).toBe(0);
    expect(rowMiddle(GRID, 8)).toBe(0.25);
  });

  it('counts cells on beyond its edges, and has none there', () => {
    expect([columnsTo(GRID, -10.25), columnAt(GRID, -10.25)]).toEqual([-0.5, -1]);
    expect([rowsTo(GRID, 7), rowAt(GRID, 7)]).toEqual([22, 22]);
    // A place beyond one edge is no cell of the row before or after it.
    for (const [x, y] of [
      [-10.1, 0],
      [10, 0],
      [0, -4.1],
      [0, 6],
    ] as const)
      // prettier-ignore
      expect(cellAt(GRID, x, y)).toBe(-1);
  });
});
