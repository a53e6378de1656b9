import { createECDH, createHash, createPrivateKey, sign, type KeyObject } from 'node:crypto';
import type { SignedCapture } from '@lauta/contract';
import {
  keyIdOf,
  nextStatement,
  statementBytes,
  statementHash,
  type CaptureStatement,
  type ChainHead,
  type PublicKey,
} from '@lauta/core/custody';
import { DEMO_SEED, demoId } from '@lauta/sim/demo';
import type { EntrantId, EventId, KeyId } from '@lauta/core/ids';

/** The phone of a demo angler. Its key follows from a label, so that a load that broke off goes on with the same one. */
export interface DemoDevice {
  publicKey: PublicKey;
  keyId: KeyId;
  /** The next capture of its chain; one that is not told leaves a gap. */
  capture(draft: Pick<CaptureStatement, 'catchId' | 'captureId' | 'kind' | 'photographSha256' | 'at' | 'position' | 'identifierCode'> & { monotonicMs: number }): SignedCapture; // prettier-ignore
}

/**
 * @param head where its chain stands already
 * @param startedMs when its page was opened, ms since 1970
 */
export function openDemoDevice(
  label: string,
  { eventId, entrantId, startedMs }: { eventId: EventId; entrantId: EntrantId; startedMs: number },
  head: ChainHead | null,
): DemoDevice {
  const { privateKey, publicKey } = keyPairOf(label);
  const keyId = keyIdOf(publicKey);
  let last = head;
  return {
    publicKey,
    keyId,
    capture(draft) {
      const statement = nextStatement(last, {
        ...draft,
        eventId,
        entrantId,
        keyId,
        runId: demoId(`run ${label}`, startedMs),
        clockOffsetMs: 240,
      });
      last = { seq: statement.seq, hash: statementHash(statement) };
      const signature = sign('sha256', statementBytes(statement), { key: privateKey, dsaEncoding: 'ieee-p1363' }); // prettier-ignore
      return { statement, signature: signature.toString('base64url') };
    },
  };
}

function keyPairOf(label: string): { privateKey: KeyObject; publicKey: PublicKey } {
  const secret = createHash('sha256').update(`lauta-demo:${DEMO_SEED}:${label}`).digest();
  const curve = createECDH('prime256v1');
  curve.setPrivateKey(secret);
  const point = curve.getPublicKey();
  const publicKey: PublicKey = {
    kty: 'EC',
    crv: 'P-256',
    x: point.subarray(1, 33).toString('base64url'),
    y: point.subarray(33).toString('base64url'),
  };
  const jwk = { ...publicKey, d: secret.toString('base64url') };
  return { privateKey: createPrivateKey({ key: jwk, format: 'jwk' }), publicKey };
}
