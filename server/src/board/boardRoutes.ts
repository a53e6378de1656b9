import type { BoardView } from '@lauta/contract';
import { eventScope, type RouteTable } from '../http/routeTable.ts';
import { readBoardProfile } from './eventBoards.ts';

export function addBoardRoutes(table: RouteTable): void {
  table.allowed(
    'get',
    '/api/events/:eventId/boards',
    'see-event',
    eventScope,
    async ({ lauta }, { eventId }) => {
      const stored = await lauta.storage.read.boards.inEvent(eventId);
      return stored.map((board): BoardView => ({
        profile: readBoardProfile(board),
        sha256: board.sha256,
        addedAt: board.addedAt.toISOString(),
      }));
    },
  );
}
