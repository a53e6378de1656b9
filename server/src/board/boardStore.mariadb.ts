import { asc, eq } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { boards } from '../storage/schema.ts';
import type { BoardStore } from './boardStore.ts';

export function mariadbBoardStore(db: Connection): BoardStore {
  return {
    async add(eventId, board) {
      await db.insert(boards).values({ eventId, ...board });
    },
    async inEvent(eventId) {
      return db
        .select({
          boardId: boards.boardId,
          bytes: boards.bytes,
          sha256: boards.sha256,
          addedAt: boards.addedAt,
        })
        .from(boards)
        .where(eq(boards.eventId, eventId))
        .orderBy(asc(boards.addedAt), asc(boards.boardId));
    },
  };
}
