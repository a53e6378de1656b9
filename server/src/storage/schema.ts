import type { PhotoExif } from '@lauta/core/file-evidence';
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  double,
  foreignKey,
  index,
  int,
  json,
  mysqlTable,
  primaryKey,
  smallint,
  text,
  unique,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core';
import type {
  Announcement,
  CatchMark,
  CatchState,
  DecisionInput,
  MediaType,
  PairedJob,
  RecordSpecimen,
} from '@lauta/contract';
import type { Handling } from '@lauta/core/care';
import type { CaptureStatement, PublicKey } from '@lauta/core/custody';
import type { KeptFlank } from '@lauta/vision/same-fish';
import type { Role } from '@lauta/core/people';
import type { WeighInAct } from '@lauta/core/weigh-in';
import type { WellAct } from '@lauta/core/well';
import type { CatchPhotograph, StoredReading } from '../catch/catchStore.ts';
import { bytes, instant, sha256, uuid } from './columns.ts';

/** What the installation itself has to remember: whether it is a demo, and how far its clock is set off. */
export const settings = mysqlTable('settings', {
  name: varchar('name', { length: 60 }).primaryKey(),
  value: text('value').notNull(),
});

// People ---------------------------------------------------------------------------------------------------------

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

export const signIns = mysqlTable(
  'sign_ins',
  {
    tokenSha256: sha256('token_sha256').primaryKey(),
    accountId: uuid('account_id')
      .notNull()
      .references(() => accounts.accountId),
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

/** Links by which a person takes up the roles of an event, or chooses a password anew. */
export const invitations = mysqlTable('invitations', {
  tokenSha256: sha256('token_sha256').primaryKey(),
  accountId: uuid('account_id')
    .notNull()
    .references(() => accounts.accountId),
  expiresAt: instant('expires_at').notNull(),
  usedAt: instant('used_at'),
  /** The event whose director gave it; null in links of versions that knew one event only. */
  eventId: uuid('event_id'),
  kind: varchar('kind', { length: 12 }).$type<'invitation' | 'renewal'>().notNull().default('invitation'),
});

// Event ----------------------------------------------------------------------------------------------------------

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

const eventId = () =>
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

export const eventRoles = mysqlTable(
  'event_roles',
  {
    eventId: eventId(),
    accountId: uuid('account_id')
      .notNull()
      .references(() => accounts.accountId),
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

export const entrantMembers = mysqlTable(
  'entrant_members',
  {
    entrantId: uuid('entrant_id')
      .notNull()
      .references(() => entrants.entrantId),
    accountId: uuid('account_id')
      .notNull()
      .references(() => accounts.accountId),
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
    entrantId: uuid('entrant_id')
      .notNull()
      .references(() => entrants.entrantId),
    accountId: uuid('account_id')
      .notNull()
      .references(() => accounts.accountId),
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
    entrantId: uuid('entrant_id')
      .notNull()
      .references(() => entrants.entrantId),
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

// Photographs ----------------------------------------------------------------------------------------------------

export const photographs = mysqlTable(
  'photographs',
  {
    photographId: uuid('photograph_id').primaryKey(),
    eventId: eventId(),
    accountId: uuid('account_id')
      .notNull()
      .references(() => accounts.accountId),
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

// Catches --------------------------------------------------------------------------------------------------------

export const catches = mysqlTable(
  'catches',
  {
    catchId: uuid('catch_id').primaryKey(),
    eventId: eventId(),
    entrantId: uuid('entrant_id')
      .notNull()
      .references(() => entrants.entrantId),
    speciesId: varchar('species_id', { length: 40 }).notNull(),
    dayId: uuid('day_id')
      .notNull()
      .references(() => eventDays.dayId),
    ruleVersion: int('rule_version').notNull(),
    capturedAt: instant('captured_at').notNull(),
    capturedSource: varchar('captured_source', { length: 12 })
      .$type<'photograph' | 'device' | 'typed'>()
      .notNull(),
    madeAt: instant('made_at').notNull(),
    receivedAt: instant('received_at').notNull(),
    deviceId: uuid('device_id').notNull(),
    inSession: boolean('in_session').notNull(),
    marks: json('marks').$type<CatchMark[]>().notNull(),
    /** The claim: steps, and the measurement that they stand on. */
    claimedSteps: int('claimed_steps').notNull(),
    measurementId: uuid('measurement_id').notNull(),
    identifierCode: varchar('identifier_code', { length: 12 }),
    /** How the fish was treated; null where nobody tapped the clock. */
    handling: json('handling').$type<Handling>(),
    /** The same, told whole after the claim; null where nothing was. */
    laterHandling: json('later_handling').$type<Handling>(),
    /** The device's clock less the server's; null where the device did not ask. */
    clockOffsetMs: bigint('clock_offset_ms', { mode: 'number' }),
    withdrawnAt: instant('withdrawn_at'),
    /** Follows from verdicts, answers and withdrawal; kept here so that a queue can be asked for. */
    state: varchar('state', { length: 12 }).$type<CatchState>().notNull(),
  },
  (table) => [
    index('catches_event').on(table.eventId, table.capturedAt),
    index('catches_state').on(table.eventId, table.state, table.receivedAt),
    index('catches_entrant').on(table.entrantId, table.capturedAt),
  ],
);

/** What a second device timed of a catch: it may be told before its claim, and never counts a lift twice. */
export const timings = mysqlTable(
  'timings',
  {
    catchId: uuid('catch_id').notNull(),
    deviceId: uuid('device_id').notNull(),
    eventId: eventId(),
    entrantId: uuid('entrant_id')
      .notNull()
      .references(() => entrants.entrantId),
    handling: json('handling').$type<Handling>().notNull(),
    clockOffsetMs: bigint('clock_offset_ms', { mode: 'number' }),
    toldAt: instant('told_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.catchId, table.deviceId] })],
);

/** A union on `kind`: what is particular to a kind stands in `reading`. */
export const measurements = mysqlTable(
  'measurements',
  {
    measurementId: uuid('measurement_id').primaryKey(),
    catchId: uuid('catch_id')
      .notNull()
      .references(() => catches.catchId),
    kind: varchar('kind', { length: 12 }).$type<StoredReading['kind']>().notNull(),
    photographId: uuid('photograph_id').references(() => photographs.photographId),
    reading: json('reading').$type<StoredReading>().notNull(),
  },
  (table) => [index('measurements_catch').on(table.catchId)],
);

export const catchPhotographs = mysqlTable(
  'catch_photographs',
  {
    catchId: uuid('catch_id')
      .notNull()
      .references(() => catches.catchId),
    photographId: uuid('photograph_id')
      .notNull()
      .references(() => photographs.photographId),
    seq: smallint('seq').notNull(),
    role: varchar('role', { length: 10 }).$type<CatchPhotograph['role']>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.catchId, table.seq] }),
    // A photograph proves one catch.
    unique('catch_photographs_photograph').on(table.photographId),
  ],
);

export const verdicts = mysqlTable(
  'verdicts',
  {
    verdictId: uuid('verdict_id').primaryKey(),
    catchId: uuid('catch_id')
      .notNull()
      .references(() => catches.catchId),
    seq: smallint('seq').notNull(),
    judgeId: uuid('judge_id')
      .notNull()
      .references(() => accounts.accountId),
    decidedAt: instant('decided_at').notNull(),
    decision: json('decision').$type<DecisionInput>().notNull(),
  },
  (table) => [unique('verdicts_seq').on(table.catchId, table.seq)],
);

export const answers = mysqlTable(
  'answers',
  {
    answerId: uuid('answer_id').primaryKey(),
    catchId: uuid('catch_id')
      .notNull()
      .references(() => catches.catchId),
    verdictId: uuid('verdict_id')
      .notNull()
      .references(() => verdicts.verdictId),
    answeredAt: instant('answered_at').notNull(),
    words: varchar('words', { length: 500 }).notNull(),
    photographId: uuid('photograph_id').references(() => photographs.photographId),
  },
  (table) => [index('answers_catch').on(table.catchId)],
);

/** Whose a catch's id is, from the first word heard of it: no other entrant speaks of it after that. */
export const catchIds = mysqlTable('catch_ids', {
  catchId: uuid('catch_id').primaryKey(),
  eventId: eventId(),
  entrantId: uuid('entrant_id')
    .notNull()
    .references(() => entrants.entrantId),
  heardAt: instant('heard_at').notNull(),
});

// Custody --------------------------------------------------------------------------------------------------------

/** The public keys of people's devices; the private ones never leave them. */
export const deviceKeys = mysqlTable(
  'device_keys',
  {
    keyId: sha256('key_id').primaryKey(),
    accountId: uuid('account_id')
      .notNull()
      .references(() => accounts.accountId),
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
    entrantId: uuid('entrant_id')
      .notNull()
      .references(() => entrants.entrantId),
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
    entrantId: uuid('entrant_id')
      .notNull()
      .references(() => entrants.entrantId),
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

// The well -------------------------------------------------------------------------------------------------------

/** What was entered at wells, as it was entered; state follows from the list. */
export const wellEntries = mysqlTable(
  'well_entries',
  {
    entryId: uuid('entry_id').primaryKey(),
    eventId: eventId(),
    entrantId: uuid('entrant_id')
      .notNull()
      .references(() => entrants.entrantId),
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

// Specimens ------------------------------------------------------------------------------------------------------

/** Large fish weighed on the bank. A record is never changed: another one corrects it. */
export const specimens = mysqlTable(
  'specimens',
  {
    specimenId: uuid('specimen_id').primaryKey(),
    eventId: eventId(),
    entrantId: uuid('entrant_id')
      .notNull()
      .references(() => entrants.entrantId),
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
    photographId: uuid('photograph_id')
      .notNull()
      .references(() => photographs.photographId),
    seq: smallint('seq').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.specimenId, table.seq] }),
    // A record that corrects another shows its photographs too.
    index('specimen_photographs_photograph').on(table.photographId),
  ],
);

// The weigh-in ---------------------------------------------------------------------------------------------------

/** What was entered at the scale, as it was entered; tickets follow from the list. */
export const weighInEntries = mysqlTable(
  'weigh_in_entries',
  {
    entryId: uuid('entry_id').primaryKey(),
    eventId: eventId(),
    /** The device's clock, ms since 1970. */
    atMs: bigint('at_ms', { mode: 'number' }).notNull(),
    accountId: uuid('account_id')
      .notNull()
      .references(() => accounts.accountId),
    act: json('act').$type<WeighInAct>().notNull(),
    heardAt: instant('heard_at').notNull(),
  },
  (table) => [index('weigh_in_entries_event').on(table.eventId)],
);

// Ledger ---------------------------------------------------------------------------------------------------------

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
