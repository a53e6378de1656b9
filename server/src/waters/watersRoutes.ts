import { eventScope, type RouteTable } from '../http/routeTable.ts';
import { currentWaters } from './currentWaters.ts';

export function addWatersRoutes(table: RouteTable): void {
  table.allowed('get', '/api/events/:eventId/waters', 'see-event', eventScope, ({ lauta }, { eventId }) =>
    currentWaters(lauta.storage.read, eventId),
  );
}
