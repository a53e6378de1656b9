import { int, json, mysqlTable, primaryKey, text, varchar } from 'drizzle-orm/mysql-core';
import { uuid, sha256, bytes, instant } from './columns.ts';

/** The head of each event's ledger, and of the installation's own. Its row lock orders the appends. */
export const ledgers = mysqlTable('ledgers', {
  eventId: uuid('event_id').primaryKey(),
  seq: int('seq').notNull(),
  hash: sha256('hash').notNull(),
  /** Of the head (Ed25519), and the key that made it, which is not in the database; null until something is appended. */
  signature: varchar('signature', { length: 86 }),
  signedBy: varchar('signed_by', { length: 32 }),
});

export const ledgerEntries = mysqlTable(
  'ledger_entries',
  {
    eventId: uuid('event_id').notNull(),
    seq: int('seq').notNull(),
    /** Canonical bytes (RFC 8785), hashed as they stand here. */
    bytes: bytes('bytes').notNull(),
    hash: sha256('hash').notNull(),
  },
  (table) => [primaryKey({ columns: [table.eventId, table.seq] })],
);

/** What the ledger holds commitments to. Erasing salt and value leaves the chain valid. */
export const commitments = mysqlTable(
  'commitments',
  {
    eventId: uuid('event_id').notNull(),
    seq: int('seq').notNull(),
    label: varchar('label', { length: 60 }).notNull(),
    salt: varchar('salt', { length: 64 }),
    value: text('value'),
  },
  (table) => [primaryKey({ columns: [table.eventId, table.seq, table.label] })],
);

/** Answers already given, so that a command sent twice is done once. */
export const receipts = mysqlTable(
  'receipts',
  {
    accountId: uuid('account_id').notNull(),
    idempotencyKey: varchar('idempotency_key', { length: 100 }).notNull(),
    bodySha256: sha256('body_sha256').notNull(),
    receipt: json('receipt').$type<Record<string, unknown>>().notNull(),
    createdAt: instant('created_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.accountId, table.idempotencyKey] })],
);
