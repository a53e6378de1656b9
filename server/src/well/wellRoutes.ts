import { entrantScope, type RouteTable } from '../http/routeTable.ts';
import { wellView } from './wellViews.ts';

export function addWellRoutes(table: RouteTable): void {
  table.allowed(
    'get',
    '/api/events/:eventId/entrants/:entrantId/well',
    'see-well',
    entrantScope,
    ({ lauta }, { entrantId }) => wellView(lauta.storage.read, entrantId ?? ''),
  );
}
