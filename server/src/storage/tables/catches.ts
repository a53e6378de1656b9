import {
  bigint,
  boolean,
  index,
  int,
  json,
  mysqlTable,
  primaryKey,
  smallint,
  unique,
  varchar,
} from 'drizzle-orm/mysql-core';
import type { DecisionInput } from '@lauta/contract';
import type { Handling } from '@lauta/core/care';
import type { CatchMark, CatchState } from '@lauta/core/catch';
import type { TapeReading } from '@lauta/core/tape';
import type { StoredBoardReading } from '@lauta/vision';
import { uuid, instant } from './columns.ts';
import { entrantId } from './entrants.ts';
import { eventDays, eventId } from './events.ts';
import { accounts } from './people.ts';
import { photographs, photographId } from './photographs.ts';

export const catches = mysqlTable(
  'catches',
  {
    catchId: uuid('catch_id').primaryKey(),
    eventId: eventId(),
    entrantId: entrantId(),
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

/** What belongs to one of them. */
export const catchId = () =>
  uuid('catch_id')
    .notNull()
    .references(() => catches.catchId);

/** What a second device timed of a catch: it may be told before its claim, and never counts a lift twice. */
export const timings = mysqlTable(
  'timings',
  {
    catchId: uuid('catch_id').notNull(),
    deviceId: uuid('device_id').notNull(),
    eventId: eventId(),
    entrantId: entrantId(),
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
    catchId: catchId(),
    kind: varchar('kind', { length: 12 }).$type<(StoredBoardReading | TapeReading)['kind']>().notNull(),
    photographId: uuid('photograph_id').references(() => photographs.photographId),
    reading: json('reading').$type<StoredBoardReading | TapeReading>().notNull(),
  },
  (table) => [index('measurements_catch').on(table.catchId)],
);

export const catchPhotographs = mysqlTable(
  'catch_photographs',
  {
    catchId: catchId(),
    photographId: photographId(),
    seq: smallint('seq').notNull(),
    role: varchar('role', { length: 10 }).$type<'board' | 'fish' | 'person' | 'clip'>().notNull(),
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
    catchId: catchId(),
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
    catchId: catchId(),
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
  entrantId: entrantId(),
  heardAt: instant('heard_at').notNull(),
});
