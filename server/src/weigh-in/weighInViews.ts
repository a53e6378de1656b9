import type { BagsView, WeighInView } from '@lauta/contract';
import { ticketState, weighInOf } from '@lauta/core/weigh-in';
import { liveWellOf } from '@lauta/core/well';
import { loadRuleBook } from '../rules/ruleBook.ts';
import { wellsOfEvent } from '../well/wellViews.ts';
import { sheetOfTicket } from './sheetOfTicket.ts';
import type { Stores } from '../storage/storage.ts';
import type { EventId } from '@lauta/core/ids';

export async function weighInView(stores: Stores, eventId: EventId): Promise<WeighInView> {
  const entries = await stores.weighIns.ofEvent(eventId);
  const entrants = await stores.people.entrantsOf(eventId);
  const people: Record<string, string> = {};
  for (const accountId of new Set(entries.map((one) => one.accountId))) {
    people[accountId] = (await stores.people.findAccount(accountId))?.name ?? '';
  }
  return {
    entries,
    people,
    entrants: entrants.map(({ entrantId, number, name }) => ({ entrantId, number, name })),
    declared: await declaredCounts(stores, eventId),
  };
}

async function declaredCounts(stores: Stores, eventId: EventId): Promise<WeighInView['declared']> {
  const wells = await wellsOfEvent(stores, eventId);
  return wells.flatMap(({ entrantId, dayId, entries }) => {
    const count = liveWellOf(entries).declared?.count;
    return count === undefined ? [] : [{ entrantId, dayId, count }];
  });
}

/** Numbers and calls, for whoever waits for a turn. */
export async function bagsView(stores: Stores, eventId: EventId): Promise<BagsView> {
  const book = await loadRuleBook(stores, eventId);
  const names = new Map((await stores.people.entrantsOf(eventId)).map((one) => [one.entrantId, one.name]));
  const { tickets } = weighInOf(await stores.weighIns.ofEvent(eventId));
  return {
    bags: tickets.flatMap((ticket) => {
      const sheet = sheetOfTicket(book, ticket);
      return sheet
        ? [
            {
              ticketId: ticket.ticketId,
              dayId: ticket.dayId,
              entrantId: ticket.entrantId,
              name: names.get(ticket.entrantId) ?? '',
              number: ticket.number,
              state: ticketState(sheet, ticket),
            },
          ]
        : [];
    }),
  };
}
