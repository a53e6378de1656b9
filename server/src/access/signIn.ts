import { createHash, randomBytes } from 'node:crypto';
import { normalEmail } from '@lauta/contract';
import { installationLedger, note } from '../installation/installation.ts';
import type { Lauta } from '../context/lauta.ts';
import { enter } from '../ledger/enter.ts';
import { refuse } from '../base/refusal.ts';
import type { Stores } from '../storage/storage.ts';
import { hashPassword, isWeak, verifyPassword } from './passwords.ts';
import type { Pairing, SignedInAccount } from './peopleStore.ts';
import type { AccountId, EventId, PairingId } from '@lauta/core/ids';

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

/** Where a sign-in comes from. */
export interface SignInFrom {
  pairingId?: PairingId | undefined;
  browser?: string | undefined;
}

export async function beginSignIn(
  stores: Stores,
  accountId: AccountId,
  from: SignInFrom = {},
): Promise<Token> {
  const token = newToken(SIGN_IN_DAYS);
  await stores.people.removeExpiredSignIns(realNow());
  await stores.people.addSignIn(tokenSha256(token.token), accountId, realNow(), token.expiresAt, from);
  return token;
}

/** The same answer for a wrong password, for an account that does not exist, and for one that is suspended. */
export async function signInWithPassword(
  lauta: Lauta,
  email: string,
  password: string,
  from: SignInFrom,
): Promise<Token & { accountId: AccountId }> {
  const account = await lauta.storage.read.people.findAccountByEmail(normalEmail(email));
  const fits = await verifyPassword(account?.passwordHash ?? null, password);
  if (!account || !fits) refuse('sign-in-failed');
  if (account.suspendedAt) refuse('account-suspended');
  const { accountId } = account;
  return { accountId, ...(await beginSignIn(lauta.storage.read, accountId, from)) };
}

export async function accountOfToken(lauta: Lauta, token: string | null): Promise<SignedInAccount | null> {
  if (!token) return null;
  return lauta.storage.read.people.accountOfSignIn(tokenSha256(token), realNow());
}

/** The first director of a new installation; refused as soon as any account exists. */
export async function setUpFounder(
  lauta: Lauta,
  founder: { accountId: AccountId; name: string; email: string; password: string },
  from: SignInFrom,
): Promise<Token> {
  const { accountId, name, password } = founder;
  const email = normalEmail(founder.email);
  if (isWeak(password, [name, email])) refuse('password-weak');
  const passwordHash = await hashPassword(password);
  return lauta.storage.change(async (stores) => {
    const isFirst = !(await stores.people.anyAccount());
    if (!isFirst || !(await stores.settings.setOnce('founder', accountId))) refuse('already-set-up');
    await stores.people.addAccount(
      { accountId, name, email, passwordHash, founder: true, invitedByEventId: null },
      lauta.clock.now(),
    );
    await note(lauta, stores, accountId, lauta.clock.now(), { kind: 'account.found', accountId });
    return beginSignIn(stores, accountId, from);
  });
}

/**
 * A link by which a person takes up the roles of an event. Where the account has no password yet, who opens it chooses
 * one; else its owner must be signed in: another event's director who was quicker with the same address gets nothing.
 */
export async function invite(lauta: Lauta, eventId: EventId, accountId: AccountId): Promise<Token> {
  return lauta.storage.change(async (stores) => {
    const held = await stores.people.heldIn(eventId, accountId);
    if (held.length === 0) refuse('not-found', { what: 'invitation' });
    if (held.every(({ acceptedAt }) => acceptedAt !== null)) refuse('invitation-used');
    const token = newToken(INVITATION_DAYS);
    await stores.people.setInvitation(
      tokenSha256(token.token),
      { accountId, eventId, kind: 'invitation' },
      token.expiresAt,
    );
    return token;
  });
}

/** What a link offers, for the page that opens it. */
export async function lookAtLink(lauta: Lauta, token: string) {
  const stores = lauta.storage.read;
  const link = await stores.people.findInvitation(tokenSha256(token), realNow());
  const account = link && (await stores.people.findAccount(link.accountId));
  if (!link || !account) refuse('invitation-used');
  const event = link.eventId === null ? null : await stores.events.find(link.eventId);
  return {
    kind: link.kind,
    eventId: link.eventId,
    eventName: event?.name ?? null,
    hasPassword: account.passwordHash !== null,
  };
}

/** Enters that an account has taken up its roles in an event. */
export async function enterAcceptance(
  lauta: Pick<Lauta, 'clock' | 'signer'>,
  stores: Stores,
  eventId: EventId,
  accountId: AccountId,
): Promise<void> {
  const at = lauta.clock.now();
  const roles = await stores.people.acceptRoles(eventId, accountId, at);
  await enter(lauta, stores, {
    ledgerId: eventId,
    actorId: accountId,
    kind: 'people.accept',
    at,
    body: () => ({ accountId, roles: roles.toSorted() }),
  });
}

/** Opens an account that nobody has opened yet, and takes up the roles of the event whose link it is. */
export async function acceptInvitation(
  lauta: Lauta,
  token: string,
  password: string,
  from: SignInFrom,
): Promise<Token> {
  const passwordHash = await hashPassword(password);
  return lauta.storage.change(async (stores) => {
    const used = await stores.people.useInvitation(tokenSha256(token), realNow());
    const account = used && (await stores.people.findAccount(used.accountId));
    if (used?.kind !== 'invitation' || !account) refuse('invitation-used');
    const { accountId } = account;
    if (account.passwordHash !== null) refuse('account-opened');
    if (isWeak(password, [account.name, account.email])) refuse('password-weak');
    await stores.people.setPassword(accountId, passwordHash);
    await note(lauta, stores, accountId, lauta.clock.now(), {
      kind: 'password.set',
      accountId,
      how: 'invitation',
    });
    if (used.eventId) await enterAcceptance(lauta, stores, used.eventId, accountId);
    return beginSignIn(stores, accountId, from);
  });
}

/** The owner's own change; every other sign-in ends. */
export async function changePassword(
  lauta: Lauta,
  account: SignedInAccount,
  current: string,
  next: string,
): Promise<void> {
  const { accountId, name, email, signInId } = account;
  if (!(await verifyPassword(account.passwordHash, current))) refuse('sign-in-failed');
  if (isWeak(next, [name, email])) refuse('password-weak');
  const passwordHash = await hashPassword(next);
  await lauta.storage.change(async (stores) => {
    await stores.people.setPassword(accountId, passwordHash);
    await stores.people.removeSignInsOf(accountId, signInId);
    await stores.people.endPairingsOf(accountId, null, realNow());
    await note(lauta, stores, accountId, lauta.clock.now(), { kind: 'password.set', accountId, how: 'own' });
  });
  lauta.hub.dropAccount(accountId);
}

const RENEWAL_DAYS = 1;

/**
 * A code by which a person who forgot the password chooses another: of the event that invited, once, for a day. What the
 * account may in other events must be taken up there anew, so that no director comes by a password to another's event.
 */
export async function offerRenewal(
  lauta: Lauta,
  directorId: string,
  eventId: EventId,
  accountId: AccountId,
): Promise<Token> {
  return lauta.storage.change(async (stores) => {
    const account = await stores.people.findAccount(accountId);
    if (account?.invitedByEventId !== eventId || account.founder) refuse('not-found', { what: 'account' });
    if (account.passwordHash === null) refuse('not-found', { what: 'password' });
    const token = newToken(RENEWAL_DAYS);
    const link = { accountId, eventId, kind: 'renewal' as const };
    await stores.people.setInvitation(tokenSha256(token.token), link, token.expiresAt);
    await note(lauta, stores, directorId, lauta.clock.now(), { kind: 'password.renew', accountId, eventId });
    return token;
  });
}

/**
 * The same by whoever runs the machine, for someone whom no director can renew: a founder, or the only director. What the
 * account may stays as it is. Null where no account has that address and a password.
 */
export async function offerOperatorRenewal(
  { storage, ...lauta }: Pick<Lauta, 'storage' | 'clock' | 'signer'>,
  email: string,
): Promise<Token | null> {
  return storage.change(async (stores) => {
    const account = await stores.people.findAccountByEmail(normalEmail(email));
    if (!account || account.passwordHash === null) return null;
    const { accountId } = account;
    const token = newToken(RENEWAL_DAYS);
    await stores.people.setInvitation(tokenSha256(token.token), { accountId, eventId: null, kind: 'renewal' }, token.expiresAt); // prettier-ignore
    const operatorId = await installationLedger(stores);
    await note(lauta, stores, operatorId, lauta.clock.now(), { kind: 'password.renew', accountId, eventId: null }); // prettier-ignore
    return token;
  });
}

/** Chooses another password by a renewal's code: whoever was signed in before is not any more. */
export async function acceptRenewal(
  lauta: Lauta,
  token: string,
  password: string,
  from: SignInFrom,
): Promise<Token> {
  const passwordHash = await hashPassword(password);
  const { accountId, ...made } = await lauta.storage.change(async (stores) => {
    const used = await stores.people.useInvitation(tokenSha256(token), realNow());
    const account = used && (await stores.people.findAccount(used.accountId));
    if (used?.kind !== 'renewal' || !account) refuse('invitation-used');
    if (isWeak(password, [account.name, account.email])) refuse('password-weak');
    const { accountId: id } = account;
    await stores.people.setPassword(id, passwordHash);
    await stores.people.removeSignInsOf(id);
    await stores.people.endPairingsOf(id, null, realNow());
    await note(lauta, stores, id, lauta.clock.now(), { kind: 'password.set', accountId: id, how: 'renewal' });
    const elsewhere = used.eventId === null ? [] : await stores.people.unacceptElsewhere(id, used.eventId);
    for (const eventId of elsewhere) {
      await enter(lauta, stores, {
        ledgerId: eventId,
        actorId: id,
        kind: 'people.unaccept',
        at: lauta.clock.now(),
        body: () => ({ accountId: id, why: 'password-renewed' }),
      });
    }
    return { accountId: id, ...(await beginSignIn(stores, id, from)) };
  });
  lauta.hub.dropAccount(accountId);
  return made;
}

/** Keeps an account out, or lets it in again. Nobody does so to the installation's founder, or to himself. */
export async function suspendAccount(
  lauta: Lauta,
  by: SignedInAccount,
  eventId: EventId,
  accountId: AccountId,
  { isSuspended, why }: { isSuspended: boolean; why: string },
): Promise<void> {
  await lauta.storage.change(async (stores) => {
    const account = await stores.people.findAccount(accountId);
    const mayDo = by.founder || account?.invitedByEventId === eventId;
    if (!account || !mayDo) refuse('not-found', { what: 'account' });
    if (account.founder || accountId === by.accountId) refuse('not-allowed');
    const at = lauta.clock.now();
    await stores.people.suspend(accountId, isSuspended ? at : null);
    if (isSuspended) {
      await stores.people.removeSignInsOf(accountId);
      await stores.people.endPairingsOf(accountId, null, realNow());
    }
    const kind = isSuspended ? ('account.suspend' as const) : ('account.reinstate' as const);
    await note(lauta, stores, by.accountId, at, { kind, accountId, why });
  });
  lauta.hub.dropAccount(accountId);
}

/** Ends all sign-ins, partners' phones and offers to pair one. */
export async function signOutEverywhere(lauta: Lauta, accountId: AccountId): Promise<void> {
  await lauta.storage.change(async (stores) => {
    await stores.people.removeSignInsOf(accountId);
    await stores.people.endPairingsOf(accountId, null, realNow());
  });
  lauta.hub.dropAccount(accountId);
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
export async function acceptPairing(lauta: Lauta, token: string, from: SignInFrom): Promise<Token> {
  return lauta.storage.change(async (stores) => {
    const pairing = await stores.people.usePairing(tokenSha256(token), realNow());
    if (!pairing) refuse('pairing-used');
    return beginSignIn(stores, pairing.accountId, { ...from, pairingId: pairing.pairingId });
  });
}

/** Ends a pairing: its phone is signed out from then on. */
export async function endPairing(lauta: Lauta, accountId: AccountId, pairingId: PairingId): Promise<void> {
  if (!(await lauta.storage.read.people.endPairing(accountId, pairingId, realNow())))
    refuse('not-found', { what: 'pairing' });
  lauta.hub.dropAccount(accountId);
}
