import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, concatBytes, utf8ToBytes } from '@noble/hashes/utils.js';
import { utf8 } from '@scure/base';
import canonicalize from 'canonicalize';

/**
 * The ledger: an append-only chain of entries, each holding the hash of the one before.
 * An entry is the canonical JSON (RFC 8785) of its fields, kept as bytes and hashed (SHA-256, FIPS 180-4) as kept.
 */
export const LEDGER_VERSION = 1;

export interface LedgerDraft {
  eventId: string;
  /** Account that acted: a random id, no name. */
  actorId: string;
  kind: string;
  /** RFC 3339, UTC. Evidence only: order is `seq`. */
  at: string;
  /** No personal data and no photograph: those stand here as salted commitments. */
  body: Record<string, unknown>;
}

export interface LedgerEntry extends LedgerDraft {
  v: typeof LEDGER_VERSION;
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
export function genesisHash(eventId: string): string {
  return hashHex(utf8ToBytes(`lauta-ledger:${LEDGER_VERSION}:${eventId}`));
}

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
 * Commitment to a value that stays outside of the ledger: SHA-256 over salt and canonical bytes.
 * Erasing salt and value leaves the chain valid and the commitment meaningless.
 * @param salt at least 16 random bytes
 */
export function commitTo(salt: Uint8Array, value: unknown): string {
  if (salt.length < 16) throw new RangeError(`salt: expected 16 bytes or more, got ${salt.length}`);
  return hashHex(concatBytes(salt, canonicalBytes(value)));
}

export type LedgerFault =
  'missing' | 'altered' | 'not-canonical' | 'wrong-seq' | 'wrong-event' | 'broken-link';
export type LedgerVerdict = { ok: true; head: LedgerHead } | { ok: false; seq: number; fault: LedgerFault };

/**
 * Checks a whole ledger, oldest first, and names the first entry that does not fit.
 * @param expectedHead where the ledger should end, if known: it finds entries cut off at the end
 */
export function verifyLedger(
  eventId: string,
  entries: Iterable<StoredEntry>,
  expectedHead?: LedgerHead,
): LedgerVerdict {
  let head: LedgerHead = { seq: 0, hash: genesisHash(eventId) };
  for (const entry of entries) {
    const seq = head.seq + 1;
    const fault = faultOf(eventId, head, entry);
    if (fault) return { ok: false, seq, fault };
    head = { seq, hash: entry.hash };
  }
  if (expectedHead && expectedHead.seq !== head.seq)
    return { ok: false, seq: head.seq + 1, fault: 'missing' };
  if (expectedHead && expectedHead.hash !== head.hash) return { ok: false, seq: head.seq, fault: 'altered' };
  return { ok: true, head };
}

function faultOf(eventId: string, head: LedgerHead, entry: StoredEntry): LedgerFault | null {
  if (entry.seq !== head.seq + 1) return 'missing';
  if (hashHex(entry.bytes) !== entry.hash) return 'altered';
  const fields = parseEntry(entry.bytes);
  if (!fields) return 'not-canonical';
  if (fields['seq'] !== entry.seq) return 'wrong-seq';
  if (fields['eventId'] !== eventId) return 'wrong-event';
  if (fields['prev'] !== head.hash) return 'broken-link';
  return null;
}

function parseEntry(bytes: Uint8Array): Record<string, unknown> | null {
  try {
    const fields = JSON.parse(utf8.encode(bytes)) as unknown;
    if (typeof fields !== 'object' || fields === null) return null;
    const again = canonicalBytes(fields);
    if (again.length !== bytes.length || again.some((byte, i) => byte !== bytes[i])) return null;
    return fields as Record<string, unknown>;
  } catch {
    return null;
  }
}
