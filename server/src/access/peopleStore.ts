import type { PairedJob } from '@lauta/contract';
import type { Role } from '@lauta/core/people';

export interface Account {
  accountId: string;
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
  pairingId: string | null;
}

/** A partner's phone that acts for an entrant: as camera or as timer. */
export interface Pairing {
  pairingId: string;
  eventId: string;
  entrantId: string;
  accountId: string;
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
  entrantId: string;
  number: number;
  /** Names of the members, in the order of their accounts. */
  name: string;
}

/** A link as it was used: what for, and by whose word. */
export interface UsedInvitation {
  accountId: string;
  eventId: string | null;
  kind: 'invitation' | 'renewal';
}

export interface RoleHeld {
  eventId: string;
  role: Role;
}

/** Accounts, sign-ins, roles and entrants. */
export interface PeopleStore {
  anyAccount(): Promise<boolean>;
  addAccount(account: Account, createdAt: Date): Promise<void>;
  findAccount(accountId: string): Promise<Account | null>;
  /** Until the transaction ends nobody else counts what this account has. */
  lockAccount(accountId: string): Promise<void>;
  findAccountByEmail(email: string): Promise<Account | null>;
  setPassword(accountId: string, passwordHash: string): Promise<void>;

  addSignIn(
    tokenSha256: string,
    accountId: string,
    createdAt: Date,
    expiresAt: Date,
    from: { pairingId?: string | undefined; browser?: string | undefined },
  ): Promise<void>;
  /** The account of a sign-in that has not expired, and whose pairing has not ended. */
  accountOfSignIn(tokenSha256: string, now: Date): Promise<SignedInAccount | null>;
  removeSignIn(tokenSha256: string): Promise<void>;
  /** @param butId a sign-in that stays */
  removeSignInsOf(accountId: string, butId?: string): Promise<void>;
  signInsOf(accountId: string, now: Date): Promise<SignIn[]>;
  /** Ends one of an account's own; false when it has no such. */
  endSignIn(accountId: string, signInId: string): Promise<boolean>;
  /** Null ends a suspension. */
  suspend(accountId: string, at: Date | null): Promise<void>;
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
  pairingsOf(accountId: string, eventId: string): Promise<Pairing[]>;
  /** Ends an own pairing; false when there is none. */
  endPairing(accountId: string, pairingId: string, now: Date): Promise<boolean>;

  /** Ends all pairings of an account, in one event or everywhere; offers that nobody took too. */
  endPairingsOf(accountId: string, eventId: string | null, now: Date): Promise<void>;

  /** A role that is held already stays as it is. @param acceptedAt null until its person takes it up */
  addRole(eventId: string, accountId: string, role: Role, acceptedAt: Date | null): Promise<void>;
  /** @returns the roles that count from now on */
  acceptRoles(eventId: string, accountId: string, at: Date): Promise<Role[]>;
  /** Roles given, taken up or not. */
  heldIn(eventId: string, accountId: string): Promise<{ role: Role; acceptedAt: Date | null }[]>;
  removeRoles(eventId: string, accountId: string, roles: readonly Role[]): Promise<void>;
  /** Takes what was taken up in other events back to given: it must be taken up anew there. */
  unacceptElsewhere(accountId: string, eventId: string): Promise<string[]>;
  directorsOf(eventId: string): Promise<string[]>;
  /** Roles that count, as all below. */
  rolesIn(eventId: string, accountId: string): Promise<Role[]>;
  rolesOf(accountId: string): Promise<RoleHeld[]>;
  /** Everyone with a role in an event, taken up or not. */
  peopleOf(eventId: string): Promise<
    {
      account: Account;
      roles: Role[];
      isAccepted: boolean;
      entrantId: string | null;
      entrantNumber: number | null;
    }[]
  >;

  addEntrant(eventId: string, entrantId: string, number: number, memberId: string): Promise<void>;
  entrantsOf(eventId: string): Promise<Entrant[]>;
  findEntrant(entrantId: string): Promise<(Entrant & { eventId: string }) | null>;
  isMember(entrantId: string, accountId: string): Promise<boolean>;
  /** Entrants that an account is a member of. */
  entrantsWith(accountId: string): Promise<{ eventId: string; entrantId: string }[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    people: PeopleStore;
  }
}
