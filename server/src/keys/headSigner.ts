import {
  createHash,
  createPrivateKey,
  createPublicKey,
  generateKeyPairSync,
  sign,
  verify,
} from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { z } from 'zod';
import { headBytes, type LedgerHead } from '@lauta/core/ledger';
import type { EventId, KeyId } from '@lauta/core/ids';

/** A head with the word of the installation that it was so. */
export interface SignedHead extends LedgerHead {
  signature: string;
  signedBy: string;
}

export interface LedgerKey {
  keyId: KeyId;
  /** SubjectPublicKeyInfo in PEM (RFC 8410). */
  publicKey: string;
  /** Null for the one that signs now. */
  retiredAt: string | null;
  /** Over the next key's id by this one, so that who trusts this one may trust the next. */
  handedOver: string | null;
}

/** Signs the heads of ledgers with a key that is not in the database: who alters only that can't sign anew. */
export interface HeadSigner {
  sign(eventId: EventId, head: LedgerHead): SignedHead;
  /** Whether a signature is one of this installation's, by the present key or a former one. */
  isSigned(eventId: EventId, head: SignedHead): boolean;
  keys(): LedgerKey[];
  /** False where the key passes with the process: then a head of before it can't be told from a forged one. */
  readonly isLasting: boolean;
}

const fileSchema = z.strictObject({
  current: z.strictObject({ privateKey: z.string() }),
  former: z.array(z.strictObject({ publicKey: z.string(), retiredAt: z.string(), handedOver: z.string() })),
});
type KeyFile = z.infer<typeof fileSchema>;

const pem = { type: 'spki', format: 'pem' } as const;

/** The first 32 hex digits of the SHA-256 of the public key's DER form: short enough to be read aloud and compared. */
export function keyIdOf(publicKeyPem: string): string {
  const der = createPublicKey(publicKeyPem).export({ type: 'spki', format: 'der' });
  return createHash('sha256').update(der).digest('hex').slice(0, 32);
}

function newPrivateKey(): string {
  const { privateKey } = generateKeyPairSync('ed25519');
  return privateKey.export({ type: 'pkcs8', format: 'pem' }).toString();
}

/** Public keys of the installations whose backups were restored here: their heads stay signed until something is appended. */
const trustedFile = (path: string): string => `${path}.trusted`;

export function signerOf(file: KeyFile, trusted: readonly string[] = []): HeadSigner {
  const privateKey = createPrivateKey(file.current.privateKey);
  const current = createPublicKey(privateKey).export(pem).toString();
  const keys: LedgerKey[] = [
    { keyId: keyIdOf(current), publicKey: current, retiredAt: null, handedOver: null },
    ...file.former.map((one) => ({ keyId: keyIdOf(one.publicKey), ...one })),
  ];
  const known = new Map(
    [...trusted, ...keys.map((one) => one.publicKey)].map((publicKey) => [keyIdOf(publicKey), publicKey]),
  );
  const [{ keyId }] = keys as [LedgerKey];
  return {
    sign: (eventId, { seq, hash }) => ({
      seq,
      hash,
      signature: sign(null, headBytes(eventId, { seq, hash }), privateKey).toString('base64url'),
      signedBy: keyId,
    }),
    isSigned(eventId, { signature, signedBy, ...head }) {
      const publicKey = known.get(signedBy);
      if (!publicKey) return false;
      return verify(null, headBytes(eventId, head), publicKey, Buffer.from(signature, 'base64url'));
    },
    keys: () => keys,
    isLasting: true,
  };
}

/** A key of its own for as long as the process lives. */
export const passingSigner = (): HeadSigner => ({
  ...signerOf({ current: { privateKey: newPrivateKey() }, former: [] }),
  isLasting: false,
});

function write(path: string, file: KeyFile): void {
  const part = `${path}.part`;
  writeFileSync(part, JSON.stringify(file, null, 2), { mode: 0o600 });
  renameSync(part, path);
}

/** The signer whose key is in a file, readable by its owner alone; made when there is none. */
export function openHeadSigner(path: string): HeadSigner {
  if (!existsSync(path)) write(path, { current: { privateKey: newPrivateKey() }, former: [] });
  const trusted = existsSync(trustedFile(path))
    ? z.array(z.string()).parse(JSON.parse(readFileSync(trustedFile(path), 'utf8')))
    : [];
  return signerOf(fileSchema.parse(JSON.parse(readFileSync(path, 'utf8'))), trusted);
}

/** Puts a new key in place of the present one, which says by its signature which key comes after it. */
export function rotateKey(path: string, at: Date): { from: string; to: string } {
  const file = fileSchema.parse(JSON.parse(readFileSync(path, 'utf8')));
  const old = createPrivateKey(file.current.privateKey);
  const publicKey = createPublicKey(old).export(pem).toString();
  const privateKey = newPrivateKey();
  const to = keyIdOf(createPublicKey(privateKey).export(pem).toString());
  const handedOver = sign(null, Buffer.from(`lauta-ledger-key:${to}`), old).toString('base64url');
  write(path, {
    current: { privateKey },
    former: [{ publicKey, retiredAt: at.toISOString(), handedOver }, ...file.former],
  });
  return { from: keyIdOf(publicKey), to };
}
