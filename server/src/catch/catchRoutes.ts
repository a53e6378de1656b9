import type { CatchState } from '@lauta/core/catch';
import {
  eventScope,
  idParameter,
  isFound,
  pageAsked,
  searchAsked,
  type RouteTable,
} from '../http/routeTable.ts';
import { ownEntrantIds } from '../access/scope.ts';
import type { Stores } from '../storage/storage.ts';
import { catchesCsv } from './catchesCsv.ts';
import { catchScope } from './catchScope.ts';
import { listCatches, viewCatch } from './catchViews.ts';
import type { EventId } from '@lauta/core/ids';

const WAITING: readonly CatchState[] = ['undecided', 'answered'];
const DECIDED: readonly CatchState[] = ['accepted', 'refused', 'sent-back', 'withdrawn'];

export function addCatchRoutes(table: RouteTable): void {
  table.signedIn('get', '/api/events/:eventId/own-catches', async (asked) => {
    const { lauta, request, account } = asked;
    const { eventId } = await eventScope(asked);
    const stores = lauta.storage.read;
    const { page, pageSize, offset } = pageAsked(request);
    const entrantIds = await ownEntrantIds(stores, account, eventId);
    const found = await listCatches(stores, eventId, {
      entrantIds,
      ...(request.query['state'] === 'sent-back' ? { states: ['sent-back'] as const } : {}),
      order: 'newest',
      offset,
      limit: pageSize,
    });
    return { ...found, page, pageSize };
  });

  table.allowed('get', '/api/events/:eventId/queue', 'see-queue', eventScope, async (asked, { eventId }) => {
    const { page, pageSize, offset } = pageAsked(asked.request);
    const decided = asked.request.query['decided'] === 'true';
    const stores = asked.lauta.storage.read;
    const search = searchAsked(asked.request);
    const entrantIds = search === '' ? null : await findEntrants(stores, eventId, search);
    const found = await listCatches(stores, eventId, {
      ...(entrantIds ? { entrantIds } : {}),
      states: decided ? DECIDED : WAITING,
      order: decided ? 'newest' : 'oldest',
      offset,
      limit: pageSize,
    });
    return { ...found, page, pageSize };
  });

  table.allowed('get', '/api/events/:eventId/catches.csv', 'see-queue', eventScope, (asked, { eventId }) =>
    catchesCsv(asked, eventId, null),
  );

  table.signedIn('get', '/api/events/:eventId/own-catches.csv', async (asked) => {
    const { eventId } = await eventScope(asked);
    return catchesCsv(asked, eventId, await ownEntrantIds(asked.lauta.storage.read, asked.account, eventId));
  });

  table.allowed(
    'get',
    '/api/catches/:catchId',
    'see-catch',
    catchScope,
    async ({ lauta, request }, _scope, subject) =>
      (await viewCatch(lauta.storage.read, idParameter(request, 'catchId'), subject, lauta.clock.now())) ??
      undefined,
  );
}

async function findEntrants(stores: Stores, eventId: EventId, search: string): Promise<string[]> {
  const entrants = await stores.people.entrantsOf(eventId);
  return entrants.filter((one) => isFound(one, search)).map((one) => one.entrantId);
}
