import { foreignKey, index, int, json, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core';
import type { MediaType } from '@lauta/contract';
import type { PhotoExif } from '@lauta/core/file-evidence';
import { uuid, sha256, bytes, instant } from './columns.ts';
import { eventId } from './events.ts';
import { accountId } from './people.ts';

export const photographs = mysqlTable(
  'photographs',
  {
    photographId: uuid('photograph_id').primaryKey(),
    eventId: eventId(),
    accountId: accountId(),
    sha256: sha256('sha256').notNull(),
    byteLength: int('byte_length').notNull(),
    chunkBytes: int('chunk_bytes').notNull(),
    mediaType: varchar('media_type', { length: 20 }).$type<MediaType>().notNull().default('image/jpeg'),
    declaredAt: instant('declared_at').notNull(),
    /** Since when its chunks are being put together, in real time: meanwhile none is exchanged. */
    completingAt: instant('completing_at'),
    completedAt: instant('completed_at'),
    /** Of the upright picture, after EXIF rotation. */
    widthPx: int('width_px'),
    heightPx: int('height_px'),
    /** What the file tells, exact place included: never sent on as it stands, never in the ledger. */
    exif: json('exif').$type<PhotoExif>(),
  },
  (table) => [index('photographs_sha256').on(table.eventId, table.sha256)],
);

/** What belongs to one of them. */
export const photographId = () =>
  uuid('photograph_id')
    .notNull()
    .references(() => photographs.photographId);

export const photographChunks = mysqlTable(
  'photograph_chunks',
  {
    photographId: uuid('photograph_id').notNull(),
    seq: int('seq').notNull(),
    bytes: bytes('bytes').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.photographId, table.seq] }),
    foreignKey({
      name: 'photograph_chunks_photograph',
      columns: [table.photographId],
      foreignColumns: [photographs.photographId],
    }),
  ],
);

/** Derivatives without metadata, made by the server. */
export const photographCopies = mysqlTable(
  'photograph_copies',
  {
    photographId: uuid('photograph_id').notNull(),
    variant: varchar('variant', { length: 10 }).$type<'screen' | 'thumb'>().notNull(),
    bytes: bytes('bytes').notNull(),
    sha256: sha256('sha256').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.photographId, table.variant] }),
    foreignKey({
      name: 'photograph_copies_photograph',
      columns: [table.photographId],
      foreignColumns: [photographs.photographId],
    }),
  ],
);
