import { index, int, json, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core';
import type { Announcement } from '@lauta/contract';
import type { CaptureStatement, PublicKey } from '@lauta/core/custody';
import { uuid, sha256, bytes, instant } from './columns.ts';
import { pairings, entrantId } from './entrants.ts';
import { eventId } from './events.ts';
import { accountId } from './people.ts';

/** The public keys of people's devices; the private ones never leave them. */
export const deviceKeys = mysqlTable(
  'device_keys',
  {
    keyId: sha256('key_id').primaryKey(),
    accountId: accountId(),
    deviceId: uuid('device_id').notNull(),
    publicKey: json('public_key').$type<PublicKey>().notNull(),
    registeredAt: instant('registered_at').notNull(),
    /** The pairing by which a partner's phone registered it. */
    pairingId: uuid('pairing_id').references(() => pairings.pairingId),
    revokedAt: instant('revoked_at'),
    revokedWhy: varchar('revoked_why', { length: 12 }).$type<'lost' | 'given-away'>(),
  },
  (table) => [index('device_keys_account').on(table.accountId)],
);

/** What devices signed when a photograph was taken, as it was signed. The exact place in it is for judges alone. */
export const captures = mysqlTable(
  'captures',
  {
    /** Of the statement's canonical bytes. */
    hash: sha256('hash').primaryKey(),
    eventId: eventId(),
    entrantId: entrantId(),
    /** The claim may come later, or never. */
    catchId: uuid('catch_id').notNull(),
    captureId: uuid('capture_id').notNull(),
    statement: json('statement').$type<CaptureStatement>().notNull(),
    signature: varchar('signature', { length: 86 }).notNull(),
    heardAt: instant('heard_at').notNull(),
    /** When a judge asked for a frame that stayed on the device, and what came of it. */
    askedAt: instant('asked_at'),
    answeredAt: instant('answered_at'),
    sentPhotographId: uuid('sent_photograph_id'),
  },
  (table) => [
    index('captures_entrant').on(table.entrantId),
    index('captures_catch').on(table.catchId),
    index('captures_capture').on(table.captureId),
  ],
);

/** Claims that the server has heard of ahead of their photographs. */
export const announcements = mysqlTable(
  'announcements',
  {
    catchId: uuid('catch_id').primaryKey(),
    eventId: eventId(),
    entrantId: entrantId(),
    body: json('body').$type<Announcement>().notNull(),
    heardAt: instant('heard_at').notNull(),
  },
  (table) => [index('announcements_event').on(table.eventId)],
);

/** The event's waters as GeoJSON; the latest version holds. */
export const waters = mysqlTable(
  'waters',
  {
    eventId: eventId(),
    version: int('version').notNull(),
    /** The canonical bytes as published; never rewritten. */
    bytes: bytes('bytes').notNull(),
    sha256: sha256('sha256').notNull(),
    publishedAt: instant('published_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.eventId, table.version] })],
);
