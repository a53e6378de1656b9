import type { CatchMark, CatchState } from '@lauta/core/catch';
import { z } from 'zod';
import type { Handling } from '@lauta/core/care';
import type { BoardReading, MeasuringBoard } from '@lauta/vision';
import type { TapeReading } from '@lauta/core/tape';
import type { Infraction } from '@lauta/core/rules';
import type { NotCounting, Standing } from '@lauta/core/scoring';
import type { DecisionInput } from './commands.ts';
import type { ExifView, MediaType } from './photo.ts';
import type {
  CatchId,
  DayId,
  DeviceId,
  EntrantId,
  EventId,
  FileId,
  KeyId,
  MeasurementId,
  SessionId,
  SpeciesId,
  VerdictId,
} from '@lauta/core/ids';
import { ID } from './ids.ts';

export interface SessionView {
  sessionId: SessionId;
  dayId: DayId;
  seq: number;
  linesInLocal: string;
  linesOutLocal: string;
  linesInAt: string;
  linesOutAt: string;
}

export interface DayView {
  dayId: DayId;
  seq: number;
  date: string;
  /** From when on entrants see their codes; null from the start. */
  codesFrom: string | null;
}

export interface EventView {
  eventId: EventId;
  name: string;
  zone: string;
  isPublic: boolean;
  eventCode: string;
  days: DayView[];
  sessions: SessionView[];
  /** Since when the results stand; null as long as they may change. */
  officialAt: string | null;
  ruleVersion: number | null;
  entrants: number;
  catches: number;
  undecided: number;
}

export interface EntrantView {
  entrantId: EntrantId;
  number: number;
  name: string;
}

/** The code of one day for one entrant, and the text of the card's QR code. */
export interface IdentifierView {
  dayId: DayId;
  code: string;
  payload: string;
}

export interface RuleSheetView {
  version: number;
  sha256: string;
  publishedAt: string;
  /** The very bytes that were published. */
  text: string;
}

/** A kind of board that an event has beside the shipped ones. */
export interface BoardView {
  profile: MeasuringBoard;
  sha256: string;
  addedAt: string;
}

export interface StandingsView {
  eventId: EventId;
  seq: number;
  ruleVersion: number | null;
  include: 'all' | 'official';
  dayId: DayId | null;
  page: number;
  pageSize: number;
  total: number;
  /** The leader's score: the axis is drawn to it on every page. */
  longestSteps: number;
  /** Every entrant's name, so that a tie can say with whom. */
  names: Record<string, string>;
  /** Those on this page. */
  entrants: EntrantView[];
  standings: Standing[];
  /** Totals that boats share from the water, unofficial; absent before there was a well. */
  onWater?: { entrantId: EntrantId; steps: number; fish: number }[];
}

export interface VerdictView {
  verdictId: VerdictId;
  seq: number;
  decidedAt: string;
  judge: string;
  decision: DecisionInput;
}

export interface AnswerView {
  answerId: string;
  verdictId: VerdictId;
  answeredAt: string;
  words: string;
  photographId: FileId | null;
}

export interface PhotographView {
  photographId: FileId;
  role: 'board' | 'fish' | 'person';
  widthPx: number;
  heightPx: number;
  byteLength: number;
  sha256: string;
  exif: ExifView;
}

export interface ClipView {
  clipId: FileId;
  mediaType: MediaType;
  byteLength: number;
  sha256: string;
}

export interface CatchSummary {
  catchId: CatchId;
  eventId: EventId;
  entrant: EntrantView;
  speciesId: SpeciesId;
  dayId: DayId;
  capturedAt: string;
  receivedAt: string;
  claimedSteps: number;
  readMm: number | null;
  state: CatchState;
  marks: CatchMark[];
  thumbId: FileId;
  grossSteps: number;
  deductionSteps: number;
  scoreSteps: number;
  infractions: Infraction[];
  notCounting: NotCounting | null;
}

export interface CatchView extends CatchSummary {
  ruleVersion: number;
  capturedSource: 'photograph' | 'device' | 'typed';
  deviceId: DeviceId;
  identifierCode: string | null;
  /** How the fish was treated; null where nobody tapped the clock. */
  handling: Handling | null;
  /** The code of the day for this entrant; only for the entrant and for judges. */
  expectedCode: string | null;
  measurement: { measurementId: MeasurementId; photographId: FileId; reading: BoardReading | TapeReading };
  photographs: PhotographView[];
  /** The clip of its release; null where none was sent. */
  clip: ClipView | null;
  verdicts: VerdictView[];
  answers: AnswerView[];
  mayJudge: boolean;
  isOwn: boolean;
}

export interface Page<T> {
  items: T[];
  total: number;
  page: number;
  pageSize: number;
}

export interface LedgerEntryView {
  seq: number;
  hash: string;
  /** The canonical bytes as text. */
  text: string;
}
export interface LedgerView extends Page<LedgerEntryView> {
  head: { seq: number; hash: string };
}
/** A key by which heads of ledgers are signed (Ed25519); `keyId` is its fingerprint, to be compared aloud. */
export interface LedgerKeyView {
  keyId: KeyId;
  publicKey: string;
  retiredAt: string | null;
  handedOver: string | null;
}
/** One thing that does not fit; without a number where something stands there of which no entry speaks. */
export interface LedgerFaultView {
  seq: number | null;
  fault: string;
  /** Which row, and which of its fields. */
  about: string;
}
export interface LedgerCheckView {
  /** All that entries speak of is there, and nothing else is; never where something was erased. */
  ok: boolean;
  entries: number;
  head: { seq: number; hash: string } | null;
  /** The first of them, and how many there are. */
  faults: LedgerFaultView[];
  faultCount: number;
  erased: number;
  untold: number;
  tookMs: number;
}

/** One message of the live stream: the ledger grew. Everything else is asked for again. */
export const streamEventSchema = z.object({
  eventId: ID.event,
  seq: z.int(),
  kind: z.string(),
  /** Where the ledger ended then, signed; absent in messages of versions before. */
  hash: z.string().optional(),
  signature: z.string().optional(),
  signedBy: z.string().optional(),
});
export type StreamEvent = z.infer<typeof streamEventSchema>;
