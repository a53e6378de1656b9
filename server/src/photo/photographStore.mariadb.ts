import { and, asc, eq, isNull, sql, sum } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { catchPhotographs, photographChunks, photographCopies, photographs } from '../storage/schema.ts';
import type { PhotographStore } from './photographStore.ts';

export function mariadbPhotographStore(db: Connection): PhotographStore {
  const ofPhotograph = (photographId: string) => eq(photographChunks.photographId, photographId);
  return {
    async declare(photograph, declaredAt) {
      await db.insert(photographs).values({ ...photograph, declaredAt });
    },
    async find(photographId) {
      const [row] = await db.select().from(photographs).where(eq(photographs.photographId, photographId));
      return row ?? null;
    },
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
    async remove(photographId) {
      await db.delete(photographChunks).where(ofPhotograph(photographId));
      await db.delete(photographs).where(eq(photographs.photographId, photographId));
    },
    async looseBytesOf(accountId) {
      const [row] = await db
        .select({ total: sum(photographs.byteLength) })
        .from(photographs)
        .leftJoin(catchPhotographs, eq(catchPhotographs.photographId, photographs.photographId))
        .where(and(eq(photographs.accountId, accountId), isNull(catchPhotographs.catchId)));
      return Number(row?.total ?? 0);
    },
  };
}
