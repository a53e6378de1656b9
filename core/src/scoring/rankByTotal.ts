import type { TieBreak } from '../rules/index.ts';
import type { EntrantId } from '../ids.ts';

/** Whatever is ranked: a total, and keys for the rules that set equal totals apart. */
export interface Ranked {
  entrantId: EntrantId;
  totalSteps: number;
  /** Compared place by place; the smaller one stands first. */
  keyOf: (rule: TieBreak) => readonly number[];
}

export interface Place {
  /** Standard competition ranking ("1224"): one more than the number of entrants who are strictly better. */
  rank: number;
  /** The rule that set this entrant apart from others with the same score, and who they are. */
  tieBreak: { rule: TieBreak; entrantIds: EntrantId[] } | null;
  /** Others with whom the rank is shared after every tie-break. */
  sharedWith: string[];
}

/** Best first; the result depends on the set alone, not on its order. */
export function rankByTotal<T extends Ranked>(
  all: readonly T[],
  tieBreaks: readonly TieBreak[],
): (T & Place)[] {
  const ranked = all.toSorted(
    (a, b) => compare(tieBreaks, a, b).order || (a.entrantId < b.entrantId ? -1 : 1),
  );
  return ranked.map((one, index) => ({ ...one, ...placeOf(tieBreaks, ranked, one, index) }));
}

function placeOf(
  tieBreaks: readonly TieBreak[],
  ranked: readonly Ranked[],
  one: Ranked,
  index: number,
): Place {
  // Equal scores stand side by side, so only that run has to be looked at.
  let first = index;
  while (first > 0 && ranked[first - 1]?.totalSteps === one.totalSteps) first--;
  let rank = first + 1;
  let deepest: TieBreak | null = null;
  const apart: string[] = [];
  const sharedWith: string[] = [];
  for (let i = first; i < ranked.length; i++) {
    const other = ranked[i];
    if (!other || other.totalSteps !== one.totalSteps) break;
    if (other === one) continue;
    const { order, rule } = compare(tieBreaks, one, other);
    if (order === 0) sharedWith.push(other.entrantId);
    else {
      apart.push(other.entrantId);
      if (rule && (deepest === null || tieBreaks.indexOf(rule) > tieBreaks.indexOf(deepest))) deepest = rule;
    }
    if (order > 0) rank++;
  }
  return { rank, tieBreak: deepest === null ? null : { rule: deepest, entrantIds: apart }, sharedWith };
}

/** Negative when `a` stands before `b`; the rule is null when the score alone decided. */
function compare(
  tieBreaks: readonly TieBreak[],
  a: Ranked,
  b: Ranked,
): { order: number; rule: TieBreak | null } {
  const byTotal = b.totalSteps - a.totalSteps;
  if (byTotal !== 0) return { order: byTotal, rule: null };
  for (const rule of tieBreaks) {
    const order = compareKeys(a.keyOf(rule), b.keyOf(rule));
    if (order !== 0) return { order, rule };
  }
  return { order: 0, rule: null };
}

function compareKeys(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < Math.max(a.length, b.length); i++) {
    const left = a[i] ?? 0;
    const right = b[i] ?? 0;
    if (left !== right) return left < right ? -1 : 1;
  }
  return 0;
}
