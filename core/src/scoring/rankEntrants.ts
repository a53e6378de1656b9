import { sheetOfVersion, type RuleBook, type RuleSheet, type TieBreak } from '../rules/index.ts';
import type { StepId } from '../units/index.ts';
import { completedAtMs, fillBag, type Bag } from './bag.ts';
import { scoreFish, type ScoringCatch } from './scoreFish.ts';

/** A total: what was measured and how many whole steps of it. */
export interface Score {
  measure: StepId;
  steps: number;
}

export interface Standing {
  entrantId: string;
  /** Standard competition ranking ("1224"): one more than the number of entrants who are strictly better. */
  rank: number;
  score: Score;
  bag: Bag;
  /** Steps of the score that a judge has not decided on yet. */
  provisionalSteps: number;
  /** The rule that set this entrant apart from others with the same score, and who they are. */
  tieBreak: { rule: TieBreak; entrantIds: string[] } | null;
  /** Others with whom the rank is shared after every tie-break. */
  sharedWith: string[];
}

export interface RankOptions {
  /** `all` counts undecided fish too; `official` only what a judge accepted. */
  include: 'all' | 'official';
}

interface Ranked {
  entrantId: string;
  bag: Bag;
  keys: Map<TieBreak, readonly number[]>;
}

/**
 * The standings at a moment, best first. Entrants without a fish stand last, at rank of their score of zero.
 * The result depends on the set of catches alone, not on their order. Each fish scores by its own version of the
 * rule sheet; bag and ties go by the current one.
 */
export function rankEntrants(
  book: RuleBook,
  entrantIds: readonly string[],
  catches: readonly ScoringCatch[],
  { include }: RankOptions,
): Standing[] {
  const sheet = book.current;
  const byEntrant = new Map<string, ScoringCatch[]>(entrantIds.map((id) => [id, []]));
  for (const caught of catches) byEntrant.get(caught.entrantId)?.push(caught);
  const ranked = [...byEntrant].map(([entrantId, own]): Ranked => {
    const fish = own
      .map((caught) => scoreFish(sheetOfVersion(book, caught.ruleVersion), caught))
      .filter((one) => include === 'all' || one.standing === 'official' || one.notCounting !== null);
    return { entrantId, bag: fillBag(sheet, fish), keys: new Map() };
  });
  ranked.sort((a, b) => compare(sheet, a, b).order || (a.entrantId < b.entrantId ? -1 : 1));
  return ranked.map((one, index) => standingOf(sheet, ranked, one, index));
}

function standingOf(sheet: RuleSheet, ranked: readonly Ranked[], one: Ranked, index: number): Standing {
  // Equal scores stand side by side, so only that run has to be looked at.
  let first = index;
  while (first > 0 && ranked[first - 1]?.bag.totalSteps === one.bag.totalSteps) first--;
  let rank = first + 1;
  let deepest: TieBreak | null = null;
  const apart: string[] = [];
  const sharedWith: string[] = [];
  for (let i = first; i < ranked.length; i++) {
    const other = ranked[i];
    if (!other || other.bag.totalSteps !== one.bag.totalSteps) break;
    if (other === one) continue;
    const { order, rule } = compare(sheet, one, other);
    if (order === 0) sharedWith.push(other.entrantId);
    else {
      apart.push(other.entrantId);
      if (rule && (deepest === null || sheet.tieBreaks.indexOf(rule) > sheet.tieBreaks.indexOf(deepest))) {
        deepest = rule;
      }
    }
    if (order > 0) rank++;
  }
  return {
    entrantId: one.entrantId,
    rank,
    score: { measure: sheet.measure.step, steps: one.bag.totalSteps },
    bag: one.bag,
    provisionalSteps: one.bag.counting
      .filter((fish) => fish.standing === 'provisional')
      .reduce((sum, fish) => sum + fish.scoreSteps, 0),
    tieBreak: deepest === null ? null : { rule: deepest, entrantIds: apart },
    sharedWith,
  };
}

/** Negative when `a` stands before `b`; the rule is null when the score alone decided. */
function compare(sheet: RuleSheet, a: Ranked, b: Ranked): { order: number; rule: TieBreak | null } {
  const byTotal = b.bag.totalSteps - a.bag.totalSteps;
  if (byTotal !== 0) return { order: byTotal, rule: null };
  for (const rule of sheet.tieBreaks) {
    const order = compareKeys(keyOf(sheet, a, rule), keyOf(sheet, b, rule));
    if (order !== 0) return { order, rule };
  }
  return { order: 0, rule: null };
}

/** Keys are compared place by place; the smaller one stands first. */
function keyOf(sheet: RuleSheet, one: Ranked, rule: TieBreak): readonly number[] {
  const known = one.keys.get(rule);
  if (known) return known;
  const lengths = one.bag.counting.map((fish) => -fish.scoreSteps);
  const key =
    rule === 'biggest-fish'
      ? lengths.slice(0, 1)
      : rule === 'next-biggest'
        ? lengths.slice(1)
        : rule === 'earliest-completion'
          ? [completedAtMs(sheet, one.bag) ?? Infinity]
          : // A fish that counts by its photograph was alive; the scale's tickets know of dead ones.
            [];
  one.keys.set(rule, key);
  return key;
}

function compareKeys(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < Math.max(a.length, b.length); i++) {
    const left = a[i] ?? 0;
    const right = b[i] ?? 0;
    if (left !== right) return left < right ? -1 : 1;
  }
  return 0;
}
