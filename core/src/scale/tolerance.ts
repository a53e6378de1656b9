/**
 * What a scale with an accuracy class may be off by: the maintenance tolerances of NIST Handbook 44, section 2.20, table 6,
 * and the smallest loads of its table 8. A scale without a class mark has no tolerance that anybody promised.
 */

/** Of scales as they stand on a weigh-in's table. */
export const ACCURACY_CLASSES = ['III', 'IIII'] as const;
export type AccuracyClass = (typeof ACCURACY_CLASSES)[number];

interface Row {
  /** Up to so many divisions on the scale, */
  most: number;
  /** it may be off by so many. */
  tolerance: number;
}

const TABLE_6: Record<AccuracyClass, readonly Row[]> = {
  III: [
    { most: 500, tolerance: 1 },
    { most: 2000, tolerance: 2 },
    { most: 4000, tolerance: 3 },
    { most: Infinity, tolerance: 5 },
  ],
  IIII: [
    { most: 50, tolerance: 1 },
    { most: 200, tolerance: 2 },
    { most: 400, tolerance: 3 },
    { most: Infinity, tolerance: 5 },
  ],
};

const TABLE_8: Record<AccuracyClass, number> = { III: 20, IIII: 10 };

/** A load that fell a hair over a row's end by its own rounding is not in the next one. */
const HAIR = 1e-6;

/** How far a scale in use may be off at a load, g. */
export function toleranceG(accuracyClass: AccuracyClass, divisionG: number, loadG: number): number {
  const divisions = Math.abs(loadG) / divisionG;
  const row = TABLE_6[accuracyClass].find(({ most }) => divisions <= most + HAIR);
  return (row?.tolerance ?? NaN) * divisionG;
}

/** The smallest load that such a scale is meant for, g. */
export function leastLoadG(accuracyClass: AccuracyClass, divisionG: number): number {
  return TABLE_8[accuracyClass] * divisionG;
}
