import { bigint, index, json, mysqlTable } from 'drizzle-orm/mysql-core';
import type { WeighInAct } from '@lauta/core/weigh-in';
import { uuid, instant } from './columns.ts';
import { eventId } from './events.ts';
import { accountId } from './people.ts';

/** What was entered at the scale, as it was entered; tickets follow from the list. */
export const weighInEntries = mysqlTable(
  'weigh_in_entries',
  {
    entryId: uuid('entry_id').primaryKey(),
    eventId: eventId(),
    /** The device's clock, ms since 1970. */
    atMs: bigint('at_ms', { mode: 'number' }).notNull(),
    accountId: accountId(),
    act: json('act').$type<WeighInAct>().notNull(),
    heardAt: instant('heard_at').notNull(),
  },
  (table) => [index('weigh_in_entries_event').on(table.eventId)],
);
