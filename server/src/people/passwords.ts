import { hash, verify } from '@node-rs/argon2';

/** OWASP's first choice (Password Storage Cheat Sheet): Argon2id, the library's default, 19 MiB, two passes, one lane. */
const OPTIONS = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export function hashPassword(password: string): Promise<string> {
  return hash(password, OPTIONS);
}

let decoy: Promise<string> | null = null;

/** Takes as long for an account that does not exist as for one that does. */
export async function verifyPassword(passwordHash: string | null, password: string): Promise<boolean> {
  if (passwordHash === null) {
    decoy ??= hashPassword('nobody has this password');
    await verify(await decoy, password, OPTIONS);
    return false;
  }
  return verify(passwordHash, password, OPTIONS);
}
