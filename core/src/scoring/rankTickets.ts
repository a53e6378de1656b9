import type { TieBreak, WeightSheet } from '../rules/index.ts';

import {
  scoreTicket,
  ticketState,
  type Ticket,
  type TicketScore,
  type TicketState,
} from '../weigh-in/index.ts';
import type { RankOptions, StandingOf } from './rankEntrants.ts';
import { rankByTotal } from './rankByTotal.ts';
import type { DayId, EntrantId, TicketId } from '../ids.ts';

/** A bag of the scale, as the standings show it. */
export interface TicketLine {
  ticketId: TicketId;
  dayId: DayId;
  number: number;
  state: TicketState;
  arrivedAtMs: number;
  score: TicketScore;
}

/** A standing by bags that were weighed, day by day. */
export interface TicketStanding extends StandingOf {
  kind: 'tickets';
  tickets: TicketLine[];
}

/**
 * The standings by weight, best first: the days' bags are added up. A bag counts once it is weighed; as long as it is not
 * confirmed and signed its steps are provisional, and `official` leaves them out.

 * A bag is scored by the version of the sheet that was in force when it arrived; ties go by the current one. Of two bags
 * of a boat and day, as two stations without a network may give out, the first that was weighed counts.
 * @param sheetOf the sheet of a bag
 * @param linesOutMs end of each day's last session, by its id, ms since 1970
 */
export function rankTickets(
  sheet: WeightSheet,
  sheetOf: (ticket: Ticket) => WeightSheet,
  entrantIds: readonly EntrantId[],
  tickets: readonly Ticket[],
  linesOutMs: ReadonlyMap<string, number>,
  { include }: RankOptions,
): TicketStanding[] {
  const lines = new Map<string, TicketLine[]>(entrantIds.map((id) => [id, []]));
  for (const ticket of oneADay(tickets)) {
    const own = sheetOf(ticket);
    const state = ticketState(own, ticket);
    if (include === 'official' && state !== 'signed') continue;
    const score = scoreTicket(own, ticket, linesOutMs.get(ticket.dayId) ?? Infinity);
    const { ticketId, dayId, number, arrivedAtMs } = ticket;
    lines.get(ticket.entrantId)?.push({ ticketId, dayId, number, state, arrivedAtMs, score });
  }
  const bags = [...lines].map(([entrantId, own]) => ({
    entrantId,
    tickets: own.sort((a, b) => a.arrivedAtMs - b.arrivedAtMs),
    totalSteps: own.reduce((sum, { score }) => sum + score.totalSteps, 0),
    keyOf: (rule: TieBreak) => keyOf(own, rule),
  }));
  return rankByTotal(bags, sheet.tieBreaks).map((one) => ({
    kind: 'tickets',
    entrantId: one.entrantId,
    rank: one.rank,
    score: { measure: sheet.measure.step, steps: one.totalSteps },
    tickets: one.tickets,
    provisionalSteps: one.tickets
      .filter(({ state }) => state !== 'signed')
      .reduce((sum, { score }) => sum + score.totalSteps, 0),
    tieBreak: one.tieBreak,
    sharedWith: one.sharedWith,
  }));
}

/** The first weighed bag of each boat and day, else its first. */
function oneADay(tickets: readonly Ticket[]): Ticket[] {
  const byBoat = new Map<string, Ticket>();
  for (const ticket of tickets.toSorted((a, b) => a.arrivedAtMs - b.arrivedAtMs)) {
    const key = `${ticket.entrantId} ${ticket.dayId}`;
    const former = byBoat.get(key);
    if (!former || (!former.weight && ticket.weight)) byBoat.set(key, ticket);
  }
  return [...byBoat.values()];
}

function keyOf(tickets: readonly TicketLine[], rule: TieBreak): readonly number[] {
  const counting = tickets.filter(({ score }) => !score.isDisqualified);
  switch (rule) {
    case 'biggest-fish':
      return [-Math.max(0, ...counting.map(({ score }) => score.bigFishSteps ?? 0))];
    case 'next-biggest':
      // Of a bag only its biggest fish is weighed alone.
      return [];
    case 'more-alive':
      return [-counting.reduce((sum, { score }) => sum + score.alive, 0)];
    case 'earliest-completion':
      return [Math.max(-Infinity, ...counting.map(({ arrivedAtMs }) => arrivedAtMs))];
  }
}
