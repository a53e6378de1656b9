import { index, int, mysqlTable, primaryKey, unique, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import { sql } from 'drizzle-orm';
import type { PairedJob } from '@lauta/contract';
import type { Role } from '@lauta/core/people';
import { uuid, sha256, instant } from './columns.ts';
import { eventDays, eventId } from './events.ts';
import { accountId } from './people.ts';

export const eventRoles = mysqlTable(
  'event_roles',
  {
    eventId: eventId(),
    accountId: accountId(),
    role: varchar('role', { length: 20 }).$type<Role>().notNull(),
    /** A role counts once its person has taken it up. */
    acceptedAt: instant('accepted_at'),
  },
  (table) => [
    primaryKey({ columns: [table.eventId, table.accountId, table.role] }),
    index('event_roles_account').on(table.accountId),
  ],
);

export const entrants = mysqlTable(
  'entrants',
  {
    entrantId: uuid('entrant_id').primaryKey(),
    eventId: eventId(),
    number: int('number').notNull(),
  },
  (table) => [unique('entrants_number').on(table.eventId, table.number)],
);

/** What belongs to one of them. */
export const entrantId = () =>
  uuid('entrant_id')
    .notNull()
    .references(() => entrants.entrantId);

export const entrantMembers = mysqlTable(
  'entrant_members',
  {
    entrantId: entrantId(),
    accountId: accountId(),
  },
  (table) => [
    primaryKey({ columns: [table.entrantId, table.accountId] }),
    index('entrant_members_account').on(table.accountId),
  ],
);

/** Phones of partners that act for an entrant. */
export const pairings = mysqlTable(
  'pairings',
  {
    pairingId: uuid('pairing_id').primaryKey(),
    eventId: eventId(),
    entrantId: entrantId(),
    accountId: accountId(),
    job: varchar('job', { length: 10 }).$type<PairedJob>().notNull(),
    /** Of the code that pairs, once. */
    tokenSha256: sha256('token_sha256').notNull(),
    createdAt: instant('created_at').notNull(),
    expiresAt: instant('expires_at').notNull(),
    usedAt: instant('used_at'),
    endedAt: instant('ended_at'),
  },
  (table) => [
    uniqueIndex('pairings_token').on(table.tokenSha256),
    index('pairings_account').on(table.accountId),
  ],
);

/** The code of each day on each entrant's card. */
export const identifiers = mysqlTable(
  'identifiers',
  {
    entrantId: entrantId(),
    dayId: uuid('day_id')
      .notNull()
      .references(() => eventDays.dayId),
    code: varchar('code', { length: 12 }).notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.entrantId, table.dayId] }),
    unique('identifiers_code').on(table.dayId, table.code),
  ],
);

export const signIns = mysqlTable(
  'sign_ins',
  {
    tokenSha256: sha256('token_sha256').primaryKey(),
    accountId: accountId(),
    createdAt: instant('created_at').notNull(),
    expiresAt: instant('expires_at').notNull(),
    /** Set where a partner's phone signed in by a pairing. */
    pairingId: uuid('pairing_id').references(() => pairings.pairingId),
    /** By which its owner names it in the list of sign-ins: the token is known to its browser alone. */
    signInId: uuid('sign_in_id')
      .notNull()
      .default(sql`(uuid())`),
    /** What kind of browser, in a few words. */
    browser: varchar('browser', { length: 60 }).notNull().default(''),
  },
  (table) => [index('sign_ins_account').on(table.accountId)],
);
