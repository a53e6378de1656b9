import { v7 as uuidv7 } from 'uuid';
import { publicKeySchema, type SignedCapture } from '@lauta/contract';
import {
  keyIdOf,
  nextStatement,
  registrationBytes,
  signatureText,
  statementBytes,
  statementHash,
  type CaptureKind,
  type Fix,
} from '@lauta/core/custody';
import { hashHex } from '@lauta/core/ledger';
import type { CustodyStore, DeviceKey } from './custodyStore.ts';
import type { AccountId, CatchId, EntrantId, EventId, FileId } from '@lauta/core/ids';

const CURVE = { name: 'ECDSA', namedCurve: 'P-256' } as const;
const ALGORITHM = { name: 'ECDSA', hash: 'SHA-256' } as const;

/** One run of this page: its monotonic times can be compared with each other, and with no other run's. */
export const RUN_ID = uuidv7();

/** A photograph at the moment of its capture. */
export interface Capture {
  eventId: EventId;
  entrantId: EntrantId;
  catchId: CatchId;
  kind: CaptureKind;
  photo: Blob;
  /** By the device's own clock, ms since 1970. */
  atMs: number;
  /** By the clock that nobody can set, ms since the page began. */
  monotonicMs: number;
  clockOffsetMs: number | null;
  position: Fix | null;
  identifierCode: string | null;
  frameId: FileId | null;
}

/** Whether this page can sign: Web Crypto needs a secure context. */
export function canSign(): boolean {
  return typeof crypto !== 'undefined' && 'subtle' in crypto;
}

async function makeKey(): Promise<DeviceKey> {
  const pair = await crypto.subtle.generateKey(CURVE, false, ['sign', 'verify']);
  const { kty, crv, x, y } = await crypto.subtle.exportKey('jwk', pair.publicKey);
  const publicKey = publicKeySchema.parse({ kty, crv, x, y });
  return { keyId: keyIdOf(publicKey), publicKey, pair };
}

async function signed(key: DeviceKey, bytes: Uint8Array): Promise<string> {
  const signature = await crypto.subtle.sign(ALGORITHM, key.pair.privateKey, new Uint8Array(bytes));
  return signatureText(new Uint8Array(signature));
}

/** Proof that this device holds its key, for the account that registers it. */
export function proofOf(key: DeviceKey, accountId: AccountId): Promise<string> {
  return signed(key, registrationBytes(key.keyId, accountId));
}

/** SHA-256 in hex, by the browser's own code where there is one. */
export async function sha256Of(blob: Blob): Promise<string> {
  const bytes = await blob.arrayBuffer();
  if (!canSign()) return hashHex(new Uint8Array(bytes));
  const sum = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return [...sum].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

/**
 * Signs captures one after the other, each naming the one before.
 * @param alone runs an act while no other tab runs one: two captures must not take one place in the chain
 */
export function openSigner(store: CustodyStore, alone: <T>(act: () => Promise<T>) => Promise<T>) {
  /** The account's key on this device, made when there is none. */
  const keyOf = (accountId: AccountId): Promise<DeviceKey> =>
    alone(async () => {
      const known = await store.key(accountId);
      if (known) return known;
      const made = await makeKey();
      await store.putKey(accountId, made);
      return made;
    });
  return {
    keyOf,
    async sign(accountId: AccountId, capture: Capture): Promise<SignedCapture> {
      const key = await keyOf(accountId);
      const photographSha256 = await sha256Of(capture.photo);
      const { eventId, entrantId, catchId, kind, clockOffsetMs, position, identifierCode } = capture;
      return alone(async () => {
        const statement = nextStatement(await store.head(key.keyId, eventId), {
          captureId: uuidv7(),
          eventId,
          entrantId,
          catchId,
          keyId: key.keyId,
          kind,
          photographSha256,
          at: new Date(capture.atMs).toISOString(),
          runId: RUN_ID,
          monotonicMs: capture.monotonicMs,
          clockOffsetMs,
          position,
          identifierCode,
        });
        const done: SignedCapture = { statement, signature: await signed(key, statementBytes(statement)) };
        await store.append(
          { seq: statement.seq, hash: statementHash(statement) },
          {
            captureId: statement.captureId,
            eventId,
            entrantId,
            signed: done,
            frameId: capture.frameId,
            isTold: 0,
          },
        );
        return done;
      });
    },
  };
}
