import type { Point } from '../geometry/point.ts';
import type { Raster } from '../image/raster.ts';

/**
 * EXIF orientation (CIPA DC-008, tag 0x0112): which side of the stored picture is up.
 * `storedPx` are px of the picture as stored, `uprightPx` of the picture as it is to be seen.
 */
export function toStoredPx(
  uprightPx: Point,
  orientation: number | null,
  storedWidth: number,
  storedHeight: number,
): Point {
  const [x, y] = uprightPx;
  const right = storedWidth - 1;
  const bottom = storedHeight - 1;
  switch (orientation) {
    case 2:
      return [right - x, y];
    case 3:
      return [right - x, bottom - y];
    case 4:
      return [x, bottom - y];
    case 5:
      return [y, x];
    case 6:
      return [y, bottom - x];
    case 7:
      return [right - y, bottom - x];
    case 8:
      return [right - y, x];
    default:
      return [x, y];
  }
}

/** The other way round: orientations 6 and 8 undo each other, all others themselves. */
export function toUprightPx(
  storedPx: Point,
  orientation: number | null,
  storedWidth: number,
  storedHeight: number,
): Point {
  const undone = orientation === 6 ? 8 : orientation === 8 ? 6 : orientation;
  return isTurned(orientation)
    ? toStoredPx(storedPx, undone, storedHeight, storedWidth)
    : toStoredPx(storedPx, undone, storedWidth, storedHeight);
}

/** Whether the upright picture is as wide as the stored one is high. */
export function isTurned(orientation: number | null): boolean {
  return orientation !== null && orientation >= 5 && orientation <= 8;
}

/** The stored picture turned upright. */
export function uprightRaster(stored: Raster, orientation: number | null): Raster {
  if (orientation === null || orientation < 2 || orientation > 8) return stored;
  const { widthPx, heightPx, data } = stored;
  const cells = new Uint32Array(data.buffer, data.byteOffset, widthPx * heightPx);
  const turned = uprightCells(cells, orientation, widthPx, heightPx);
  const size = isTurned(orientation) ? { widthPx: heightPx, heightPx: widthPx } : { widthPx, heightPx };
  return { ...size, data: new Uint8ClampedArray(turned.buffer) };
}

/** One value a px, put where it stands in the upright picture. */
export function uprightCells<T extends Uint32Array | Float32Array>(
  stored: T,
  orientation: number,
  storedWidth: number,
  storedHeight: number,
): T {
  const [width, height] = isTurned(orientation) ? [storedHeight, storedWidth] : [storedWidth, storedHeight];
  const upright = stored.slice() as T;
  const at = (x: number, y: number): number => {
    const [sx, sy] = toStoredPx([x, y], orientation, storedWidth, storedHeight);
    return sy * storedWidth + sx;
  };
  // Orientation maps are affine: one step right and one step down are the same everywhere.
  const origin = at(0, 0);
  const stepX = at(1, 0) - origin;
  const stepY = at(0, 1) - origin;
  for (let y = 0; y < height; y++) {
    let source = origin + y * stepY;
    const row = y * width;
    for (let x = 0; x < width; x++, source += stepX) upright[row + x] = stored[source];
  }
  return upright;
}
