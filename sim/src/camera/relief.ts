import type { Rgb } from './rgb.ts';

/**
 * What lies on the board, as heights over the face and colours on a grid in board coordinates.
 * Under its surface everything is solid: a body seen from above hides what lies behind it.
 */
export class Relief {
  readonly columns: number;
  readonly rows: number;
  /** mm over the face; 0 is bare board. */
  readonly height: Float32Array;
  readonly colour: Float32Array;
  /** 0 bare, under 1 a fin that lets the board shine through. */
  readonly cover: Float32Array;
  /** How much of the sun's mirror image it shows. */
  readonly gloss: Float32Array;

  readonly x0Mm: number;
  readonly y0Mm: number;
  readonly x1Mm: number;
  readonly y1Mm: number;
  readonly cellsPerMm: number;

  constructor(x0Mm: number, y0Mm: number, x1Mm: number, y1Mm: number, cellsPerMm: number) {
    this.x0Mm = x0Mm;
    this.y0Mm = y0Mm;
    this.x1Mm = x1Mm;
    this.y1Mm = y1Mm;
    this.cellsPerMm = cellsPerMm;
    this.columns = Math.ceil((x1Mm - x0Mm) * cellsPerMm);
    this.rows = Math.ceil((y1Mm - y0Mm) * cellsPerMm);
    const cells = this.columns * this.rows;
    this.height = new Float32Array(cells);
    this.colour = new Float32Array(cells * 3);
    this.cover = new Float32Array(cells);
    this.gloss = new Float32Array(cells);
  }

  /** Visits every cell of a rectangle in mm with its index and centre. */
  visit(
    x0: number,
    y0: number,
    x1: number,
    y1: number,
    paint: (cell: number, xMm: number, yMm: number) => void,
  ): void {
    const c = this.cellsPerMm;
    const column0 = Math.max(0, Math.floor((x0 - this.x0Mm) * c));
    const column1 = Math.min(this.columns - 1, Math.ceil((x1 - this.x0Mm) * c));
    const row0 = Math.max(0, Math.floor((y0 - this.y0Mm) * c));
    const row1 = Math.min(this.rows - 1, Math.ceil((y1 - this.y0Mm) * c));
    for (let row = row0; row <= row1; row++) {
      for (let column = column0; column <= column1; column++) {
        paint(row * this.columns + column, this.x0Mm + (column + 0.5) / c, this.y0Mm + (row + 0.5) / c);
      }
    }
  }

  put(cell: number, heightMm: number, colour: Rgb, cover: number, gloss: number): void {
    this.height[cell] = heightMm;
    this.colour[cell * 3] = colour[0];
    this.colour[cell * 3 + 1] = colour[1];
    this.colour[cell * 3 + 2] = colour[2];
    this.cover[cell] = cover;
    this.gloss[cell] = gloss;
  }

  /** Whether a place belongs to what lies there: nearer to covered cells than to bare ones. */
  isCoveredAt(xMm: number, yMm: number): boolean {
    const u = (xMm - this.x0Mm) * this.cellsPerMm - 0.5;
    const v = (yMm - this.y0Mm) * this.cellsPerMm - 0.5;
    if (u < 0 || v < 0 || u >= this.columns - 1 || v >= this.rows - 1) return false;
    const column = Math.floor(u);
    const row = Math.floor(v);
    const fu = u - column;
    const fv = v - row;
    const cell = row * this.columns + column;
    const c = this.cover;
    const below = cell + this.columns;
    const top = (c[cell] > 0 ? 1 - fu : 0) + (c[cell + 1] > 0 ? fu : 0);
    const bottom = (c[below] > 0 ? 1 - fu : 0) + (c[below + 1] > 0 ? fu : 0);
    return top * (1 - fv) + bottom * fv >= 0.5;
  }

  /** Height at a place, bilinear; 0 outside of the grid. */
  heightAt(xMm: number, yMm: number): number {
    const u = (xMm - this.x0Mm) * this.cellsPerMm - 0.5;
    const v = (yMm - this.y0Mm) * this.cellsPerMm - 0.5;
    if (u < 0 || v < 0 || u >= this.columns - 1 || v >= this.rows - 1) return 0;
    const column = Math.floor(u);
    const row = Math.floor(v);
    const fu = u - column;
    const fv = v - row;
    const cell = row * this.columns + column;
    const h = this.height;
    const top = h[cell] * (1 - fu) + h[cell + 1] * fu;
    const bottom = h[cell + this.columns] * (1 - fu) + h[cell + this.columns + 1] * fu;
    return top * (1 - fv) + bottom * fv;
  }
}
