import type { Point } from '../geometry/point.ts';

/** Px of the picture's edge. */
export interface Frame {
  widthPx: number;
  heightPx: number;
}

/** How far a place lies inside of the frame, px; under 0 it is outside. */
export function insidePx([x, y]: Point, { widthPx, heightPx }: Frame): number {
  return Math.min(x, y, widthPx - 1 - x, heightPx - 1 - y);
}
