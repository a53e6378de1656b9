import type { Homography } from './homography.ts';
import type { Point } from '../geometry/point.ts';
import { cross, dot, norm, rightAngled, times, type Vector } from '../geometry/vector.ts';

export interface CameraPose {
  /** Angle between the line of sight and the board's normal, degrees; 0 is straight from above. */
  tiltDeg: number;
  /** The camera's place in board coordinates, mm; z is its height over the ruled face. */
  positionMm: Vector;
}

/**
 * Focal length in px from the EXIF 35 mm equivalent, which follows the diagonal of a 24 × 36 mm frame (43.27 mm;
 * CIPA DC-008 leaves the definition to the diagonal).
 */
export function focalPxFrom35mm(focal35Mm: number, widthPx: number, heightPx: number): number {
  if (!(focal35Mm > 0)) throw new RangeError(`focal35Mm: expected over 0, got ${focal35Mm}`);
  return (focal35Mm * Math.hypot(widthPx, heightPx)) / Math.hypot(36, 24);
}

/**
 * The camera's pose from the homography board mm → picture px (no lens distortion) and the focal length.
 * The columns of K⁻¹H are the first two axes of the board and the way to its zero, up to scale
 * (Hartley & Zisserman, 2nd ed., section 8.1; Zhang 2000, section 3.1).
 * @param centrePx principal point, px
 */
export function cameraPose(boardToPhoto: Homography, focalPx: number, centrePx: Point): CameraPose {
  if (!(focalPx > 0)) throw new RangeError(`focalPx: expected over 0, got ${focalPx}`);
  const h = boardToPhoto;
  const column = (i: 0 | 1 | 2): Vector => {
    const w = h[6 + i];
    return [(h[i] - centrePx[0] * w) / focalPx, (h[3 + i] - centrePx[1] * w) / focalPx, w];
  };
  let [a, b, t] = [column(0), column(1), column(2)];
  // The board lies in front of the camera.
  if (t[2] < 0) [a, b, t] = [times(a, -1), times(b, -1), times(t, -1)];
  const scale = Math.sqrt(norm(a) * norm(b));
  const [xAxis, yAxis] = rightAngled(a, b);
  // Board x to the right and y towards the angler: x × y points down, away from the camera above.
  const downAxis = cross(xAxis, yAxis);
  const zero = times(t, 1 / scale);
  return {
    tiltDeg: (Math.acos(Math.min(1, Math.abs(downAxis[2]))) * 180) / Math.PI,
    positionMm: [-dot(xAxis, zero), -dot(yAxis, zero), dot(downAxis, zero)],
  };
}
