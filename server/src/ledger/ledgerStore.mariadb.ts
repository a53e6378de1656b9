import { and, asc, count, desc, eq, gt, sql } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { commitments, ledgerEntries, ledgers } from '../storage/schema.ts';
import type { LedgerStore, StoredHead } from './ledgerStore.ts';

const entryColumns = { seq: ledgerEntries.seq, bytes: ledgerEntries.bytes, hash: ledgerEntries.hash };
const headColumns = { seq: ledgers.seq, hash: ledgers.hash };

export function mariadbLedgerStore(db: Connection): LedgerStore {
  return { ...headsIn(db), ...entriesIn(db) };
}

/** Ledgers, and where each ends. */
function headsIn(db: Connection): Pick<LedgerStore, 'open' | 'all' | 'head' | 'lockHead'> {
  return {
    async open(eventId, head) {
      await db.insert(ledgers).values({ eventId, seq: head.seq, hash: head.hash });
    },
    async all() {
      const heads = await db.select({ id: ledgers.eventId }).from(ledgers);
      const entered = await db.selectDistinct({ id: ledgerEntries.eventId }).from(ledgerEntries);
      return [...new Set([...heads, ...entered].map(({ id }) => id))];
    },
    async head(eventId) {
      const [row] = await db
        .select({ ...headColumns, signature: ledgers.signature, signedBy: ledgers.signedBy })
        .from(ledgers)
        .where(eq(ledgers.eventId, eventId));
      return (row as StoredHead | undefined) ?? null;
    },
    async lockHead(eventId) {
      const [row] = await db
        .select(headColumns)
        .from(ledgers)
        .where(eq(ledgers.eventId, eventId))
        .for('update');
      return row ?? null;
    },
  };
}

/** Entries, and what stands outside of them. */
function entriesIn(db: Connection): Pick<LedgerStore, 'append' | 'entries' | 'find' | 'commitments'> {
  return {
    async append(eventId, entry, opened, { signature, signedBy }) {
      await db.insert(ledgerEntries).values({ eventId, ...entry });
      if (opened.length > 0) {
        await db.insert(commitments).values(opened.map((one) => ({ eventId, ...one })));
      }
      await db
        .update(ledgers)
        .set({ seq: entry.seq, hash: entry.hash, signature, signedBy })
        .where(eq(ledgers.eventId, eventId));
    },
    async entries(eventId, after, limit) {
      return db
        .select(entryColumns)
        .from(ledgerEntries)
        .where(and(eq(ledgerEntries.eventId, eventId), gt(ledgerEntries.seq, after)))
        .orderBy(asc(ledgerEntries.seq))
        .limit(limit);
    },
    async find(eventId, search, offset, limit) {
      // INSTR takes the text as it is: nothing in it is a pattern.
      const where = and(
        eq(ledgerEntries.eventId, eventId),
        search === ''
          ? undefined
          : sql`instr(lower(convert(${ledgerEntries.bytes} using utf8mb4)), ${search}) > 0`,
      );
      const [counted] = await db.select({ total: count() }).from(ledgerEntries).where(where);
      const entries = await db
        .select(entryColumns)
        .from(ledgerEntries)
        .where(where)
        .orderBy(desc(ledgerEntries.seq))
        .limit(limit)
        .offset(offset);
      return { entries, total: counted?.total ?? 0 };
    },
    async commitments(eventId) {
      return db
        .select({
          seq: commitments.seq,
          label: commitments.label,
          salt: commitments.salt,
          value: commitments.value,
        })
        .from(commitments)
        .where(eq(commitments.eventId, eventId))
        .orderBy(asc(commitments.seq));
    },
  };
}
