import { and, asc, count, eq, isNull, lt, or, sql, sum } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import {
  catchPhotographs,
  photographChunks,
  photographCopies,
  photographs,
  specimenPhotographs,
} from '../storage/schema.ts';
import type { PhotographStore } from './photographStore.ts';
import type { FileId } from '@lauta/core/ids';

export function mariadbPhotographStore(db: Connection): PhotographStore {
  return { ...filesIn(db), ...chunksIn(db), ...copiesIn(db), ...loosePartsIn(db) };
}

const ofPhotograph = (photographId: FileId) => eq(photographChunks.photographId, photographId);

/** Files by their ids, from declared to whole. */
function filesIn(
  db: Connection,
): Pick<PhotographStore, 'declare' | 'find' | 'lock' | 'setCompleting' | 'complete' | 'remove'> {
  return {
    async declare(photograph, declaredAt) {
      await db.insert(photographs).values({ ...photograph, declaredAt });
    },
    async find(photographId) {
      const [row] = await db.select().from(photographs).where(eq(photographs.photographId, photographId));
      return row ?? null;
    },
    async lock(photographId) {
      const [row] = await db
        .select()
        .from(photographs)
        .where(eq(photographs.photographId, photographId))
        .for('update');
      return row ?? null;
    },
    async setCompleting(photographId, completingAt) {
      await db.update(photographs).set({ completingAt }).where(eq(photographs.photographId, photographId));
    },
    async complete(photographId, { copies, ...found }) {
      for (const copy of copies) {
        const { bytes, sha256 } = copy;
        await db
          .insert(photographCopies)
          .values({ photographId, ...copy })
          .onDuplicateKeyUpdate({ set: { bytes, sha256 } });
      }
      await db.update(photographs).set(found).where(eq(photographs.photographId, photographId));
    },
    async remove(photographId) {
      await db.delete(photographChunks).where(ofPhotograph(photographId));
      await db.delete(photographCopies).where(eq(photographCopies.photographId, photographId));
      await db.delete(photographs).where(eq(photographs.photographId, photographId));
    },
  };
}

/** What has come of a file. */
function chunksIn(
  db: Connection,
): Pick<PhotographStore, 'putChunk' | 'receivedChunks' | 'chunk' | 'removeChunks' | 'bytesIn'> {
  return {
    async putChunk(photographId, seq, bytes) {
      await db
        .insert(photographChunks)
        .values({ photographId, seq, bytes })
        .onDuplicateKeyUpdate({ set: { bytes } });
    },
    async receivedChunks(photographId) {
      const rows = await db
        .select({ seq: photographChunks.seq })
        .from(photographChunks)
        .where(ofPhotograph(photographId))
        .orderBy(asc(photographChunks.seq));
      return rows.map((row) => row.seq);
    },
    async chunk(photographId, seq) {
      const [row] = await db
        .select({ bytes: photographChunks.bytes })
        .from(photographChunks)
        .where(and(ofPhotograph(photographId), eq(photographChunks.seq, seq)));
      return row?.bytes ?? null;
    },
    async removeChunks(photographId) {
      await db.delete(photographChunks).where(ofPhotograph(photographId));
    },
    async bytesIn(eventId, accountId) {
      const [row] = await db
        .select({ bytes: sum(photographs.byteLength) })
        .from(photographs)
        .where(and(eq(photographs.eventId, eventId), eq(photographs.accountId, accountId)));
      return Number(row?.bytes ?? 0);
    },
  };
}

/** Small copies for the screen. */
function copiesIn(db: Connection): Pick<PhotographStore, 'copy' | 'copyHashes'> {
  return {
    async copy(photographId, variant) {
      const [row] = await db
        .select({ bytes: photographCopies.bytes, sha256: photographCopies.sha256 })
        .from(photographCopies)
        .where(and(eq(photographCopies.photographId, photographId), eq(photographCopies.variant, variant)));
      return row ?? null;
    },
    async copyHashes(photographId) {
      const rows = await db
        .select({
          variant: photographCopies.variant,
          hash: sql<string>`lower(sha2(${photographCopies.bytes}, 256))`,
        })
        .from(photographCopies)
        .where(eq(photographCopies.photographId, photographId));
      const screen = rows.find((row) => row.variant === 'screen')?.hash;
      const thumb = rows.find((row) => row.variant === 'thumb')?.hash;
      return screen && thumb ? { screen, thumb } : null;
    },
  };
}

/** Files that belong to nothing. */
function loosePartsIn(db: Connection): Pick<PhotographStore, 'looseOf' | 'forsaken'> {
  return {
    async looseOf(accountId) {
      const [row] = await db
        .select({ bytes: sum(photographs.byteLength), files: count() })
        .from(photographs)
        .leftJoin(catchPhotographs, eq(catchPhotographs.photographId, photographs.photographId))
        .leftJoin(specimenPhotographs, eq(specimenPhotographs.photographId, photographs.photographId))
        .where(and(eq(photographs.accountId, accountId), isLoose));
      return { bytes: Number(row?.bytes ?? 0), files: row?.files ?? 0 };
    },
    async forsaken(unfinishedBefore, unclaimedBefore, limit) {
      const rows = await db
        .select({ photographId: photographs.photographId })
        .from(photographs)
        .leftJoin(catchPhotographs, eq(catchPhotographs.photographId, photographs.photographId))
        .leftJoin(specimenPhotographs, eq(specimenPhotographs.photographId, photographs.photographId))
        .where(
          and(
            isLoose,
            or(
              and(isNull(photographs.completedAt), lt(photographs.declaredAt, unfinishedBefore)),
              lt(photographs.declaredAt, unclaimedBefore),
            ),
          ),
        )
        .limit(limit);
      return rows.map(({ photographId }) => photographId);
    },
  };
}

/** Belongs to no catch and no specimen, where both are joined. */
const isLoose = and(isNull(catchPhotographs.catchId), isNull(specimenPhotographs.specimenId));
