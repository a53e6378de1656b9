import { isWeightSheet, type WeightSheet } from '@lauta/core/rules';
import { stepsFromG } from '@lauta/core/units';
import { liveWellOf, waterTotalG } from '@lauta/core/well';
import { rankEntrants, rankTickets, type ScoringCatch, type Standing } from '@lauta/core/scoring';
import { weighInOf, type Ticket } from '@lauta/core/weigh-in';
import { scoringCatch } from '../catch/scoringCatch.ts';
import type { Entrant } from '../access/peopleStore.ts';
import { loadRuleBook } from '../rules/ruleBook.ts';
import { wellsOfEvent } from '../well/wellViews.ts';
import { sheetOfTicket } from '../weigh-in/sheetOfTicket.ts';
import { linesOutOf } from '../event/linesOut.ts';
import type { Stores } from '../storage/storage.ts';
import type { DayId, EntrantId, EventId } from '@lauta/core/ids';

export interface Standings {
  /** The ledger's place that they stand for. */
  seq: number;
  ruleVersion: number | null;
  entrants: Entrant[];
  standings: Standing[];
  /** Totals that boats share from the water, unofficial. */
  onWater: { entrantId: EntrantId; steps: number; fish: number }[];
}

export interface StandingsQuestion {
  include: 'all' | 'official';
  dayId: DayId | null;
}

/** The standings computed anew from catches and verdicts. */
export async function computeStandings(
  stores: Stores,
  eventId: EventId,
  { include, dayId }: StandingsQuestion,
): Promise<Standings> {
  const head = await stores.ledger.head(eventId);
  const entrants = await stores.people.entrantsOf(eventId);
  const book = await loadRuleBook(stores, eventId);
  if (!book) return { seq: head?.seq ?? 0, ruleVersion: null, entrants, standings: [], onWater: [] };
  const { current: sheet, currentVersion: ruleVersion } = book;
  const entrantIds = entrants.map((one) => one.entrantId);
  if (isWeightSheet(sheet)) {
    const { tickets } = weighInOf(await stores.weighIns.ofEvent(eventId));
    const asked = tickets.filter((ticket) => dayId === null || ticket.dayId === dayId);
    const sheetOf = (ticket: Ticket): WeightSheet => sheetOfTicket(book, ticket) ?? sheet;
    const standings = rankTickets(sheet, sheetOf, entrantIds, asked, await linesOutOf(stores, eventId), {
      include,
    });
    const onWater = await sharedTotals(stores, eventId, sheet, tickets, dayId);
    return { seq: head?.seq ?? 0, ruleVersion, entrants, standings, onWater };
  }
  const officialAt = (await stores.events.find(eventId))?.officialAt ?? null;
  const verdicts = await stores.catches.lastVerdictsIn(eventId);
  const records = await stores.catches.allOf(eventId);
  const catches: ScoringCatch[] = records
    .filter((record) => dayId === null || record.dayId === dayId)
    // What came after the results were declared is kept, and changes them no more.
    .filter(({ receivedAt }) => !officialAt || receivedAt <= officialAt)
    .map((record) => scoringCatch(record, verdicts.get(record.catchId)));
  const standings = rankEntrants(book, entrantIds, catches, { include });
  return { seq: head?.seq ?? 0, ruleVersion, entrants, standings, onWater: [] };
}

/** What boats say from the water of the last day that has a well, where they share it and no bag is weighed yet. */
async function sharedTotals(
  stores: Stores,
  eventId: EventId,
  sheet: WeightSheet,
  tickets: readonly Ticket[],
  dayId: DayId | null,
): Promise<Standings['onWater']> {
  const wells = await wellsOfEvent(stores, eventId);
  const days = (await stores.events.days(eventId)).map((day) => day.dayId);
  const last = dayId ?? days.findLast((id) => wells.some((one) => one.dayId === id));
  return wells.flatMap(({ entrantId, dayId: of, entries }) => {
    const isWeighed = tickets.some((one) => one.entrantId === entrantId && one.dayId === of && one.weight);
    if (of !== last || isWeighed) return [];
    const well = liveWellOf(entries);
    if (!well.isShared) return [];
    const steps = stepsFromG(Math.max(0, waterTotalG(sheet, well)), sheet.measure.step, 'nearest');
    return [{ entrantId, steps, fish: well.fish.length }];
  });
}

const KEPT = 64;

/** Remembers standings by the ledger's head: between two entries nothing that scores can change. */
export function standingsMemory() {
  const kept = new Map<string, Promise<Standings>>();
  return async (stores: Stores, eventId: EventId, question: StandingsQuestion): Promise<Standings> => {
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
