import { eq } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { weighInEntries } from '../storage/schema.ts';
import type { WeighInStore } from './weighInStore.ts';

const { entryId, eventId, atMs, accountId, act } = weighInEntries;
const ENTRY = { entryId, atMs, accountId, act };

export function mariadbWeighInStore(db: Connection): WeighInStore {
  return {
    async add(event, entries, heardAt) {
      await db.insert(weighInEntries).values(entries.map((entry) => ({ eventId: event, ...entry, heardAt })));
    },
    async find(id) {
      const [row] = await db.select(ENTRY).from(weighInEntries).where(eq(entryId, id));
      return row ?? null;
    },
    ofEvent: (event) =>
      db.select(ENTRY).from(weighInEntries).where(eq(eventId, event)).orderBy(atMs, entryId),
  };
}
