import { leastLoadG, judgeScale, withinTolerance, type NamedScale } from '../scale/index.ts';

/** Why a weight off a scale may be questioned. Told, never in the way: a bag cannot wait for a check weight. */
export type ScaleDoubt =
  /** Nobody said what scale it is. */
  | 'unknown'
  /** No check today. */
  | 'unchecked'
  /** The last known weight on it was off by more than its class allows. */
  | 'outside-tolerance'
  /** Lighter than such a scale is meant to weigh. */
  | 'under-least-load';

/**
 * What is wrong with weighing by a scale now.
 * @param loadG what hangs or lies on it; null before anything does
 */
export function scaleDoubts(
  scale: NamedScale | undefined,
  loadG: number | null,
  nowMs: number,
): ScaleDoubt[] {
  if (!scale) return ['unknown'];
  const { kind, accuracyClass, checks } = scale;
  const doubts: ScaleDoubt[] = [];
  const last = checks.findLast(({ trueG, atMs }) => trueG > 0 && atMs <= nowMs);
  if (last && withinTolerance(scale, last) === false) doubts.push('outside-tolerance');
  // Neither the load nor the step matters for when it is due.
  if (judgeScale(scale, loadG ?? 0, kind.divisionG, nowMs).isDue) doubts.push('unchecked');
  if (accuracyClass !== null && loadG !== null && loadG < leastLoadG(accuracyClass, kind.divisionG))
    doubts.push('under-least-load');
  return doubts;
}
