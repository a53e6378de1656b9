import { and, asc, count, desc, eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { announcements, captures, catches, deviceKeys } from '../storage/schema.ts';
import type { CustodyStore } from './custodyStore.ts';

export function mariadbCustodyStore(db: Connection): CustodyStore {
  return { ...keysIn(db), ...capturesIn(db), ...announcementsIn(db) };
}

/** Keys of devices. */
function keysIn(db: Connection): Pick<CustodyStore, 'addKey' | 'findKey' | 'keysOf' | 'keys' | 'revokeKey'> {
  return {
    async addKey(key) {
      await db.insert(deviceKeys).values(key);
    },
    async findKey(keyId) {
      const [row] = await db.select().from(deviceKeys).where(eq(deviceKeys.keyId, keyId));
      return row ?? null;
    },
    async keysOf(accountId) {
      return db
        .select()
        .from(deviceKeys)
        .where(eq(deviceKeys.accountId, accountId))
        .orderBy(asc(deviceKeys.registeredAt));
    },
    async keys(keyIds) {
      if (keyIds.length === 0) return [];
      return db
        .select()
        .from(deviceKeys)
        .where(inArray(deviceKeys.keyId, [...keyIds]));
    },
    async revokeKey(keyId, revokedAt, revokedWhy) {
      await db.update(deviceKeys).set({ revokedAt, revokedWhy }).where(eq(deviceKeys.keyId, keyId));
    },
  };
}

/** What devices signed, and what judges asked to see of it. */
function capturesIn(
  db: Connection,
): Pick<
  CustodyStore,
  'addCapture' | 'findCapture' | 'capturesOf' | 'capturesOfCatch' | 'askedOf' | 'ask' | 'answer'
> {
  return {
    async addCapture(capture) {
      await db.insert(captures).ignore().values(capture);
    },
    async findCapture(hash) {
      const [row] = await db.select().from(captures).where(eq(captures.hash, hash));
      return row ?? null;
    },
    async capturesOf(entrantId) {
      return db
        .select()
        .from(captures)
        .where(eq(captures.entrantId, entrantId))
        .orderBy(asc(captures.heardAt));
    },
    async capturesOfCatch(catchId) {
      const [row] = await db.select({ total: count() }).from(captures).where(eq(captures.catchId, catchId));
      return row?.total ?? 0;
    },
    async askedOf(entrantIds) {
      if (entrantIds.length === 0) return [];
      return db
        .select()
        .from(captures)
        .where(
          and(
            inArray(captures.entrantId, [...entrantIds]),
            isNotNull(captures.askedAt),
            isNull(captures.answeredAt),
          ),
        )
        .limit(100);
    },
    async ask(catchId, captureIds, askedAt) {
      await db
        .update(captures)
        .set({ askedAt })
        .where(
          and(
            eq(captures.catchId, catchId),
            inArray(captures.captureId, [...captureIds]),
            isNull(captures.askedAt),
          ),
        );
    },
    async answer(hash, answeredAt, sentPhotographId) {
      await db.update(captures).set({ answeredAt, sentPhotographId }).where(eq(captures.hash, hash));
    },
  };
}

/** What came ahead of a claim. */
function announcementsIn(
  db: Connection,
): Pick<CustodyStore, 'announce' | 'findAnnouncement' | 'waitingOf' | 'announcedIn'> {
  return {
    async announce(announcement) {
      await db.insert(announcements).values(announcement);
    },
    async findAnnouncement(catchId) {
      const [row] = await db.select().from(announcements).where(eq(announcements.catchId, catchId));
      return row ?? null;
    },
    async waitingOf(entrantId) {
      const [row] = await db
        .select({ total: count() })
        .from(announcements)
        .leftJoin(catches, eq(catches.catchId, announcements.catchId))
        .where(and(eq(announcements.entrantId, entrantId), isNull(catches.catchId)));
      return row?.total ?? 0;
    },
    async announcedIn(eventId, limit) {
      const rows = await db
        .select({ announcement: announcements })
        .from(announcements)
        .leftJoin(catches, eq(catches.catchId, announcements.catchId))
        .where(and(eq(announcements.eventId, eventId), isNull(catches.catchId)))
        .orderBy(desc(announcements.heardAt))
        .limit(limit);
      return rows.map(({ announcement }) => announcement);
    },
  };
}
