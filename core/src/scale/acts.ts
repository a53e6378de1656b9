/**
 * A scale's logbook, as acts of a list: the well's and the weigh-in's alike. A check of a scale that no entry describes
 * tells nothing: its kind may still arrive from the other phone.
 */
import type { ScaleKind, ScaleRecord } from './errorModel.ts';
import type { AccuracyClass } from './tolerance.ts';
import type { ScaleId } from '../ids.ts';

export type ScaleAct =
  | {
      kind: 'scale';
      scaleId: ScaleId;
      name: string;
      scale: ScaleKind;
      /** Marked on it; absent where there is no mark, and in what was written before marks were asked for. */
      accuracyClass?: AccuracyClass | undefined;
    }
  /** A known weight on the scale; an empty hook is a weight of zero. */
  | { kind: 'scale-check'; scaleId: ScaleId; trueG: number; readG: number }
  /** One thing weighed several times. */
  | { kind: 'scale-repeat'; scaleId: ScaleId; readG: number[] };

export interface NamedScale extends ScaleRecord {
  name: string;
  accuracyClass: AccuracyClass | null;
}

export type Scales = Map<string, NamedScale>;

const KINDS: readonly string[] = ['scale', 'scale-check', 'scale-repeat'] satisfies ScaleAct['kind'][];

export const isScaleAct = <A extends { kind: string }>(act: A): act is Extract<A, ScaleAct> =>
  KINDS.includes(act.kind);

/** Puts an act into the scales, which come in the order in which they were described. */
export function takeScaleAct(scales: Scales, atMs: number, act: ScaleAct): void {
  const { scaleId } = act;
  const scale = scales.get(scaleId);
  if (act.kind === 'scale') {
    const { name, scale: kind, accuracyClass = null } = act;
    scales.set(scaleId, { checks: [], repeats: [], ...scale, kind, name, accuracyClass });
    return;
  }
  if (!scale) return;
  const more =
    act.kind === 'scale-check'
      ? { checks: [...scale.checks, { atMs, trueG: act.trueG, readG: act.readG }] }
      : { repeats: [...scale.repeats, act.readG] };
  scales.set(scaleId, { ...scale, ...more });
}

/** Why a logbook's act is not taken. */
export const scaleRefusal = (scales: ReadonlyMap<string, unknown>, act: ScaleAct): 'no-such-scale' | null =>
  act.kind === 'scale' || scales.has(act.scaleId) ? null : 'no-such-scale';
