import { and, desc, eq } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { waters } from '../storage/schema.ts';
import type { WatersStore } from './watersStore.ts';

export function mariadbWatersStore(db: Connection): WatersStore {
  return {
    async add(eventId, stored) {
      await db.insert(waters).values({ eventId, ...stored });
    },
    async find(eventId, version) {
      const [row] = await db
        .select()
        .from(waters)
        .where(and(eq(waters.eventId, eventId), eq(waters.version, version)));
      return row ?? null;
    },
    async latest(eventId) {
      const [row] = await db
        .select()
        .from(waters)
        .where(eq(waters.eventId, eventId))
        .orderBy(desc(waters.version))
        .limit(1);
      return row ?? null;
    },
  };
}
