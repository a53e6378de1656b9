import type { DecisionInput } from '@lauta/contract';
import type { CatchMark, CatchState } from '@lauta/core/catch';
import type { Handling } from '@lauta/core/care';
import type { StoredBoardReading } from '@lauta/vision';
import type { TapeReading } from '@lauta/core/tape';
import type {
  AccountId,
  CatchId,
  DayId,
  DeviceId,
  EntrantId,
  EventId,
  FileId,
  MeasurementId,
  SpeciesId,
  VerdictId,
} from '@lauta/core/ids';

/** A reading as some landed version stored it. */
export type StoredReading = StoredBoardReading | TapeReading;

export interface CatchRecord {
  catchId: CatchId;
  eventId: EventId;
  entrantId: EntrantId;
  speciesId: SpeciesId;
  dayId: DayId;
  ruleVersion: number;
  capturedAt: Date;
  capturedSource: 'photograph' | 'device' | 'typed';
  madeAt: Date;
  receivedAt: Date;
  deviceId: DeviceId;
  inSession: boolean;
  marks: CatchMark[];
  claimedSteps: number;
  measurementId: MeasurementId;
  identifierCode: string | null;
  handling: Handling | null;
  laterHandling: Handling | null;
  clockOffsetMs: number | null;
  withdrawnAt: Date | null;
  state: CatchState;
}

export interface Measurement {
  measurementId: MeasurementId;
  catchId: CatchId;
  kind: StoredReading['kind'];
  photographId: FileId | null;
  reading: StoredReading;
}

export interface CatchPhotograph {
  photographId: FileId;
  role: 'board' | 'fish' | 'person' | 'clip';
}

export interface Verdict {
  verdictId: VerdictId;
  catchId: CatchId;
  seq: number;
  judgeId: AccountId;
  decidedAt: Date;
  decision: DecisionInput;
}

export interface Answer {
  answerId: string;
  catchId: CatchId;
  verdictId: VerdictId;
  answeredAt: Date;
  words: string;
  photographId: FileId | null;
}

export interface CatchFilter {
  entrantIds?: readonly EntrantId[];
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
  thumbId: FileId;
}

/** What a second device timed. */
export interface Timing {
  catchId: CatchId;
  deviceId: DeviceId;
  eventId: EventId;
  entrantId: EntrantId;
  handling: Handling;
  clockOffsetMs: number | null;
  toldAt: Date;
}

/** Catches with their measurements, photographs, verdicts and answers. */
export interface CatchStore {
  add(record: CatchRecord, measurement: Measurement, photographs: readonly CatchPhotograph[]): Promise<void>;
  find(catchId: CatchId): Promise<CatchRecord | null>;
  /** Binds an id to who speaks of it first. @returns whose it is */
  bindId(catchId: CatchId, eventId: EventId, entrantId: EntrantId, at: Date): Promise<string>;
  /** The record, locked until the transaction ends. */
  lock(catchId: CatchId): Promise<CatchRecord | null>;
  setState(catchId: CatchId, state: CatchState): Promise<void>;
  setLaterHandling(catchId: CatchId, handling: Handling): Promise<void>;
  addTiming(timing: Timing): Promise<void>;
  timingsOf(catchId: CatchId): Promise<Timing[]>;
  /** How many an entrant has claimed that came since. */
  claimedSince(entrantId: EntrantId, since: Date): Promise<number>;
  setWithdrawn(catchId: CatchId, at: Date | null): Promise<void>;
  countIn(eventId: EventId, states?: readonly CatchState[]): Promise<number>;
  list(eventId: EventId, filter: CatchFilter): Promise<{ items: ListedCatch[]; total: number }>;
  /** All records of an event. */
  allOf(eventId: EventId): Promise<CatchRecord[]>;
  measurement(measurementId: MeasurementId): Promise<Measurement | null>;
  photographsOf(catchId: CatchId): Promise<CatchPhotograph[]>;
  attach(catchId: CatchId, photograph: CatchPhotograph): Promise<void>;
  /** The catch that a photograph belongs to. */
  withPhotograph(photographId: FileId): Promise<CatchRecord | null>;
  /** How many other catches of the event have a photograph of just these bytes. */
  othersWithFiles(catchId: CatchId, eventId: EventId, sha256s: readonly string[]): Promise<number>;
  addVerdict(verdict: Verdict): Promise<void>;
  verdictsOf(catchId: CatchId): Promise<Verdict[]>;
  /** The last verdict of every catch of an event that has one. */
  lastVerdictsIn(eventId: EventId): Promise<Map<string, Verdict>>;
  addAnswer(answer: Answer): Promise<void>;
  answersOf(catchId: CatchId): Promise<Answer[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    catches: CatchStore;
  }
}
