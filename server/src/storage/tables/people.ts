import { boolean, mysqlTable, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import { uuid, sha256, instant } from './columns.ts';

export const accounts = mysqlTable(
  'accounts',
  {
    accountId: uuid('account_id').primaryKey(),
    name: varchar('name', { length: 80 }).notNull(),
    email: varchar('email', { length: 120 }).notNull(),
    /** Argon2id in PHC form; null until an invitation was accepted. */
    passwordHash: varchar('password_hash', { length: 200 }),
    founder: boolean('founder').notNull().default(false),
    /** The event whose director invited; only there can a new invitation be made. */
    invitedByEventId: uuid('invited_by_event_id'),
    createdAt: instant('created_at').notNull(),
    /** Since when nobody signs in with it; who, and why, stands in the installation's ledger. */
    suspendedAt: instant('suspended_at'),
  },
  (table) => [uniqueIndex('accounts_email').on(table.email)],
);

/** What belongs to one of them. */
export const accountId = () =>
  uuid('account_id')
    .notNull()
    .references(() => accounts.accountId);

/** Links by which a person takes up the roles of an event, or chooses a password anew. */
export const invitations = mysqlTable('invitations', {
  tokenSha256: sha256('token_sha256').primaryKey(),
  accountId: accountId(),
  expiresAt: instant('expires_at').notNull(),
  usedAt: instant('used_at'),
  /** The event whose director gave it; null in links of versions that knew one event only. */
  eventId: uuid('event_id'),
  kind: varchar('kind', { length: 12 }).$type<'invitation' | 'renewal'>().notNull().default('invitation'),
});
