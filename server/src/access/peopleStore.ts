import type { PairedJob } from '@lauta/contract';
import type { Role } from '@lauta/core/people';
import type { AccountId, EntrantId, EventId, PairingId } from '@lauta/core/ids';

export interface Account {
  accountId: AccountId;
  name: string;
  email: string;
  passwordHash: string | null;
  founder: boolean;
  invitedByEventId: string | null;
  /** Since when nobody signs in with it. */
  suspendedAt?: Date | null;
}

/** A browser that is signed in, as its account sees it. */
export interface SignIn {
  signInId: string;
  browser: string;
  createdAt: Date;
  expiresAt: Date;
  pairingId: PairingId | null;
}

/** A partner's phone that acts for an entrant: as camera or as timer. */
export interface Pairing {
  pairingId: PairingId;
  eventId: EventId;
  entrantId: EntrantId;
  accountId: AccountId;
  job: PairedJob;
  createdAt: Date;
  usedAt: Date | null;
  endedAt: Date | null;
}

/** An account as a request comes from it. */
export interface SignedInAccount extends Account {
  pairing: Pairing | null;
  /** Of the sign-in by which it comes. */
  signInId: string;
}

export interface Entrant {
  entrantId: EntrantId;
  number: number;
  /** Names of the members, in the order of their accounts. */
  name: string;
}

/** A link as it was used: what for, and by whose word. */
export interface UsedInvitation {
  accountId: AccountId;
  eventId: EventId | null;
  kind: 'invitation' | 'renewal';
}

export interface RoleHeld {
  eventId: EventId;
  role: Role;
}

/** Accounts, sign-ins, roles and entrants. */
export interface PeopleStore {
  anyAccount(): Promise<boolean>;
  addAccount(account: Account, createdAt: Date): Promise<void>;
  findAccount(accountId: AccountId): Promise<Account | null>;
  /** Until the transaction ends nobody else counts what this account has. */
  lockAccount(accountId: AccountId): Promise<void>;
  findAccountByEmail(email: string): Promise<Account | null>;
  setPassword(accountId: AccountId, passwordHash: string): Promise<void>;

  addSignIn(
    tokenSha256: string,
    accountId: AccountId,
    createdAt: Date,
    expiresAt: Date,
    from: { pairingId?: PairingId | undefined; browser?: string | undefined },
  ): Promise<void>;
  /** The account of a sign-in that has not expired, and whose pairing has not ended. */
  accountOfSignIn(tokenSha256: string, now: Date): Promise<SignedInAccount | null>;
  removeSignIn(tokenSha256: string): Promise<void>;
  /** @param butId a sign-in that stays */
  removeSignInsOf(accountId: AccountId, butId?: string): Promise<void>;
  signInsOf(accountId: AccountId, now: Date): Promise<SignIn[]>;
  /** Ends one of an account's own; false when it has no such. */
  endSignIn(accountId: AccountId, signInId: string): Promise<boolean>;
  /** Null ends a suspension. */
  suspend(accountId: AccountId, at: Date | null): Promise<void>;
  removeExpiredSignIns(now: Date): Promise<void>;

  /** A new link takes the place of the event's earlier ones of that kind. */
  setInvitation(tokenSha256: string, link: UsedInvitation, expiresAt: Date): Promise<void>;
  /** What a link is for, while it is neither used nor expired. */
  findInvitation(tokenSha256: string, now: Date): Promise<UsedInvitation | null>;
  /** Uses a link up; null when there is none, or it is used or expired. */
  useInvitation(tokenSha256: string, now: Date): Promise<UsedInvitation | null>;

  addPairing(pairing: Pairing, tokenSha256: string, expiresAt: Date): Promise<void>;
  /** Uses a pairing's code up; null when there is none, or it is used, ended or expired. */
  usePairing(tokenSha256: string, now: Date): Promise<Pairing | null>;
  /** Pairings of an account in an event that have not ended, oldest first. */
  pairingsOf(accountId: AccountId, eventId: EventId): Promise<Pairing[]>;
  /** Ends an own pairing; false when there is none. */
  endPairing(accountId: AccountId, pairingId: PairingId, now: Date): Promise<boolean>;

  /** Ends all pairings of an account, in one event or everywhere; offers that nobody took too. */
  endPairingsOf(accountId: AccountId, eventId: EventId | null, now: Date): Promise<void>;

  /** A role that is held already stays as it is. @param acceptedAt null until its person takes it up */
  addRole(eventId: EventId, accountId: AccountId, role: Role, acceptedAt: Date | null): Promise<void>;
  /** @returns the roles that count from now on */
  acceptRoles(eventId: EventId, accountId: AccountId, at: Date): Promise<Role[]>;
  /** Roles given, taken up or not. */
  heldIn(eventId: EventId, accountId: AccountId): Promise<{ role: Role; acceptedAt: Date | null }[]>;
  removeRoles(eventId: EventId, accountId: AccountId, roles: readonly Role[]): Promise<void>;
  /** Takes what was taken up in other events back to given: it must be taken up anew there. */
  unacceptElsewhere(accountId: AccountId, eventId: EventId): Promise<string[]>;
  directorsOf(eventId: EventId): Promise<string[]>;
  /** Roles that count, as all below. */
  rolesIn(eventId: EventId, accountId: AccountId): Promise<Role[]>;
  rolesOf(accountId: AccountId): Promise<RoleHeld[]>;
  /** Everyone with a role in an event, taken up or not. */
  peopleOf(eventId: EventId): Promise<
    {
      account: Account;
      roles: Role[];
      isAccepted: boolean;
      entrantId: EntrantId | null;
      entrantNumber: number | null;
    }[]
  >;

  addEntrant(eventId: EventId, entrantId: EntrantId, number: number, memberId: AccountId): Promise<void>;
  entrantsOf(eventId: EventId): Promise<Entrant[]>;
  findEntrant(entrantId: EntrantId): Promise<(Entrant & { eventId: EventId }) | null>;
  isMember(entrantId: EntrantId, accountId: AccountId): Promise<boolean>;
  /** Entrants that an account is a member of. */
  entrantsWith(accountId: AccountId): Promise<{ eventId: EventId; entrantId: EntrantId }[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    people: PeopleStore;
  }
}
