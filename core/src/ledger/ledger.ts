import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, concatBytes, utf8ToBytes } from '@noble/hashes/utils.js';
import { utf8 } from '@scure/base';
import canonicalize from 'canonicalize';
import type { AccountId, EventId } from '../ids.ts';

/**
 * The ledger: an append-only chain of entries, each holding the hash of the one before.
 * An entry is the canonical JSON (RFC 8785) of its fields, kept as bytes and hashed (SHA-256, FIPS 180-4) as kept.
 */
export const LEDGER_VERSION = 2;
/** Versions whose entries are understood. In 1 a commitment is to a value alone; from 2 on to its label too. */
export type LedgerVersion = 1 | typeof LEDGER_VERSION;

export interface LedgerDraft {
  eventId: EventId;
  /** Account that acted: a random id, no name. */
  actorId: AccountId;
  kind: string;
  /** RFC 3339, UTC. Evidence only: order is `seq`. */
  at: string;
  /** No personal data and no photograph: those stand here as salted commitments. */
  body: Record<string, unknown>;
}

export interface LedgerEntry extends LedgerDraft {
  v: LedgerVersion;
  seq: number;
  /** Hash of the former entry in hex; of the event's id for the first. */
  prev: string;
}

/** Where an event's ledger stands: number of entries and hash of the last. */
export interface LedgerHead {
  seq: number;
  hash: string;
}

export interface StoredEntry {
  seq: number;
  bytes: Uint8Array;
  hash: string;
}

/**
 * RFC 8785 form of a JSON value, in UTF-8.
 * @throws TypeError for a value without a JSON form (undefined, NaN, a lone surrogate)
 */
export function canonicalBytes(value: unknown): Uint8Array {
  let text: string | undefined;
  try {
    text = canonicalize(value);
  } catch (cause) {
    throw new TypeError('value: expected JSON', { cause });
  }
  if (text === undefined) throw new TypeError('value: expected JSON, got undefined');
  return utf8ToBytes(text);
}

export function hashHex(bytes: Uint8Array): string {
  return bytesToHex(sha256(bytes));
}

/** What the first entry names as its former hash: it binds the chain to its event. */
export function genesisHash(eventId: EventId): string {
  return hashHex(utf8ToBytes(`lauta-ledger:1:${eventId}`));
}

/** What an entry's body says when its time is before that of the entry before: a clock was set, or a demo goes on. */
export const CLOCK_BACK = 'clockBackFrom';

/** The next entry after a head, ready to be stored. Pure: the caller holds the lock that orders appends. */
export function appendEntry(head: LedgerHead, draft: LedgerDraft): StoredEntry {
  const entry: LedgerEntry = {
    v: LEDGER_VERSION,
    seq: head.seq + 1,
    prev: head.hash,
    eventId: draft.eventId,
    actorId: draft.actorId,
    kind: draft.kind,
    at: draft.at,
    body: draft.body,
  };
  const bytes = canonicalBytes(entry);
  return { seq: entry.seq, bytes, hash: hashHex(bytes) };
}

/**
 * Commitment to a value that stays outside of the ledger: SHA-256 over salt, label and canonical bytes.
 * Erasing salt and value leaves the chain valid and the commitment meaningless.
 * @param salt at least 16 random bytes
 * @param label what the value is of the entry; null as version 1 committed, which bound none
 */
export function commitTo(salt: Uint8Array, label: string | null, value: unknown): string {
  if (salt.length < 16) throw new RangeError(`salt: expected 16 bytes or more, got ${salt.length}`);
  const bound = label === null ? [] : [utf8ToBytes('lauta-commitment:2:'), canonicalBytes(label)];
  return hashHex(concatBytes(salt, ...bound, canonicalBytes(value)));
}

export type LedgerFault =
  | 'empty'
  | 'headless'
  | 'missing'
  | 'altered'
  | 'not-canonical'
  | 'wrong-seq'
  | 'wrong-event'
  | 'broken-link'
  | 'time-runs-back';

/** Entries that do not fit, oldest first; `head` is where the chain ends as it stands. */
export interface LedgerVerdict {
  ok: boolean;
  head: LedgerHead;
  faults: { seq: number; fault: LedgerFault }[];
  /** What could be read, in order; entries that are no JSON are left out. */
  read: LedgerEntry[];
}

export interface LedgerExpectation {
  /** With what every ledger of its kind begins. */
  firstKind: string;
  /** Where it should end, if that is known from elsewhere: it finds entries cut off at the end. */
  head?: LedgerHead | undefined;
}

/**
 * Checks a whole ledger, oldest first, and names every entry that does not fit. A chain without entries, or without its
 * beginning, never fits: nothing could be told from it.
 */
export function verifyLedger(
  eventId: EventId,
  entries: Iterable<StoredEntry>,
  expected: LedgerExpectation,
): LedgerVerdict {
  let head: LedgerHead = { seq: 0, hash: genesisHash(eventId) };
  let formerAt: string | null = null;
  const faults: LedgerVerdict['faults'] = [];
  const read: LedgerEntry[] = [];
  for (const entry of entries) {
    const fault = faultOf(eventId, head, entry);
    // What is missing has the number that was expected.
    if (fault) faults.push({ seq: fault === 'missing' ? head.seq + 1 : entry.seq, fault });
    head = { seq: entry.seq, hash: entry.hash };
    const fields = parseEntry(entry.bytes);
    if (!fields) continue;
    if (read.length === 0 && fields.kind !== expected.firstKind)
      faults.push({ seq: entry.seq, fault: 'headless' });
    if (formerAt !== null && fields.at < formerAt && fields.body[CLOCK_BACK] !== formerAt)
      faults.push({ seq: entry.seq, fault: 'time-runs-back' });
    formerAt = fields.at;
    read.push(fields);
  }
  if (head.seq === 0) faults.push({ seq: 1, fault: 'empty' });
  if (expected.head && expected.head.seq > head.seq) faults.push({ seq: head.seq + 1, fault: 'missing' });
  else if (expected.head && (expected.head.seq !== head.seq || expected.head.hash !== head.hash))
    faults.push({ seq: head.seq, fault: 'altered' });
  return { ok: faults.length === 0, head, faults, read };
}

function faultOf(eventId: EventId, head: LedgerHead, entry: StoredEntry): LedgerFault | null {
  if (entry.seq !== head.seq + 1) return 'missing';
  if (hashHex(entry.bytes) !== entry.hash) return 'altered';
  const fields = parseEntry(entry.bytes);
  if (!fields) return 'not-canonical';
  if (fields.seq !== entry.seq) return 'wrong-seq';
  if (fields.eventId !== eventId) return 'wrong-event';
  if (fields.prev !== head.hash) return 'broken-link';
  return null;
}

/** An entry's fields, where its bytes are the canonical form of some. */
function parseEntry(bytes: Uint8Array): LedgerEntry | null {
  try {
    const fields = JSON.parse(utf8.encode(bytes)) as Partial<LedgerEntry> | null;
    if (typeof fields !== 'object' || fields === null) return null;
    const again = canonicalBytes(fields);
    if (again.length !== bytes.length || again.some((byte, i) => byte !== bytes[i])) return null;
    const { kind, at, body } = fields;
    if (typeof kind !== 'string' || typeof at !== 'string' || typeof body !== 'object') return null;
    return fields as LedgerEntry;
  } catch {
    return null;
  }
}

/** What a head's signature is made over (Ed25519, RFC 8032): the event, how many entries, and the hash of the last. */
export function headBytes(eventId: EventId, { seq, hash }: LedgerHead): Uint8Array {
  return canonicalBytes({ lauta: 'ledger-head', v: 1, eventId, seq, hash });
}

/**
 * Whether an older copy of a ledger is the beginning of one: what was exported once must be there for ever.
 * @returns the number of the first entry that is not the same, or null
 */
export function notPrefixAt(older: readonly StoredEntry[], newer: readonly StoredEntry[]): number | null {
  const at = older.findIndex(({ seq, hash, bytes }, i) => {
    const now = newer[i];
    return now?.seq !== seq || now.hash !== hash || hashHex(bytes) !== hash;
  });
  return at < 0 ? null : at + 1;
}
