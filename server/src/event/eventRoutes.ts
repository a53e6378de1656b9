import type { EventView, RuleSheetView } from '@lauta/contract';
import { eventScope, type RouteTable } from '../http/routeTable.ts';
import type { Stores } from '../storage/storage.ts';
import type { LautaEvent } from './eventStore.ts';

export function addEventRoutes(table: RouteTable): void {
  table.anyone('get', '/api/events', async ({ lauta, account }) => {
    const stores = lauta.storage.read;
    const all = await stores.events.visibleTo(account?.accountId ?? null);
    // A partner's phone hears of the one event that it was paired for, and of what is public.
    const pairing = account?.pairing ?? null;
    const events = all.filter(({ eventId, isPublic }) => !pairing || isPublic || eventId === pairing.eventId);
    return Promise.all(events.map((event) => eventView(stores, event)));
  });

  table.allowed('get', '/api/events/:eventId', 'see-event', eventScope, async ({ lauta }, { eventId }) => {
    const stores = lauta.storage.read;
    const event = await stores.events.find(eventId);
    return event ? eventView(stores, event) : undefined;
  });

  table.allowed(
    'get',
    '/api/events/:eventId/rules',
    'see-event',
    eventScope,
    async ({ lauta }, { eventId }) => {
      const sheets = await lauta.storage.read.rules.versions(eventId);
      return sheets.map(({ version, sha256, publishedAt, bytes }): RuleSheetView => ({
        version,
        sha256,
        publishedAt: publishedAt.toISOString(),
        text: Buffer.from(bytes).toString('utf8'),
      }));
    },
  );
}

async function eventView(stores: Stores, event: LautaEvent): Promise<EventView> {
  const { eventId } = event;
  const [days, sessions, sheets, entrants, catches, undecided] = await Promise.all([
    stores.events.days(eventId),
    stores.events.sessions(eventId),
    stores.rules.versions(eventId),
    stores.people.entrantsOf(eventId),
    stores.catches.countIn(eventId),
    stores.catches.countIn(eventId, ['undecided', 'answered']),
  ]);
  return {
    ...event,
    days: days.map(({ codesFrom, ...day }) => ({ ...day, codesFrom: codesFrom?.toISOString() ?? null })),
    sessions: sessions.map(({ linesInAt, linesOutAt, ...session }) => ({
      ...session,
      linesInAt: linesInAt.toISOString(),
      linesOutAt: linesOutAt.toISOString(),
    })),
    ruleVersion: sheets.at(-1)?.version ?? null,
    officialAt: event.officialAt?.toISOString() ?? null,
    entrants: entrants.length,
    catches,
    undecided,
  };
}
