import {
  foreignKey,
  index,
  json,
  mysqlTable,
  primaryKey,
  smallint,
  uniqueIndex,
} from 'drizzle-orm/mysql-core';
import type { RecordSpecimen } from '@lauta/contract';
import { uuid, instant } from './columns.ts';
import { entrantId } from './entrants.ts';
import { eventId } from './events.ts';
import { photographId } from './photographs.ts';

/** Large fish weighed on the bank. A record is never changed: another one corrects it. */
export const specimens = mysqlTable(
  'specimens',
  {
    specimenId: uuid('specimen_id').primaryKey(),
    eventId: eventId(),
    entrantId: entrantId(),
    record: json('record').$type<RecordSpecimen>().notNull(),
    /** The record that this one corrects: each is corrected once. */
    correctsId: uuid('corrects_id'),
    receivedAt: instant('received_at').notNull(),
  },
  (table) => [
    index('specimens_event').on(table.eventId),
    uniqueIndex('specimens_corrects').on(table.correctsId),
    foreignKey({ columns: [table.correctsId], foreignColumns: [table.specimenId] }),
  ],
);

export const specimenPhotographs = mysqlTable(
  'specimen_photographs',
  {
    specimenId: uuid('specimen_id')
      .notNull()
      .references(() => specimens.specimenId),
    photographId: photographId(),
    seq: smallint('seq').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.specimenId, table.seq] }),
    // A record that corrects another shows its photographs too.
    index('specimen_photographs_photograph').on(table.photographId),
  ],
);
