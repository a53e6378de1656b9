import type { PairedJob } from '@lauta/contract';
import type { Role } from '@lauta/core/people';

export interface Account {
  accountId: string;
  name: string;
  email: string;
  passwordHash: string | null;
  founder: boolean;
  invitedByEventId: string | null;
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
}

export interface Entrant {
  entrantId: string;
  number: number;
  /** Names of the members, in the order of their accounts. */
  name: string;
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
  findAccountByEmail(email: string): Promise<Account | null>;
  setPassword(accountId: string, passwordHash: string): Promise<void>;

  addSignIn(
    tokenSha256: string,
    accountId: string,
    createdAt: Date,
    expiresAt: Date,
    pairingId?: string,
  ): Promise<void>;
  /** The account of a sign-in that has not expired, and whose pairing has not ended. */
  accountOfSignIn(tokenSha256: string, now: Date): Promise<SignedInAccount | null>;
  removeSignIn(tokenSha256: string): Promise<void>;
  removeSignInsOf(accountId: string): Promise<void>;
  removeExpiredSignIns(now: Date): Promise<void>;

  /** A new invitation takes the place of earlier ones. */
  setInvitation(tokenSha256: string, accountId: string, expiresAt: Date): Promise<void>;
  /** Uses an invitation up; null when there is none, or it is used or expired. */
  useInvitation(tokenSha256: string, now: Date): Promise<{ accountId: string } | null>;

  addPairing(pairing: Pairing, tokenSha256: string, expiresAt: Date): Promise<void>;
  /** Uses a pairing's code up; null when there is none, or it is used, ended or expired. */
  usePairing(tokenSha256: string, now: Date): Promise<Pairing | null>;
  /** Pairings of an account in an event that have not ended, oldest first. */
  pairingsOf(accountId: string, eventId: string): Promise<Pairing[]>;
  /** Ends an own pairing; false when there is none. */
  endPairing(accountId: string, pairingId: string, now: Date): Promise<boolean>;

  addRole(eventId: string, accountId: string, role: Role): Promise<void>;
  rolesIn(eventId: string, accountId: string): Promise<Role[]>;
  rolesOf(accountId: string): Promise<RoleHeld[]>;
  /** Everyone with a role in an event. */
  peopleOf(
    eventId: string,
  ): Promise<{ account: Account; roles: Role[]; entrantId: string | null; entrantNumber: number | null }[]>;

  addEntrant(eventId: string, entrantId: string, number: number, memberId: string): Promise<void>;
  entrantsOf(eventId: string): Promise<Entrant[]>;
  findEntrant(entrantId: string): Promise<(Entrant & { eventId: string }) | null>;
  isMember(entrantId: string, accountId: string): Promise<boolean>;
  /** Entrants that an account is a member of. */
  entrantsWith(accountId: string): Promise<{ eventId: string; entrantId: string }[]>;
}
