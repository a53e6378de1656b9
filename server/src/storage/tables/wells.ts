import { bigint, index, json, mysqlTable } from 'drizzle-orm/mysql-core';
import type { WellAct } from '@lauta/core/well';
import { uuid, instant } from './columns.ts';
import { entrantId } from './entrants.ts';
import { eventDays, eventId } from './events.ts';

/** What was entered at wells, as it was entered; state follows from the list. */
export const wellEntries = mysqlTable(
  'well_entries',
  {
    entryId: uuid('entry_id').primaryKey(),
    eventId: eventId(),
    entrantId: entrantId(),
    dayId: uuid('day_id')
      .notNull()
      .references(() => eventDays.dayId),
    /** The device's clock, ms since 1970. */
    atMs: bigint('at_ms', { mode: 'number' }).notNull(),
    act: json('act').$type<WellAct>().notNull(),
    heardAt: instant('heard_at').notNull(),
  },
  (table) => [index('well_entries_entrant').on(table.entrantId, table.dayId)],
);
