import type { Result } from '@lauta/core/result';
import { Matrix, SVD, determinant, inverse } from 'ml-matrix';
import { turn, type Point, type Quad } from '../geometry/point.ts';

/** A plane homography, row by row, scaled so that the last element is 1. */
export type Homography = readonly [number, number, number, number, number, number, number, number, number];

export type QuadRefusal = 'collinear' | 'crossed' | 'mirrored';

/** Three corners nearer to a line than this share of the quad's size can't fix a plane. */
const COLLINEAR_SHARE = 0.01;

/**
 * Whether four corners can be a board seen from above, in the order zero/far, end/far, end/near, zero/near.
 * Refused: three of them on a line, sides that cross, and the order of a board seen in a mirror.
 */
export function checkQuad(corners: Quad): Result<Quad, QuadRefusal> {
  const turns = corners.map((corner, i) => turn(corner, at(corners, i + 1), at(corners, i + 2)));
  const size = Math.max(
    ...corners.map((corner, i) => squared(corner, at(corners, i + 1))),
    squared(corners[0], corners[2]),
  );
  if (turns.some((area) => !(Math.abs(area) > COLLINEAR_SHARE * size)))
    return { ok: false, code: 'collinear' };
  if (turns.every((area) => area > 0)) return { ok: true, value: corners };
  return { ok: false, code: turns.every((area) => area < 0) ? 'mirrored' : 'crossed' };
}

function at(corners: Quad, index: number): Point {
  return corners[index % 4];
}

function squared(a: Point, b: Point): number {
  return (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2;
}

/**
 * The homography that takes `from` to `to`: normalised direct linear transformation
 * (Hartley & Zisserman, Multiple View Geometry, 2nd ed., algorithm 4.2). Four pairs are met exactly, more in the
 * least-squares sense of the algebraic error.
 * @throws RangeError for fewer than four pairs or for points that fix no plane
 */
export function fitHomography(from: readonly Point[], to: readonly Point[]): Homography {
  if (from.length < 4 || from.length !== to.length) {
    throw new RangeError(`pairs: expected four or more, got ${from.length} and ${to.length}`);
  }
  const source = normalise(from);
  const target = normalise(to);
  const rows: number[][] = [];
  source.points.forEach(([x, y], i) => {
    const [u, v] = target.points[i];
    rows.push([-x, -y, -1, 0, 0, 0, u * x, u * y, u], [0, 0, 0, -x, -y, -1, v * x, v * y, v]);
  });
  // A ninth row of zeros makes four pairs a square system, so that the SVD gives the whole null space.
  while (rows.length < 9) rows.push(new Array<number>(9).fill(0));
  const svd = new SVD(new Matrix(rows), { computeLeftSingularVectors: false });
  const [largest = 0] = svd.diagonal;
  if (!((svd.diagonal[7] ?? 0) > 1e-9 * largest)) throw new RangeError('points: expected no three on a line');
  const smallest = Matrix.from1DArray(3, 3, svd.rightSingularVectors.getColumn(8));
  // Unit norm by the SVD: a determinant of nearly 0 folds the plane onto a line.
  if (!(Math.abs(determinant(smallest)) > 1e-9)) throw new RangeError('points: expected no three on a line');
  return scaled(inverse(target.transform).mmul(smallest).mmul(source.transform));
}

/** Moves the centroid to the origin and the mean distance from it to √2. */
function normalise(points: readonly Point[]): { points: Point[]; transform: Matrix } {
  const cx = points.reduce((sum, [x]) => sum + x, 0) / points.length;
  const cy = points.reduce((sum, [, y]) => sum + y, 0) / points.length;
  const mean = points.reduce((sum, [x, y]) => sum + Math.hypot(x - cx, y - cy), 0) / points.length;
  if (!(mean > 0)) throw new RangeError('points: expected different ones');
  const s = Math.SQRT2 / mean;
  return {
    points: points.map(([x, y]): Point => [(x - cx) * s, (y - cy) * s]),
    transform: new Matrix([
      [s, 0, -s * cx],
      [0, s, -s * cy],
      [0, 0, 1],
    ]),
  };
}

function scaled(matrix: Matrix): Homography {
  const w = matrix.get(2, 2);
  const [a, b, c, d, e, f, g, h, i] = matrix.to1DArray().map((value) => value / w);
  return [a, b, c, d, e, f, g, h, i];
}

export function invertHomography(homography: Homography): Homography {
  return scaled(inverse(toMatrix(homography)));
}

export function toMatrix(homography: Homography): Matrix {
  return Matrix.from1DArray(3, 3, [...homography]);
}

/** Where a point goes. A point on the line that goes to infinity gives infinite coordinates. */
export function mapPoint(h: Homography, [x, y]: Point): Point {
  const w = h[6] * x + h[7] * y + h[8];
  return [(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w];
}
