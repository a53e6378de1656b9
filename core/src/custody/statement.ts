import { base64urlnopad } from '@scure/base';
import { canonicalBytes, hashHex } from '../ledger/index.ts';
import type { Position } from '../evidence/index.ts';
import type { AccountId, CaptureId, CatchId, EntrantId, EventId, KeyId } from '../ids.ts';

export const CUSTODY_VERSION = 1;

/** What a statement is about: a frame of the page's own camera, or a file that was chosen and taken elsewhere. */
export const CAPTURE_KINDS = ['frame', 'file'] as const;
export type CaptureKind = (typeof CAPTURE_KINDS)[number];

/** Where a receiver said that it was. */
export interface Fix extends Position {
  /** Radius that holds the place in two of three cases, m (W3C Geolocation). */
  accuracyM: number;
  /** When the receiver found it, RFC 3339, UTC. */
  at: string;
}

/** What a device signs at the moment of a capture. */
export interface CaptureStatement {
  v: typeof CUSTODY_VERSION;
  captureId: CaptureId;
  eventId: EventId;
  entrantId: EntrantId;
  catchId: CatchId;
  /** The key that signs: RFC 7638 thumbprint, hex. */
  keyId: KeyId;
  kind: CaptureKind;
  /** Place among this key's captures in this event, from 1. */
  seq: number;
  /** Hash of this key's capture before it in this event; of the key and the event for the first. */
  former: string;
  photographSha256: string;
  /** The device's own clock, RFC 3339, UTC. */
  at: string;
  /** Names one run of the page: only within it can `monotonicMs` be compared. */
  runId: string;
  /** Time since the run began, which nobody can set (W3C High Resolution Time), ms. */
  monotonicMs: number;
  /** The device's clock less the server's as it was measured last, ms; null before. */
  clockOffsetMs: number | null;
  position: Fix | null;
  /** The code of the day that the device showed. */
  identifierCode: string | null;
}

/** A public key of ECDSA on P-256 as JSON Web Key (RFC 7517, RFC 7518 6.2). */
export interface PublicKey {
  kty: 'EC';
  crv: 'P-256';
  x: string;
  y: string;
}

/** Thumbprint of a key (RFC 7638, SHA-256) in hex. */
export function keyIdOf({ kty, crv, x, y }: PublicKey): string {
  return hashHex(canonicalBytes({ crv, kty, x, y }));
}

/** The bytes that are signed: the statement's canonical form (RFC 8785). */
export function statementBytes(statement: CaptureStatement): Uint8Array {
  return canonicalBytes(statement);
}

/** A signature as text: base64url without padding (RFC 4648, 5). */
export function signatureText(signature: Uint8Array): string {
  return base64urlnopad.encode(signature);
}

/** What the next capture names as its former one. */
export function statementHash(statement: CaptureStatement): string {
  return hashHex(statementBytes(statement));
}

/** What a key's first capture in an event names as its former one. */
export function firstFormer(keyId: KeyId, eventId: EventId): string {
  return hashHex(canonicalBytes({ chain: `lauta-custody:${CUSTODY_VERSION}`, eventId, keyId }));
}

/** Where a key's chain stands in an event. */
export interface ChainHead {
  seq: number;
  hash: string;
}

/** The statement that follows a head; null where the chain begins. Pure: the caller holds the lock that orders captures. */
export function nextStatement(
  head: ChainHead | null,
  draft: Omit<CaptureStatement, 'v' | 'seq' | 'former'>,
): CaptureStatement {
  return {
    ...draft,
    v: CUSTODY_VERSION,
    seq: (head?.seq ?? 0) + 1,
    former: head?.hash ?? firstFormer(draft.keyId, draft.eventId),
  };
}

/** What is signed when a key is registered, so that nobody registers what another holds. */
export function registrationBytes(keyId: KeyId, accountId: AccountId): Uint8Array {
  return canonicalBytes({ accountId, keyId, purpose: `lauta-device-key:${CUSTODY_VERSION}` });
}
