import type { PhotoRecord } from '@lauta/sim/photos';

/** A tilt that the rules don't allow is a fault whether it was drawn on purpose or not. */
const TILT_LIMIT_DEG = 20;

/** What is wrong with a simulated photograph: what was drawn on purpose, and what came about. */
export function faultsOf(record: PhotoRecord): Set<string> {
  const faults = new Set(record.faults);
  if (!record.identifier) faults.add('identifier-missing');
  if (record.tiltDeg > TILT_LIMIT_DEG) faults.add('steep-camera');
  const [zero, end] = record.corners;
  // Scenes that are turned half round show the stop at the right.
  if (zero && end && end[0] < zero[0]) faults.add('facing-right');
  return faults;
}
