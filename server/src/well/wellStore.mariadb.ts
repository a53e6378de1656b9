import { and, count, eq } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { wellEntries } from '../storage/schema.ts';
import type { WellStore } from './wellStore.ts';

const { entryId, atMs, act, dayId } = wellEntries;
const ENTRY = { entryId, atMs, act };

export function mariadbWellStore(db: Connection): WellStore {
  return {
    async add(day, entries, heardAt) {
      await db.insert(wellEntries).values(entries.map((entry) => ({ ...day, ...entry, heardAt })));
    },
    async find(id) {
      const [row] = await db.select(ENTRY).from(wellEntries).where(eq(entryId, id));
      return row ?? null;
    },
    ofEntrant: (entrantId) =>
      db
        .select({ ...ENTRY, dayId })
        .from(wellEntries)
        .where(eq(wellEntries.entrantId, entrantId))
        .orderBy(atMs, entryId),
    ofEvent: (eventId) =>
      db
        .select({ ...ENTRY, entrantId: wellEntries.entrantId, dayId })
        .from(wellEntries)
        .where(eq(wellEntries.eventId, eventId)),
    async count(entrantId, day) {
      const [row] = await db
        .select({ count: count() })
        .from(wellEntries)
        .where(and(eq(wellEntries.entrantId, entrantId), eq(dayId, day)));
      return row?.count ?? 0;
    },
  };
}
