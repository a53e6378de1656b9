import { scalePx, type Point } from '../geometry/point.ts';
import type { Vector } from '../geometry/vector.ts';

/** A rotation matrix, row by row. */
export type Rotation = readonly [number, number, number, number, number, number, number, number, number];

/**
 * A camera over a board: pinhole with one radial distortion term,
 * x' = x (1 + k1 r²) in normalised coordinates (Brown 1971; the sense of OpenCV's `k1`).
 * Camera axes: X right, Y down, Z forward. Board axes: x along, y towards the angler, z up, so that
 * `rotation` turns (x, y, −z).
 */
export interface LensPose {
  rotation: Rotation;
  /** The board's zero (stop, far edge) in camera coordinates, mm. */
  zeroMm: Vector;
  focalPx: number;
  k1: number;
  centrePx: Point;
}

/** The same pose in px of a picture that is `by` times as large. */
export function scaledPose(pose: LensPose, by: number): LensPose {
  return { ...pose, focalPx: pose.focalPx * by, centrePx: scalePx(pose.centrePx, by) };
}

/** Where a point in board coordinates, mm, falls in the picture, px. */
export function projectBoardPoint(pose: LensPose, xMm: number, yMm: number, zMm = 0): [number, number] {
  const r = pose.rotation;
  const t = pose.zeroMm;
  const w = r[6] * xMm + r[7] * yMm - r[8] * zMm + t[2];
  const x = (r[0] * xMm + r[1] * yMm - r[2] * zMm + t[0]) / w;
  const y = (r[3] * xMm + r[4] * yMm - r[5] * zMm + t[1]) / w;
  return distortPx(pose, x, y);
}

/** The px of normalised coordinates, bent by the lens. */
export function distortPx(
  { focalPx, k1, centrePx }: Pick<LensPose, 'focalPx' | 'k1' | 'centrePx'>,
  x: number,
  y: number,
): [number, number] {
  const bend = focalPx * (1 + k1 * (x * x + y * y));
  return [centrePx[0] + bend * x, centrePx[1] + bend * y];
}

/** Normalised coordinates of a px without the lens's distortion. */
export function undistortPx(
  pose: Pick<LensPose, 'focalPx' | 'k1' | 'centrePx'>,
  xPx: number,
  yPx: number,
): [number, number] {
  const xd = (xPx - pose.centrePx[0]) / pose.focalPx;
  const yd = (yPx - pose.centrePx[1]) / pose.focalPx;
  const rd = Math.hypot(xd, yd);
  if (rd === 0 || pose.k1 === 0) return [xd, yd];
  // Newton on r (1 + k1 r²) = rd; past a barrel's turning point nothing is imaged, so the radius stays there.
  const turning = pose.k1 < 0 ? 1 / Math.sqrt(-3 * pose.k1) : Infinity;
  let radius = Math.min(rd, turning * 0.98);
  for (let i = 0; i < 6; i++) {
    const squared = radius * radius;
    const step = (radius * (1 + pose.k1 * squared) - rd) / (1 + 3 * pose.k1 * squared);
    radius = Math.min(radius - step, turning * 0.98);
    if (Math.abs(step) < 1e-10) break;
  }
  return [(xd * radius) / rd, (yd * radius) / rd];
}

/** Where the ray through a px meets the plane `zMm` over the ruled face: board x and y, mm. */
export function boardPointOf(pose: LensPose, xPx: number, yPx: number, zMm = 0): [number, number] {
  const [u, v] = undistortPx(pose, xPx, yPx);
  const r = pose.rotation;
  const camera = cameraPlaceMm(pose);
  const dx = r[0] * u + r[3] * v + r[6];
  const dy = r[1] * u + r[4] * v + r[7];
  const dz = -(r[2] * u + r[5] * v + r[8]);
  const reach = (zMm - camera[2]) / dz;
  return [camera[0] + reach * dx, camera[1] + reach * dy];
}

/** The camera's place in board coordinates, mm; z is its height over the ruled face. */
export function cameraPlaceMm({ rotation: r, zeroMm: t }: LensPose): Vector {
  return [
    -(r[0] * t[0] + r[3] * t[1] + r[6] * t[2]),
    -(r[1] * t[0] + r[4] * t[1] + r[7] * t[2]),
    r[2] * t[0] + r[5] * t[1] + r[8] * t[2],
  ];
}

/** Angle between the line of sight and the board's normal, degrees. */
export function lensTiltDeg({ rotation }: LensPose): number {
  return (Math.acos(Math.min(1, Math.max(-1, rotation[8]))) * 180) / Math.PI;
}

/** The rotation that turns by the vector's length about its direction (Rodrigues), times `rotation`. */
export function turnedBy(rotation: Rotation, [wx, wy, wz]: Vector): Rotation {
  const angle = Math.hypot(wx, wy, wz);
  const a = angle < 1e-12 ? 1 : Math.sin(angle) / angle;
  const b = angle < 1e-12 ? 0.5 : (1 - Math.cos(angle)) / (angle * angle);
  const e: Rotation = [
    1 - b * (wy * wy + wz * wz),
    b * wx * wy - a * wz,
    b * wx * wz + a * wy,
    b * wx * wy + a * wz,
    1 - b * (wx * wx + wz * wz),
    b * wy * wz - a * wx,
    b * wx * wz - a * wy,
    b * wy * wz + a * wx,
    1 - b * (wx * wx + wy * wy),
  ];
  return product(e, rotation);
}

function product(a: Rotation, b: Rotation): Rotation {
  const cell = (row: 0 | 3 | 6, column: 0 | 1 | 2): number =>
    a[row] * b[column] + a[row + 1] * b[column + 3] + a[row + 2] * b[column + 6];
  return [
    cell(0, 0), cell(0, 1), cell(0, 2),
    cell(3, 0), cell(3, 1), cell(3, 2),
    cell(6, 0), cell(6, 1), cell(6, 2),
  ]; // prettier-ignore
}
