/** Square cells over a plane of the board: columns along it from the stop, rows across it from its far edge. */
export interface PlaneGrid {
  columns: number;
  rows: number;
  cellsPerMm: number;
  /** Where the first column and the first row begin, mm of the board. */
  fromXMm: number;
  fromYMm: number;
}

/** How many columns lie before a place, mm along the board; not whole, and perhaps outside of the grid. */
export function columnsTo({ fromXMm, cellsPerMm }: PlaneGrid, xMm: number): number {
  return (xMm - fromXMm) * cellsPerMm;
}

/** How many rows lie before a place, mm across the board; not whole, and perhaps outside of the grid. */
export function rowsTo({ fromYMm, cellsPerMm }: PlaneGrid, yMm: number): number {
  return (yMm - fromYMm) * cellsPerMm;
}

/** The column in which a place lies; outside of the grid too. */
export function columnAt(grid: PlaneGrid, xMm: number): number {
  return Math.floor(columnsTo(grid, xMm));
}

/** The row in which a place lies; outside of the grid too. */
export function rowAt(grid: PlaneGrid, yMm: number): number {
  return Math.floor(rowsTo(grid, yMm));
}

/** The cell in which a place lies, mm; −1 outside of the grid. */
export function cellAt(grid: PlaneGrid, xMm: number, yMm: number): number {
  const column = columnAt(grid, xMm);
  const row = rowAt(grid, yMm);
  return column < 0 || row < 0 || column >= grid.columns || row >= grid.rows
    ? -1
    : row * grid.columns + column;
}

/** Where a column begins, mm along the board. */
export function columnStart({ fromXMm, cellsPerMm }: PlaneGrid, column: number): number {
  return fromXMm + column / cellsPerMm;
}

/** Where a row begins, mm across the board. */
export function rowStart({ fromYMm, cellsPerMm }: PlaneGrid, row: number): number {
  return fromYMm + row / cellsPerMm;
}

/** The middle of a column, mm along the board. */
export function columnMiddle({ fromXMm, cellsPerMm }: PlaneGrid, column: number): number {
  return fromXMm + (column + 0.5) / cellsPerMm;
}

/** The middle of a row, mm across the board. */
export function rowMiddle({ fromYMm, cellsPerMm }: PlaneGrid, row: number): number {
  return fromYMm + (row + 0.5) / cellsPerMm;
}
