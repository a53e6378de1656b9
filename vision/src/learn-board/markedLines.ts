import { boardPointOf, undistortPx, type LensPose, type Rotation } from '../camera/lens.ts';
import { fitHomography } from '../camera/homography.ts';
import type { Point } from '../geometry/point.ts';
import { cross, norm, rightAngled, times, type Vector } from '../geometry/vector.ts';

/** One line of an unknown board, as a person marks it: its number on the scale, and where it meets the face's edges. */
export interface MarkedLine {
  /** In units of the scale. */
  value: number;
  /** px of the upright picture, on the far edge of the ruled face. */
  far: Point;
  /** px of the upright picture, on the edge towards the angler. */
  near: Point;
}

export interface MarkedFace {
  pose: LensPose;
  widthMm: number;
}

/**
 * The camera's pose over two marked lines, and how far the face's edges are apart. The homography of the four ends
 * leaves one length open; square pixels and the focal length settle it (Zhang 2000, section 3.1: both axes of the
 * plane have the same scale).
 * @param lines the lower number first
 * @param unitMm length of the scale's unit, mm
 * @throws RangeError for ends that fix no plane
 */
export function poseOverLines(
  [first, second]: readonly [MarkedLine, MarkedLine],
  unitMm: number,
  lens: Pick<LensPose, 'focalPx' | 'k1' | 'centrePx'>,
): MarkedFace {
  const [x1, x2] = [first.value * unitMm, second.value * unitMm];
  const corners = [first.far, second.far, second.near, first.near];
  const h = fitHomography(
    [
      [x1, 0],
      [x2, 0],
      [x2, 1],
      [x1, 1],
    ],
    corners.map(([x, y]) => undistortPx(lens, x, y)),
  );
  const along: Vector = [h[0], h[3], h[6]];
  const across: Vector = [h[1], h[4], h[7]];
  const scale = norm(along);
  // fitHomography scales its last element to 1: the board lies in front of the camera.
  const [x, y] = rightAngled(along, across);
  const z = cross(x, y);
  const rotation: Rotation = [x[0], y[0], z[0], x[1], y[1], z[1], x[2], y[2], z[2]];
  return {
    pose: { ...lens, rotation, zeroMm: times([h[2], h[5], 1], 1 / scale) },
    widthMm: norm(across) / scale,
  };
}

/** The same face once a better pose is known: its far edge at y = 0 again, and its width by the marked ends. */
export function faceUnder(pose: LensPose, lines: readonly MarkedLine[]): MarkedFace {
  const mean = (side: 'far' | 'near'): number =>
    lines.reduce((sum, line) => sum + boardPointOf(pose, ...line[side])[1], 0) / lines.length;
  const farMm = mean('far');
  return { pose: movedAcross(pose, farMm), widthMm: mean('near') - farMm };
}

/** The pose whose zero lies `byMm` farther across the face. */
export function movedAcross(pose: LensPose, byMm: number): LensPose {
  const r = pose.rotation;
  const t = pose.zeroMm;
  return { ...pose, zeroMm: [t[0] + r[1] * byMm, t[1] + r[4] * byMm, t[2] + r[7] * byMm] };
}
