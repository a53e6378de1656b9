/**
 * Sums over rectangles of a grid in four looks, whatever their size (summed-area table, Crow 1984).
 * NaN counts as unknown: it is in no sum and in no count.
 */
export class SummedArea {
  private readonly sums: Float64Array;
  private readonly counts: Float64Array;
  private readonly columns: number;
  private readonly rows: number;

  constructor(columns: number, rows: number, valueAt: (cell: number) => number) {
    this.columns = columns;
    this.rows = rows;
    const stride = columns + 1;
    this.sums = new Float64Array(stride * (rows + 1));
    this.counts = new Float64Array(stride * (rows + 1));
    for (let row = 0; row < rows; row++) {
      let [along, known] = [0, 0];
      for (let column = 0; column < columns; column++) {
        const value = valueAt(row * columns + column);
        if (!Number.isNaN(value)) {
          along += value;
          known++;
        }
        const at = (row + 1) * stride + column + 1;
        this.sums[at] = this.sums[at - stride] + along;
        this.counts[at] = this.counts[at - stride] + known;
      }
    }
  }

  /** Mean of what is known within so many cells of a cell, the grid's border cutting the square; NaN for nothing. */
  meanAround(column: number, row: number, reach: number): number {
    const stride = this.columns + 1;
    const left = Math.max(0, column - reach);
    const right = Math.min(this.columns, column + reach + 1);
    const top = Math.max(0, row - reach) * stride;
    const bottom = Math.min(this.rows, row + reach + 1) * stride;
    const { sums, counts } = this;
    const count = counts[bottom + right] - counts[top + right] - counts[bottom + left] + counts[top + left];
    if (count === 0) return NaN;
    const sum = sums[bottom + right] - sums[top + right] - sums[bottom + left] + sums[top + left];
    return sum / count;
  }
}
