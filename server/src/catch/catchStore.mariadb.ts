import { and, asc, count, countDistinct, desc, eq, gt, inArray, isNull, max, ne, sql } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import {
  answers,
  catchIds,
  catchPhotographs,
  catches,
  measurements,
  photographs,
  timings,
  verdicts,
} from '../storage/schema.ts';
import type { CatchFilter, CatchStore } from './catchStore.ts';
import type { EventId } from '@lauta/core/ids';

export function mariadbCatchStore(db: Connection): CatchStore {
  return { ...catchesIn(db), ...listsIn(db), ...timingsIn(db), ...evidenceIn(db), ...verdictsIn(db) };
}

const whereListed = (eventId: EventId, filter: Pick<CatchFilter, 'entrantIds' | 'states'>) =>
  and(
    eq(catches.eventId, eventId),
    filter.entrantIds ? inArray(catches.entrantId, [...filter.entrantIds]) : undefined,
    filter.states ? inArray(catches.state, [...filter.states]) : undefined,
  );

const countWhere = async (db: Connection, where: ReturnType<typeof and>): Promise<number> => {
  const [row] = await db.select({ total: count() }).from(catches).where(where);
  return row?.total ?? 0;
};

/** Catches themselves, and their ids. */
function catchesIn(
  db: Connection,
): Pick<
  CatchStore,
  'add' | 'find' | 'bindId' | 'claimedSince' | 'lock' | 'setState' | 'setLaterHandling' | 'setWithdrawn'
> {
  return {
    async add(record, measurement, shown) {
      await db.insert(catches).values(record);
      await db.insert(measurements).values(measurement);
      await db
        .insert(catchPhotographs)
        .values(shown.map((one, seq) => ({ catchId: record.catchId, seq, ...one })));
    },
    async find(catchId) {
      const [row] = await db.select().from(catches).where(eq(catches.catchId, catchId));
      return row ?? null;
    },
    async bindId(catchId, eventId, entrantId, heardAt) {
      await db.insert(catchIds).ignore().values({ catchId, eventId, entrantId, heardAt });
      const [row] = await db
        .select({ entrantId: catchIds.entrantId })
        .from(catchIds)
        .where(eq(catchIds.catchId, catchId))
        .for('update');
      if (!row) throw new Error(`catch ${catchId}: expected whose id it is, got none`);
      return row.entrantId;
    },
    claimedSince: (entrantId, since) =>
      countWhere(db, and(eq(catches.entrantId, entrantId), gt(catches.receivedAt, since))),
    async lock(catchId) {
      const [row] = await db.select().from(catches).where(eq(catches.catchId, catchId)).for('update');
      return row ?? null;
    },
    async setState(catchId, state) {
      await db.update(catches).set({ state }).where(eq(catches.catchId, catchId));
    },
    async setLaterHandling(catchId, laterHandling) {
      await db.update(catches).set({ laterHandling }).where(eq(catches.catchId, catchId));
    },
    async setWithdrawn(catchId, withdrawnAt) {
      await db.update(catches).set({ withdrawnAt }).where(eq(catches.catchId, catchId));
    },
  };
}

/** Catches of an event, asked for together. */
function listsIn(db: Connection): Pick<CatchStore, 'countIn' | 'list' | 'allOf'> {
  return {
    countIn: (eventId, states) => countWhere(db, whereListed(eventId, states ? { states } : {})),
    async list(eventId, filter) {
      if (filter.entrantIds?.length === 0) return { items: [], total: 0 };
      const where = whereListed(eventId, filter);
      const direction = filter.order === 'oldest' ? asc : desc;
      const rows = await db
        .select({ record: catches, reading: measurements.reading, photographId: measurements.photographId })
        .from(catches)
        .innerJoin(measurements, eq(measurements.measurementId, catches.measurementId))
        .where(where)
        .orderBy(
          filter.order === 'oldest' ? asc(catches.receivedAt) : desc(catches.capturedAt),
          direction(catches.catchId),
        )
        .limit(filter.limit)
        .offset(filter.offset);
      return {
        items: rows.map(({ record, reading, photographId }) => ({
          record,
          readMm: reading.apparentMm,
          thumbId: photographId ?? '',
        })),
        total: await countWhere(db, where),
      };
    },
    async allOf(eventId) {
      return db.select().from(catches).where(eq(catches.eventId, eventId));
    },
  };
}

/** What a second device timed. */
function timingsIn(db: Connection): Pick<CatchStore, 'addTiming' | 'timingsOf'> {
  return {
    async addTiming(timing) {
      await db.insert(timings).values(timing);
    },
    async timingsOf(catchId) {
      return db.select().from(timings).where(eq(timings.catchId, catchId)).orderBy(asc(timings.toldAt));
    },
  };
}

/** What a catch was measured by. */
function evidenceIn(
  db: Connection,
): Pick<CatchStore, 'measurement' | 'photographsOf' | 'attach' | 'withPhotograph' | 'othersWithFiles'> {
  return {
    async measurement(measurementId) {
      const [row] = await db.select().from(measurements).where(eq(measurements.measurementId, measurementId));
      return row ?? null;
    },
    async photographsOf(catchId) {
      return db
        .select({ photographId: catchPhotographs.photographId, role: catchPhotographs.role })
        .from(catchPhotographs)
        .where(eq(catchPhotographs.catchId, catchId))
        .orderBy(asc(catchPhotographs.seq));
    },
    async attach(catchId, photograph) {
      const [row] = await db
        .select({ last: max(catchPhotographs.seq) })
        .from(catchPhotographs)
        .where(eq(catchPhotographs.catchId, catchId));
      await db.insert(catchPhotographs).values({ catchId, seq: (row?.last ?? -1) + 1, ...photograph });
    },
    async withPhotograph(photographId) {
      const [row] = await db
        .select({ record: catches })
        .from(catchPhotographs)
        .innerJoin(catches, eq(catches.catchId, catchPhotographs.catchId))
        .where(eq(catchPhotographs.photographId, photographId));
      return row?.record ?? null;
    },
    async othersWithFiles(catchId, eventId, sha256s) {
      if (sha256s.length === 0) return 0;
      const [row] = await db
        .select({ total: countDistinct(catchPhotographs.catchId) })
        .from(photographs)
        .innerJoin(catchPhotographs, eq(catchPhotographs.photographId, photographs.photographId))
        .innerJoin(catches, eq(catches.catchId, catchPhotographs.catchId))
        .where(
          and(
            eq(photographs.eventId, eventId),
            isNull(catches.withdrawnAt),
            inArray(photographs.sha256, [...sha256s]),
            ne(catchPhotographs.catchId, catchId),
          ),
        );
      return row?.total ?? 0;
    },
  };
}

/** What judges said, and what was answered. */
function verdictsIn(
  db: Connection,
): Pick<CatchStore, 'addVerdict' | 'verdictsOf' | 'lastVerdictsIn' | 'addAnswer' | 'answersOf'> {
  return {
    async addVerdict(verdict) {
      await db.insert(verdicts).values(verdict);
    },
    async verdictsOf(catchId) {
      return db.select().from(verdicts).where(eq(verdicts.catchId, catchId)).orderBy(asc(verdicts.seq));
    },
    async lastVerdictsIn(eventId) {
      const rows = await db
        .select({ verdict: verdicts })
        .from(verdicts)
        .innerJoin(catches, eq(catches.catchId, verdicts.catchId))
        .where(
          and(
            eq(catches.eventId, eventId),
            sql`${verdicts.seq} = (select max(v.seq) from verdicts v where v.catch_id = ${catches.catchId})`,
          ),
        );
      return new Map(rows.map(({ verdict }) => [verdict.catchId, verdict]));
    },
    async addAnswer(answer) {
      await db.insert(answers).values(answer);
    },
    async answersOf(catchId) {
      return db
        .select()
        .from(answers)
        .where(eq(answers.catchId, catchId))
        .orderBy(asc(answers.answeredAt), asc(answers.answerId));
    },
  };
}
