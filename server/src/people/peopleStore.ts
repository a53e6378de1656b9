import type { Role } from '@lauta/core/people';

export interface Account {
  accountId: string;
  name: string;
  email: string;
  passwordHash: string | null;
  founder: boolean;
  invitedByEventId: string | null;
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

  addSignIn(tokenSha256: string, accountId: string, createdAt: Date, expiresAt: Date): Promise<void>;
  /** The account of a sign-in that has not expired. */
  accountOfSignIn(tokenSha256: string, now: Date): Promise<Account | null>;
  removeSignIn(tokenSha256: string): Promise<void>;
  removeSignInsOf(accountId: string): Promise<void>;
  removeExpiredSignIns(now: Date): Promise<void>;

  /** A new invitation takes the place of earlier ones. */
  setInvitation(tokenSha256: string, accountId: string, expiresAt: Date): Promise<void>;
  /** Uses an invitation up; null when there is none, or it is used or expired. */
  useInvitation(tokenSha256: string, now: Date): Promise<{ accountId: string } | null>;

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
