import { webcrypto } from 'node:crypto';
import {
  registrationBytes,
  statementBytes,
  type CaptureStatement,
  type PublicKey,
} from '@lauta/core/custody';
import type { AccountId, KeyId } from '@lauta/core/ids';

const CURVE = { name: 'ECDSA', namedCurve: 'P-256' } as const;
const ALGORITHM = { name: 'ECDSA', hash: 'SHA-256' } as const;

/**
 * Whether `signature` (base64url of r and s, IEEE P1363) is ECDSA with SHA-256 on P-256 (FIPS 186-5) over `bytes`.
 * A key that is no point of the curve has signed nothing.
 */
export async function isSignedBy(
  { kty, crv, x, y }: PublicKey,
  signature: string,
  bytes: Uint8Array,
): Promise<boolean> {
  try {
    const key = await webcrypto.subtle.importKey('jwk', { kty, crv, x, y }, CURVE, false, ['verify']);
    return await webcrypto.subtle.verify(ALGORITHM, key, Buffer.from(signature, 'base64url'), bytes);
  } catch {
    return false;
  }
}

export function isStatementSigned(
  key: PublicKey,
  signature: string,
  statement: CaptureStatement,
): Promise<boolean> {
  return isSignedBy(key, signature, statementBytes(statement));
}

export function isRegistrationSigned(
  key: PublicKey,
  proof: string,
  keyId: KeyId,
  accountId: AccountId,
): Promise<boolean> {
  return isSignedBy(key, proof, registrationBytes(keyId, accountId));
}
