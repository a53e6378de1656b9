import type { Relief } from './relief.ts';
import type { Vector } from './scene.ts';

const TILE_MM = 8;
/** So many steps of a ray stay within a tile and its neighbours. */
const LEAP = 6;
/** Large tiles, each with its neighbours, tell a ray at once how high all is that it can meet. */
const REGION_MM = 48;

/** How high a relief is from tile to tile, so that a ray leaps over what is empty. */
export class ReliefTiles {
  private readonly relief: Relief;
  /** The greatest height in each tile, and in it and its neighbours. */
  private readonly peaks: Float32Array;
  private readonly widePeaks: Float32Array;
  private readonly tileColumns: number;
  private readonly tileRows: number;
  private readonly regions: Float32Array;
  private readonly regionColumns: number;
  private readonly regionRows: number;
  private readonly highestMm: number;

  constructor(relief: Relief) {
    this.relief = relief;
    this.highestMm = relief.height.reduce((high, value) => Math.max(high, value), 0);
    const tilesOf = (mm: number, sideMm: number): number => Math.ceil(mm / sideMm) + 1;
    const [widthMm, heightMm] = [relief.x1Mm - relief.x0Mm, relief.y1Mm - relief.y0Mm];
    this.tileColumns = tilesOf(widthMm, TILE_MM);
    this.tileRows = tilesOf(heightMm, TILE_MM);
    this.peaks = this.peaksOf(TILE_MM, this.tileColumns, this.tileRows);
    this.widePeaks = widened(this.peaks, this.tileColumns, this.tileRows);
    this.regionColumns = tilesOf(widthMm, REGION_MM);
    this.regionRows = tilesOf(heightMm, REGION_MM);
    const regionPeaks = this.peaksOf(REGION_MM, this.regionColumns, this.regionRows);
    this.regions = widened(regionPeaks, this.regionColumns, this.regionRows);
  }

  /** Walks down through the relief; negative when the ray reaches `limit` without touching it. */
  hit(ox: number, oy: number, oz: number, dx: number, dy: number, dz: number, limit: number): number {
    const { relief, peaks, widePeaks, tileColumns, tileRows } = this;
    const { x0Mm, y0Mm } = relief;
    const flat = Math.sqrt(dx * dx + dy * dy);
    let start = (this.highestMm - oz) / dz;
    if (start >= limit) return -1;
    // Where it goes less far than a region is wide, it begins at the height of what it can meet, if there is any.
    if (flat * (limit - start) < REGION_MM) {
      const column = Math.floor((ox + limit * dx - x0Mm) / REGION_MM);
      const row = Math.floor((oy + limit * dy - y0Mm) / REGION_MM);
      if (column < -1 || row < -1 || column > this.regionColumns || row > this.regionRows) return -1;
      const highest = this.regions[(row + 1) * (this.regionColumns + 2) + column + 1];
      if (highest <= oz + limit * dz) return -1;
      start = (highest - oz) / dz;
      if (start >= limit) return -1;
    }
    const acrossMm = flat * (limit - start);
    const steps = Math.max(4, Math.ceil(acrossMm / 1.2));
    const stride = (limit - start) / steps;
    for (let i = 1; i <= steps; i++) {
      const t = start + i * stride;
      const x = ox + t * dx;
      const y = oy + t * dy;
      const column = Math.floor((x - x0Mm) / TILE_MM);
      const row = Math.floor((y - y0Mm) / TILE_MM);
      const isOver = column >= -1 && row >= -1 && column <= tileColumns && row <= tileRows;
      const wide = isOver ? (widePeaks[(row + 1) * (tileColumns + 2) + column + 1] ?? 0) : 0;
      const last = i + LEAP - 1 < steps ? i + LEAP - 1 : steps;
      // Over all that is about there: on to the next steps at once.
      if (wide <= oz + (start + last * stride) * dz) {
        i = last;
        continue;
      }
      const z = oz + t * dz;
      if (column < 0 || row < 0 || column >= tileColumns || row >= tileRows) continue;
      if (peaks[row * tileColumns + column] <= z) continue;
      if (relief.heightAt(x, y) > z) {
        const hit = this.bisect(ox, oy, oz, dx, dy, dz, start + (i - 1) * stride, t);
        // The last slope of the grid, from a covered cell down to a bare one, is no body.
        if (relief.isCoveredAt(ox + hit * dx, oy + hit * dy)) return hit;
      }
    }
    return -1;
  }

  private bisect(
    ox: number,
    oy: number,
    oz: number,
    dx: number,
    dy: number,
    dz: number,
    above: number,
    below: number,
  ): number {
    let high = above;
    let low = below;
    for (let i = 0; i < 7; i++) {
      const middle = (high + low) / 2;
      if (this.relief.heightAt(ox + middle * dx, oy + middle * dy) > oz + middle * dz) low = middle;
      else high = middle;
    }
    return low;
  }

  /** The greatest height of each tile; a height between cells is no greater than the cells about it. */
  private peaksOf(tileMm: number, columns: number, rows: number): Float32Array {
    const { relief } = this;
    const peaks = new Float32Array(rows * columns);
    const perTile = tileMm * relief.cellsPerMm;
    for (let row = 0; row < relief.rows; row++) {
      const [r0, r1] = [Math.floor((row - 0.5) / perTile), Math.floor((row + 1.5) / perTile)];
      for (let column = 0; column < relief.columns; column++) {
        const height = relief.height[row * relief.columns + column];
        if (height === 0) continue;
        const [c0, c1] = [Math.floor((column - 0.5) / perTile), Math.floor((column + 1.5) / perTile)];
        for (let r = Math.max(0, r0); r <= Math.min(rows - 1, r1); r++)
          for (let c = Math.max(0, c0); c <= Math.min(columns - 1, c1); c++)
            if (height > peaks[r * columns + c]) peaks[r * columns + c] = height;
      }
    }
    return peaks;
  }

  /** Whether the relief stands between a place and the sun. */
  blocks(x: number, y: number, z: number, [sx, sy, sz]: Vector): boolean {
    const flat = Math.hypot(sx, sy);
    const strideMm = 1.6;
    const rise = (strideMm / flat) * sz;
    const stepX = (strideMm * sx) / flat;
    const stepY = (strideMm * sy) / flat;
    const { relief, peaks, tileColumns, tileRows, highestMm } = this;
    let px = x;
    let py = y;
    let pz = z;
    while ((pz += rise) < highestMm) {
      px += stepX;
      py += stepY;
      const column = Math.floor((px - relief.x0Mm) / TILE_MM);
      const row = Math.floor((py - relief.y0Mm) / TILE_MM);
      if (column < 0 || row < 0 || column >= tileColumns || row >= tileRows) continue;
      if (peaks[row * tileColumns + column] > pz && relief.heightAt(px, py) > pz) return true;
    }
    return false;
  }
}

/** The greatest of each tile and its eight neighbours, with a border of one tile. */
function widened(peaks: Float32Array, tileColumns: number, tileRows: number): Float32Array {
  const columns = tileColumns + 2;
  const wide = new Float32Array(columns * (tileRows + 2));
  for (let row = 0; row < tileRows; row++) {
    for (let column = 0; column < tileColumns; column++) {
      const peak = peaks[row * tileColumns + column];
      if (peak === 0) continue;
      for (let r = row; r <= row + 2; r++)
        for (let c = column; c <= column + 2; c++)
          if (peak > wide[r * columns + c]) wide[r * columns + c] = peak;
    }
  }
  return wide;
}
