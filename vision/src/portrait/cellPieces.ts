/** Joined cells of a mask. */
export interface CellPiece {
  cells: number[];
  meanX: number;
  meanY: number;
}

/** Pieces of a mask that hang together by their sides, those of at least `least` cells. */
export function cellPieces(mask: Uint8Array, columns: number, least: number): CellPiece[] {
  const seen = new Uint8Array(mask.length);
  const pieces: CellPiece[] = [];
  for (let start = 0; start < mask.length; start++) {
    if (mask[start] !== 1 || seen[start] === 1) continue;
    seen[start] = 1;
    const cells = [start];
    let [sumX, sumY] = [0, 0];
    for (let i = 0; i < cells.length; i++) {
      const cell = cells[i];
      const x = cell % columns;
      sumX += x;
      sumY += (cell - x) / columns;
      for (const next of [
        x > 0 ? cell - 1 : -1,
        x + 1 < columns ? cell + 1 : -1,
        cell - columns,
        cell + columns,
      ]) {
        // prettier-ignore
        if (next < 0 || next >= mask.length || mask[next] !== 1 || seen[next] === 1) continue;
        seen[next] = 1;
        cells.push(next);
      }
    }
    if (cells.length >= least) pieces.push({ cells, meanX: sumX / cells.length, meanY: sumY / cells.length });
  }
  return pieces;
}

/**
 * Distance to the nearest cell outside of a mask, in cells: two passes of a 3-4 chamfer (Borgefors 1986), within 8 %.
 * Beyond the picture's edge the mask goes on.
 */
export function depthIn(mask: Uint8Array, columns: number): Float32Array {
  const rows = mask.length / columns;
  const depth = Float32Array.from(mask, (inside) => (inside === 1 ? 1e6 : 0));
  const relax = (cell: number, x: number, y: number, dx: number, dy: number): void => {
    const [nx, ny] = [x + dx, y + dy];
    if (nx < 0 || ny < 0 || nx >= columns || ny >= rows) return;
    const through = depth[ny * columns + nx] + (dx !== 0 && dy !== 0 ? 4 / 3 : 1);
    if (through < depth[cell]) depth[cell] = through;
  };
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < columns; x++)
      for (const [dx, dy] of [[-1, 0], [-1, -1], [0, -1], [1, -1]] as const) relax(y * columns + x, x, y, dx, dy); // prettier-ignore
  for (let y = rows - 1; y >= 0; y--)
    for (let x = columns - 1; x >= 0; x--)
      for (const [dx, dy] of [[1, 0], [1, 1], [0, 1], [-1, 1]] as const) relax(y * columns + x, x, y, dx, dy); // prettier-ignore
  return depth;
}
