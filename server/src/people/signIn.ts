import { createHash, randomBytes } from 'node:crypto';
import type { Lauta } from '../lauta.ts';
import { refuse } from '../refusal.ts';
import type { Stores } from '../storage/storage.ts';
import { hashPassword, verifyPassword } from './passwords.ts';
import type { Pairing, SignedInAccount } from './peopleStore.ts';

/** Sign-ins and invitations go by real time: a demo's clock must not end them. */
const realNow = (): Date => new Date();

export const SIGN_IN_DAYS = 14;
const INVITATION_DAYS = 14;
const DAY_MS = 86_400_000;

export interface Token {
  /** Goes into the cookie or the link; the database has only its hash. */
  token: string;
  expiresAt: Date;
}

export function tokenSha256(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

function newToken(days: number): Token {
  return {
    token: randomBytes(32).toString('base64url'),
    expiresAt: new Date(realNow().getTime() + days * DAY_MS),
  };
}

export async function beginSignIn(stores: Stores, accountId: string, pairingId?: string): Promise<Token> {
  const token = newToken(SIGN_IN_DAYS);
  await stores.people.removeExpiredSignIns(realNow());
  await stores.people.addSignIn(tokenSha256(token.token), accountId, realNow(), token.expiresAt, pairingId);
  return token;
}

/** The same answer for a wrong password and for an account that does not exist. */
export async function signInWithPassword(lauta: Lauta, email: string, password: string): Promise<Token> {
  const account = await lauta.storage.read.people.findAccountByEmail(email.trim().toLowerCase());
  const fits = await verifyPassword(account?.passwordHash ?? null, password);
  if (!account || !fits) refuse('sign-in-failed');
  return beginSignIn(lauta.storage.read, account.accountId);
}

export async function accountOfToken(lauta: Lauta, token: string | null): Promise<SignedInAccount | null> {
  if (!token) return null;
  return lauta.storage.read.people.accountOfSignIn(tokenSha256(token), realNow());
}

/** The first director of a new installation; refused as soon as any account exists. */
export async function setUpFounder(
  lauta: Lauta,
  founder: { accountId: string; name: string; email: string; password: string },
): Promise<Token> {
  const passwordHash = await hashPassword(founder.password);
  const { accountId, name } = founder;
  return lauta.storage.change(async (stores) => {
    const isFirst = !(await stores.people.anyAccount());
    if (!isFirst || !(await stores.settings.setOnce('founder', accountId))) refuse('already-set-up');
    await stores.people.addAccount(
      {
        accountId,
        name,
        email: founder.email.trim().toLowerCase(),
        passwordHash,
        founder: true,
        invitedByEventId: null,
      },
      lauta.clock.now(),
    );
    return beginSignIn(stores, accountId);
  });
}

/**
 * A link with which an invited person chooses a password. Only the event that invited may make one, and only until
 * a password is set: else a director could take over an account.
 */
export async function invite(lauta: Lauta, eventId: string, accountId: string): Promise<Token> {
  return lauta.storage.change(async (stores) => {
    const account = await stores.people.findAccount(accountId);
    if (!account || account.invitedByEventId !== eventId) refuse('not-found', { what: 'invitation' });
    if (account.passwordHash !== null) refuse('invitation-used');
    const token = newToken(INVITATION_DAYS);
    await stores.people.setInvitation(tokenSha256(token.token), accountId, token.expiresAt);
    return token;
  });
}

export async function acceptInvitation(lauta: Lauta, token: string, password: string): Promise<Token> {
  const passwordHash = await hashPassword(password);
  return lauta.storage.change(async (stores) => {
    const used = await stores.people.useInvitation(tokenSha256(token), realNow());
    if (!used) refuse('invitation-used');
    await stores.people.setPassword(used.accountId, passwordHash);
    return beginSignIn(stores, used.accountId);
  });
}

const PAIRING_MS = 15 * 60_000;

/** A code by which one phone more may act for an own entrant: once, within a quarter of an hour. */
export async function offerPairing(
  stores: Stores,
  offer: Pick<Pairing, 'pairingId' | 'eventId' | 'entrantId' | 'accountId' | 'job'>,
): Promise<Token> {
  const token = randomBytes(32).toString('base64url');
  const now = realNow();
  const expiresAt = new Date(now.getTime() + PAIRING_MS);
  await stores.people.addPairing(
    { ...offer, createdAt: now, usedAt: null, endedAt: null },
    tokenSha256(token),
    expiresAt,
  );
  return { token, expiresAt };
}

/** Signs a partner's phone in, for the one entrant whose code it has. */
export async function acceptPairing(lauta: Lauta, token: string): Promise<Token> {
  return lauta.storage.change(async (stores) => {
    const pairing = await stores.people.usePairing(tokenSha256(token), realNow());
    if (!pairing) refuse('pairing-used');
    return beginSignIn(stores, pairing.accountId, pairing.pairingId);
  });
}

/** Ends a pairing: its phone is signed out from then on. */
export async function endPairing(stores: Stores, accountId: string, pairingId: string): Promise<void> {
  if (!(await stores.people.endPairing(accountId, pairingId, realNow())))
    refuse('not-found', { what: 'pairing' });
}
