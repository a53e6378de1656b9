import {
  boolean,
  double,
  index,
  int,
  json,
  mysqlTable,
  primaryKey,
  smallint,
  unique,
  varchar,
} from 'drizzle-orm/mysql-core';
import type { KeptFlank } from '@lauta/vision/same-fish';
import { uuid, sha256, bytes, instant } from './columns.ts';

export const events = mysqlTable('events', {
  eventId: uuid('event_id').primaryKey(),
  name: varchar('name', { length: 80 }).notNull(),
  /** IANA name. */
  zone: varchar('zone', { length: 60 }).notNull(),
  isPublic: boolean('is_public').notNull(),
  /** The event's part of an identifier's payload. */
  eventCode: varchar('event_code', { length: 12 }).notNull(),
  createdAt: instant('created_at').notNull(),
  /** Since when the results stand. */
  officialAt: instant('official_at'),
});

export const eventId = () =>
  uuid('event_id')
    .notNull()
    .references(() => events.eventId);

export const eventDays = mysqlTable(
  'event_days',
  {
    dayId: uuid('day_id').primaryKey(),
    eventId: eventId(),
    seq: smallint('seq').notNull(),
    /** `YYYY-MM-DD` in the event's zone. */
    date: varchar('date', { length: 10 }).notNull(),
    /** From when on entrants see their codes of the day; null from the start. */
    codesFrom: instant('codes_from'),
  },
  (table) => [unique('event_days_seq').on(table.eventId, table.seq)],
);

export const eventSessions = mysqlTable(
  'event_sessions',
  {
    sessionId: uuid('session_id').primaryKey(),
    dayId: uuid('day_id')
      .notNull()
      .references(() => eventDays.dayId),
    seq: smallint('seq').notNull(),
    /** Wall time as the director wrote it, `YYYY-MM-DDTHH:MM`, and the instant it was resolved to. */
    linesInLocal: varchar('lines_in_local', { length: 16 }).notNull(),
    linesOutLocal: varchar('lines_out_local', { length: 16 }).notNull(),
    linesInAt: instant('lines_in_at').notNull(),
    linesOutAt: instant('lines_out_at').notNull(),
  },
  (table) => [unique('event_sessions_seq').on(table.dayId, table.seq)],
);

/** Kinds of measuring board that were added to an event, beside the shipped ones. */
export const boards = mysqlTable(
  'boards',
  {
    eventId: eventId(),
    boardId: varchar('board_id', { length: 40 }).notNull(),
    /** The profile's canonical bytes; never rewritten. */
    bytes: bytes('bytes').notNull(),
    sha256: sha256('sha256').notNull(),
    addedAt: instant('added_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.eventId, table.boardId] })],
);

/** The pattern of each measured fish's flank, for finding one that was claimed before. Made again when it is lost. */
export const flanks = mysqlTable(
  'flanks',
  {
    catchId: uuid('catch_id').primaryKey(),
    eventId: eventId(),
    /** The photograph it was read from; another measurement makes another. */
    photographId: uuid('photograph_id').notNull(),
    lengthMm: double('length_mm'),
    sigmaMm: double('sigma_mm'),
    /** Null when the photograph shows too little of the flank. */
    flank: json('flank').$type<KeptFlank>(),
  },
  (table) => [index('flanks_event').on(table.eventId)],
);

export const ruleSheets = mysqlTable(
  'rule_sheets',
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
