import type { LensPose } from '../camera/lens.ts';
import { toStoredPx, toUprightPx, uprightCells } from '../camera/uprightPx.ts';
import type { Point, Quad } from '../geometry/point.ts';
import type { Tones } from './tones.ts';

/** What was at the picture's right comes up: as a picture of this EXIF orientation is turned upright. */
const QUARTER = 8;

export function quarterTurned({ widthPx, heightPx, data }: Tones): Tones {
  return { widthPx: heightPx, heightPx: widthPx, data: uprightCells(data, QUARTER, widthPx, heightPx) };
}

/** A place of the turned picture. */
export function quarterTurnedPx(
  px: Point,
  { widthPx, heightPx }: Pick<Tones, 'widthPx' | 'heightPx'>,
): Point {
  return toUprightPx(px, QUARTER, widthPx, heightPx);
}

/** A place of the turned picture, as it is in the picture that was turned. */
export function turnedBackPx(px: Point, { widthPx, heightPx }: Pick<Tones, 'widthPx' | 'heightPx'>): Point {
  return toStoredPx(px, QUARTER, widthPx, heightPx);
}

/** A pose that was found in the turned picture, as it is in the picture that was turned. */
export function turnedBack(
  pose: LensPose,
  { widthPx, heightPx }: Pick<Tones, 'widthPx' | 'heightPx'>,
): LensPose {
  const [a, b, c, d, e, f, g, h, i] = pose.rotation;
  const [x, y, z] = pose.zeroMm;
  return {
    ...pose,
    rotation: [-d, -e, -f, a, b, c, g, h, i],
    zeroMm: [-y, x, z],
    centrePx: [(widthPx - 1) / 2, (heightPx - 1) / 2],
  };
}

/** Whether a board with these corners stands in the picture rather than lies: its scale runs up or down. */
export function isStanding([[x0, y0], [x1, y1]]: Quad): boolean {
  return Math.abs(y1 - y0) > Math.abs(x1 - x0);
}
