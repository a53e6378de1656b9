import type { CatchState } from '@lauta/contract';
import { eventScope, idParameter, pageAsked, type Asked, type RouteTable } from '../http/routeTable.ts';
import type { Scope } from '../people/subject.ts';
import { refuse } from '../refusal.ts';
import { listCatches, viewCatch } from './catchViews.ts';

const WAITING: readonly CatchState[] = ['undecided', 'answered'];
const DECIDED: readonly CatchState[] = ['accepted', 'refused', 'sent-back', 'withdrawn'];

export function addCatchRoutes(table: RouteTable): void {
  table.signedIn('get', '/api/events/:eventId/own-catches', async (asked) => {
    const { lauta, request, account } = asked;
    const { eventId } = await eventScope(asked);
    const stores = lauta.storage.read;
    const own = await stores.people.entrantsWith(account.accountId);
    const { page, pageSize, offset } = pageAsked(request);
    const entrantIds = own.filter((one) => one.eventId === eventId).map((one) => one.entrantId);
    const found = await listCatches(stores, eventId, {
      entrantIds,
      order: 'newest',
      offset,
      limit: pageSize,
    });
    return { ...found, page, pageSize };
  });

  table.allowed('get', '/api/events/:eventId/queue', 'see-queue', eventScope, async (asked, { eventId }) => {
    const { page, pageSize, offset } = pageAsked(asked.request);
    const decided = asked.request.query['decided'] === 'true';
    const found = await listCatches(asked.lauta.storage.read, eventId, {
      states: decided ? DECIDED : WAITING,
      order: decided ? 'newest' : 'oldest',
      offset,
      limit: pageSize,
    });
    return { ...found, page, pageSize };
  });

  table.allowed(
    'get',
    '/api/catches/:catchId',
    'see-catch',
    catchScope,
    async ({ lauta, request }, _scope, subject) =>
      (await viewCatch(lauta.storage.read, idParameter(request, 'catchId'), subject)) ?? undefined,
  );
}

async function catchScope({ lauta, request }: Asked): Promise<Scope & { eventId: string }> {
  const record = await lauta.storage.read.catches.find(idParameter(request, 'catchId'));
  if (!record) refuse('not-found', { what: 'catch' });
  return { eventId: record.eventId, entrantId: record.entrantId };
}
