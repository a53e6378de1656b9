import { hash, verify } from '@node-rs/argon2';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import * as common from '@zxcvbn-ts/language-common';
import * as english from '@zxcvbn-ts/language-en';

/** OWASP's first choice (Password Storage Cheat Sheet): Argon2id, the library's default, 19 MiB, two passes, one lane. */
const OPTIONS = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** A password by its letters and not by how a keyboard composes them (RFC 8265, 4.2: OpaqueString is in NFC). */
const composed = (password: string): string => password.normalize('NFC');

export function hashPassword(password: string): Promise<string> {
  return hash(composed(password), OPTIONS);
}

let decoy: Promise<string> | null = null;

/** Takes as long for an account that does not exist as for one that does. */
export async function verifyPassword(passwordHash: string | null, password: string): Promise<boolean> {
  if (passwordHash === null) {
    decoy ??= hashPassword('nobody has this password');
    await verify(await decoy, password, OPTIONS);
    return false;
  }
  if (await verify(passwordHash, composed(password), OPTIONS)) return true;
  // Versions before hashed it as it came.
  return composed(password) !== password && verify(passwordHash, password, OPTIONS);
}

let judge: ZxcvbnFactory | null = null;
/** Of 0 to 4: under this fewer than 10⁶ guesses find it (Wheeler, USENIX Security 2016). */
const LEAST_SCORE = 2;

/** Whether a password is one that a list of common ones, or a few tries around name and address, finds. */
export function isWeak(password: string, about: readonly string[]): boolean {
  judge ??= new ZxcvbnFactory({
    dictionary: { ...common.dictionary, ...english.dictionary },
    graphs: common.adjacencyGraphs,
  });
  const words = about.flatMap((text) => [text, ...text.split(/[\s@.]+/)]).filter((word) => word.length > 2);
  return judge.check(composed(password), words).score < LEAST_SCORE;
}
