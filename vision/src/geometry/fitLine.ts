import type { Point } from './point.ts';

/** A straight line y = yMean + slope · (x − xMean). */
export interface FittedLine {
  xMean: number;
  yMean: number;
  slope: number;
}

/** The line with the least squares of what it misses in y. NaN for a slope that nothing tells. */
export function fitLine(points: readonly Point[]): FittedLine {
  const xMean = points.reduce((sum, [x]) => sum + x, 0) / points.length;
  const yMean = points.reduce((sum, [, y]) => sum + y, 0) / points.length;
  const slope =
    points.reduce((sum, [x, y]) => sum + (x - xMean) * (y - yMean), 0) /
    points.reduce((sum, [x]) => sum + (x - xMean) ** 2, 0);
  return { xMean, yMean, slope };
}
