import { sheetOfVersion, type RuleBook, type RuleSheet, type TieBreak } from '../rules/index.ts';
import type { StepId } from '../units/index.ts';
import { completedAtMs, fillBag, type Bag } from './bag.ts';
import { rankByTotal, type Place } from './rankByTotal.ts';
import { scoreFish, type ScoringCatch } from './scoreFish.ts';
import type { EntrantId } from '../ids.ts';

/** A total: what was measured and how many whole steps of it. */
export interface Score {
  measure: StepId;
  steps: number;
}

/** What every standing tells. */
export interface StandingOf extends Place {
  entrantId: EntrantId;
  score: Score;
  /** Steps of the score that nobody has decided on yet: no judge, or no signature. */
  provisionalSteps: number;
}

/** A standing by catches and verdicts. */
export interface CatchStanding extends StandingOf {
  kind: 'catches';
  bag: Bag;
}

export interface RankOptions {
  /** `all` counts undecided fish too; `official` only what a judge accepted. */
  include: 'all' | 'official';
}

/**
 * The standings at a moment, best first. Entrants without a fish stand last, at rank of their score of zero.
 * The result depends on the set of catches alone, not on their order. Each fish scores by its own version of the
 * rule sheet; bag and ties go by the current one.
 */
export function rankEntrants(
  book: RuleBook,
  entrantIds: readonly EntrantId[],
  catches: readonly ScoringCatch[],
  { include }: RankOptions,
): CatchStanding[] {
  const sheet = book.current;
  const byEntrant = new Map<string, ScoringCatch[]>(entrantIds.map((id) => [id, []]));
  for (const caught of catches) byEntrant.get(caught.entrantId)?.push(caught);
  const bags = [...byEntrant].map(([entrantId, own]) => {
    const fish = own
      .map((caught) => scoreFish(sheetOfVersion(book, caught.ruleVersion), caught))
      .filter((one) => include === 'all' || one.standing === 'official' || one.notCounting !== null);
    const bag = fillBag(sheet, fish);
    return { entrantId, bag, totalSteps: bag.totalSteps, keyOf: keysOf(sheet, bag) };
  });
  return rankByTotal(bags, sheet.tieBreaks).map(({ entrantId, bag, rank, tieBreak, sharedWith }) => ({
    kind: 'catches',
    entrantId,
    rank,
    score: { measure: sheet.measure.step, steps: bag.totalSteps },
    bag,
    provisionalSteps: bag.counting
      .filter((fish) => fish.standing === 'provisional')
      .reduce((sum, fish) => sum + fish.scoreSteps, 0),
    tieBreak,
    sharedWith,
  }));
}

/** A bag's keys, each worked out once. */
function keysOf(sheet: RuleSheet, bag: Bag): (rule: TieBreak) => readonly number[] {
  const known = new Map<TieBreak, readonly number[]>();
  return (rule) => {
    const key = known.get(rule) ?? keyOf(sheet, bag, rule);
    known.set(rule, key);
    return key;
  };
}

function keyOf(sheet: RuleSheet, bag: Bag, rule: TieBreak): readonly number[] {
  const sizes = bag.counting.map((fish) => -fish.scoreSteps);
  switch (rule) {
    case 'biggest-fish':
      return sizes.slice(0, 1);
    case 'next-biggest':
      return sizes.slice(1);
    case 'earliest-completion':
      return [completedAtMs(sheet, bag) ?? Infinity];
    case 'more-alive':
      // A fish that counts by its photograph was alive; the scale's tickets know of dead ones.
      return [];
  }
}
