import { eq } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { flanks } from '../storage/schema.ts';
import type { FlankStore } from './flankStore.ts';

export function mariadbFlankStore(db: Connection): FlankStore {
  return {
    async put({ catchId, ...rest }) {
      await db
        .insert(flanks)
        .values({ catchId, ...rest })
        .onDuplicateKeyUpdate({ set: rest });
    },
    async inEvent(eventId) {
      return db.select().from(flanks).where(eq(flanks.eventId, eventId));
    },
  };
}
