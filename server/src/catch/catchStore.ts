import type { DecisionInput } from '@lauta/contract';
import type { CatchMark, CatchState } from '@lauta/core/catch';
import type { Handling } from '@lauta/core/care';
import type { StoredBoardReading } from '@lauta/vision';
import type { TapeReading } from '@lauta/core/tape';

/** A reading as some landed version stored it. */
export type StoredReading = StoredBoardReading | TapeReading;

export interface CatchRecord {
  catchId: string;
  eventId: string;
  entrantId: string;
  speciesId: string;
  dayId: string;
  ruleVersion: number;
  capturedAt: Date;
  capturedSource: 'photograph' | 'device' | 'typed';
  madeAt: Date;
  receivedAt: Date;
  deviceId: string;
  inSession: boolean;
  marks: CatchMark[];
  claimedSteps: number;
  measurementId: string;
  identifierCode: string | null;
  handling: Handling | null;
  laterHandling: Handling | null;
  clockOffsetMs: number | null;
  withdrawnAt: Date | null;
  state: CatchState;
}

export interface Measurement {
  measurementId: string;
  catchId: string;
  kind: StoredReading['kind'];
  photographId: string | null;
  reading: StoredReading;
}

export interface CatchPhotograph {
  photographId: string;
  role: 'board' | 'fish' | 'person' | 'clip';
}

export interface Verdict {
  verdictId: string;
  catchId: string;
  seq: number;
  judgeId: string;
  decidedAt: Date;
  decision: DecisionInput;
}

export interface Answer {
  answerId: string;
  catchId: string;
  verdictId: string;
  answeredAt: Date;
  words: string;
  photographId: string | null;
}

export interface CatchFilter {
  entrantIds?: readonly string[];
  states?: readonly CatchState[];
  /** Oldest first is the judge's order, newest first the angler's. */
  order: 'oldest' | 'newest';
  offset: number;
  limit: number;
}

/** A catch in a list: the record with what its line shows. */
export interface ListedCatch {
  record: CatchRecord;
  readMm: number;
  thumbId: string;
}

/** What a second device timed. */
export interface Timing {
  catchId: string;
  deviceId: string;
  eventId: string;
  entrantId: string;
  handling: Handling;
  clockOffsetMs: number | null;
  toldAt: Date;
}

/** Catches with their measurements, photographs, verdicts and answers. */
export interface CatchStore {
  add(record: CatchRecord, measurement: Measurement, photographs: readonly CatchPhotograph[]): Promise<void>;
  find(catchId: string): Promise<CatchRecord | null>;
  /** Binds an id to who speaks of it first. @returns whose it is */
  bindId(catchId: string, eventId: string, entrantId: string, at: Date): Promise<string>;
  /** The record, locked until the transaction ends. */
  lock(catchId: string): Promise<CatchRecord | null>;
  setState(catchId: string, state: CatchState): Promise<void>;
  setLaterHandling(catchId: string, handling: Handling): Promise<void>;
  addTiming(timing: Timing): Promise<void>;
  timingsOf(catchId: string): Promise<Timing[]>;
  /** How many an entrant has claimed that came since. */
  claimedSince(entrantId: string, since: Date): Promise<number>;
  setWithdrawn(catchId: string, at: Date | null): Promise<void>;
  countIn(eventId: string, states?: readonly CatchState[]): Promise<number>;
  list(eventId: string, filter: CatchFilter): Promise<{ items: ListedCatch[]; total: number }>;
  /** All records of an event. */
  allOf(eventId: string): Promise<CatchRecord[]>;
  measurement(measurementId: string): Promise<Measurement | null>;
  photographsOf(catchId: string): Promise<CatchPhotograph[]>;
  attach(catchId: string, photograph: CatchPhotograph): Promise<void>;
  /** The catch that a photograph belongs to. */
  withPhotograph(photographId: string): Promise<CatchRecord | null>;
  /** How many other catches of the event have a photograph of just these bytes. */
  othersWithFiles(catchId: string, eventId: string, sha256s: readonly string[]): Promise<number>;
  addVerdict(verdict: Verdict): Promise<void>;
  verdictsOf(catchId: string): Promise<Verdict[]>;
  /** The last verdict of every catch of an event that has one. */
  lastVerdictsIn(eventId: string): Promise<Map<string, Verdict>>;
  addAnswer(answer: Answer): Promise<void>;
  answersOf(catchId: string): Promise<Answer[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    catches: CatchStore;
  }
}
