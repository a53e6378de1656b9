import { eventScope, type RouteTable } from '../http/routeTable.ts';
import { ownEntrantIds } from '../access/scope.ts';
import { specimensView } from './specimensView.ts';

export function addSpecimenRoutes(table: RouteTable): void {
  table.allowed(
    'get',
    '/api/events/:eventId/specimens',
    'see-specimens',
    eventScope,
    ({ lauta }, { eventId }) => specimensView(lauta.storage.read, eventId),
  );
  table.signedIn('get', '/api/events/:eventId/own-specimens', async (asked) => {
    const { eventId } = await eventScope(asked);
    const stores = asked.lauta.storage.read;
    return specimensView(stores, eventId, await ownEntrantIds(stores, asked.account, eventId));
  });
}
