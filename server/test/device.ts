import { createHash, webcrypto } from 'node:crypto';
import { v7 as uuidv7 } from 'uuid';
import type { SignedCapture } from '@lauta/contract';
import {
  keyIdOf,
  nextStatement,
  registrationBytes,
  statementBytes,
  statementHash,
  type CaptureStatement,
  type ChainHead,
  type PublicKey,
} from '@lauta/core/custody';
import { NOON, send, type Person, type World } from './world.ts';

const CURVE = { name: 'ECDSA', namedCurve: 'P-256' } as const;

export const sha256Of = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** A phone with its key, as the page's own code keeps one. */
export interface TestDevice {
  keyId: string;
  publicKey: PublicKey;
  /** Proof of holding the key, for an account. */
  proofFor(accountId: string): Promise<string>;
  /** The next capture of its chain. */
  capture(draft: Partial<CaptureStatement> & { photographSha256: string }): Promise<SignedCapture>;
  /** Signs whatever it is given. */
  sign(statement: CaptureStatement): Promise<SignedCapture>;
}

export async function openDevice({
  eventId,
  entrantId,
}: {
  eventId: string;
  entrantId: string;
}): Promise<TestDevice> {
  const pair = await webcrypto.subtle.generateKey(CURVE, false, ['sign', 'verify']);
  const { x = '', y = '' } = await webcrypto.subtle.exportKey('jwk', pair.publicKey);
  const publicKey: PublicKey = { kty: 'EC', crv: 'P-256', x, y };
  const keyId = keyIdOf(publicKey);
  const runId = uuidv7();
  let head: ChainHead | null = null;
  let monotonicMs = 1000;
  const signed = async (bytes: Uint8Array): Promise<string> =>
    Buffer.from(
      await webcrypto.subtle.sign({ name: 'ECDSA', hash: 'SHA-256' }, pair.privateKey, bytes),
    ).toString('base64url');
  const sign = async (statement: CaptureStatement): Promise<SignedCapture> => ({
    statement,
    signature: await signed(statementBytes(statement)),
  });
  return {
    keyId,
    publicKey,
    proofFor: (accountId) => signed(registrationBytes(keyId, accountId)),
    sign,
    async capture(draft) {
      monotonicMs += 100;
      const statement = nextStatement(head, {
        captureId: uuidv7(),
        catchId: uuidv7(),
        eventId,
        entrantId,
        keyId,
        kind: 'frame',
        // A second before noon, and each a tenth later.
        at: new Date(Date.parse(NOON) - 2000 + monotonicMs).toISOString(),
        runId,
        monotonicMs,
        clockOffsetMs: 0,
        position: null,
        identifierCode: null,
        ...draft,
      });
      head = { seq: statement.seq, hash: statementHash(statement) };
      return sign(statement);
    },
  };
}

export async function register(world: World, person: Person, device: TestDevice) {
  return send(world, person, 'post', '/api/own-keys').send({
    publicKey: device.publicKey,
    deviceId: uuidv7(),
    proof: await device.proofFor(person.accountId),
  });
}
