import { isWeightSheet } from '@lauta/core/rules';
import { rankEntrants, rankTickets, type ScoringCatch, type Standing } from '@lauta/core/scoring';
import { weighInOf } from '@lauta/core/weigh-in';
import { scoringCatch } from '../catch/catchState.ts';
import type { Entrant } from '../people/peopleStore.ts';
import { loadRuleBook } from '../rules/ruleBook.ts';
import { linesOutOf } from '../weigh-in/weighInRoutes.ts';
import type { Stores } from '../storage/storage.ts';

export interface Standings {
  /** The ledger's place that they stand for. */
  seq: number;
  ruleVersion: number | null;
  entrants: Entrant[];
  standings: Standing[];
}

export interface StandingsQuestion {
  include: 'all' | 'official';
  dayId: string | null;
}

/** The standings computed anew from catches and verdicts. */
export async function computeStandings(
  stores: Stores,
  eventId: string,
  { include, dayId }: StandingsQuestion,
): Promise<Standings> {
  const head = await stores.ledger.head(eventId);
  const entrants = await stores.people.entrantsOf(eventId);
  const book = await loadRuleBook(stores, eventId);
  if (!book) return { seq: head?.seq ?? 0, ruleVersion: null, entrants, standings: [] };
  const { current: sheet, currentVersion: ruleVersion } = book;
  const entrantIds = entrants.map((one) => one.entrantId);
  if (isWeightSheet(sheet)) {
    const { tickets } = weighInOf(await stores.weighIns.ofEvent(eventId));
    const asked = tickets.filter((ticket) => dayId === null || ticket.dayId === dayId);
    const standings = rankTickets(sheet, entrantIds, asked, await linesOutOf(stores, eventId), { include });
    return { seq: head?.seq ?? 0, ruleVersion, entrants, standings };
  }
  const verdicts = await stores.catches.lastVerdictsIn(eventId);
  const records = await stores.catches.allOf(eventId);
  const catches: ScoringCatch[] = records
    .filter((record) => dayId === null || record.dayId === dayId)
    .map((record) => scoringCatch(record, verdicts.get(record.catchId)));
  const standings = rankEntrants(book, entrantIds, catches, { include });
  return { seq: head?.seq ?? 0, ruleVersion, entrants, standings };
}

const KEPT = 64;

/** Remembers standings by the ledger's head: between two entries nothing that scores can change. */
export function standingsMemory() {
  const kept = new Map<string, Promise<Standings>>();
  return async (stores: Stores, eventId: string, question: StandingsQuestion): Promise<Standings> => {
    const head = await stores.ledger.head(eventId);
    const key = [eventId, head?.hash, question.include, question.dayId].join(' ');
    const known = kept.get(key);
    if (known) return known;
    const computing = computeStandings(stores, eventId, question);
    kept.set(key, computing);
    computing.catch(() => kept.delete(key));
    for (const oldest of kept.keys()) {
      if (kept.size <= KEPT) break;
      kept.delete(oldest);
    }
    return computing;
  };
}
