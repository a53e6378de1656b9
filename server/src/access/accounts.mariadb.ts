import { and, asc, eq, gt, isNull, lt, ne } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { accounts, invitations, pairings, signIns } from '../storage/schema.ts'; // prettier-ignore
import type { Account, PeopleStore } from './peopleStore.ts';
import { accountColumns, pairingColumns } from './columns.mariadb.ts';

const LINK = {
  accountId: invitations.accountId,
  eventId: invitations.eventId,
  kind: invitations.kind,
};

const accountWhere = async (db: Connection, where: ReturnType<typeof eq>): Promise<Account | null> => {
  const [row] = await db.select(accountColumns).from(accounts).where(where);
  return row ?? null;
};

const usable = (tokenSha256: string, now: Date) =>
  and(eq(invitations.tokenSha256, tokenSha256), isNull(invitations.usedAt), gt(invitations.expiresAt, now));

/** Accounts, and whether they may sign in. */
export function accountsIn(
  db: Connection,
): Pick<
  PeopleStore,
  | 'anyAccount'
  | 'addAccount'
  | 'findAccount'
  | 'lockAccount'
  | 'findAccountByEmail'
  | 'setPassword'
  | 'suspend'
> {
  return {
    async anyAccount() {
      const rows = await db.select({ id: accounts.accountId }).from(accounts).limit(1);
      return rows.length > 0;
    },
    async addAccount(account, createdAt) {
      await db.insert(accounts).values({ ...account, createdAt });
    },
    findAccount: (accountId) => accountWhere(db, eq(accounts.accountId, accountId)),
    async lockAccount(accountId) {
      await db
        .select({ accountId: accounts.accountId })
        .from(accounts)
        .where(eq(accounts.accountId, accountId))
        .for('update');
    },
    findAccountByEmail: (email) => accountWhere(db, eq(accounts.email, email)),
    async setPassword(accountId, passwordHash) {
      await db.update(accounts).set({ passwordHash }).where(eq(accounts.accountId, accountId));
    },
    async suspend(accountId, suspendedAt) {
      await db.update(accounts).set({ suspendedAt }).where(eq(accounts.accountId, accountId));
    },
  };
}

/** Browsers in which an account is signed in. */
export function signInsIn(
  db: Connection,
): Pick<
  PeopleStore,
  | 'addSignIn'
  | 'accountOfSignIn'
  | 'removeSignIn'
  | 'removeSignInsOf'
  | 'signInsOf'
  | 'endSignIn'
  | 'removeExpiredSignIns'
> {
  return {
    async addSignIn(tokenSha256, accountId, createdAt, expiresAt, { pairingId = null, browser = '' }) {
      await db.insert(signIns).values({ tokenSha256, accountId, createdAt, expiresAt, pairingId, browser });
    },
    async accountOfSignIn(tokenSha256, now) {
      const [row] = await db
        .select({ account: accountColumns, pairing: pairingColumns, signInId: signIns.signInId })
        .from(signIns)
        .innerJoin(accounts, eq(accounts.accountId, signIns.accountId))
        .leftJoin(pairings, eq(pairings.pairingId, signIns.pairingId))
        .where(
          and(
            eq(signIns.tokenSha256, tokenSha256),
            gt(signIns.expiresAt, now),
            isNull(pairings.endedAt),
            isNull(accounts.suspendedAt),
          ),
        );
      return row ? { ...row.account, pairing: row.pairing, signInId: row.signInId } : null;
    },
    async removeSignIn(tokenSha256) {
      await db.delete(signIns).where(eq(signIns.tokenSha256, tokenSha256));
    },
    async removeSignInsOf(accountId, butId) {
      await db
        .delete(signIns)
        .where(and(eq(signIns.accountId, accountId), butId ? ne(signIns.signInId, butId) : undefined));
    },
    async signInsOf(accountId, now) {
      return db
        .select({
          signInId: signIns.signInId,
          browser: signIns.browser,
          createdAt: signIns.createdAt,
          expiresAt: signIns.expiresAt,
          pairingId: signIns.pairingId,
        })
        .from(signIns)
        .leftJoin(pairings, eq(pairings.pairingId, signIns.pairingId))
        .where(and(eq(signIns.accountId, accountId), gt(signIns.expiresAt, now), isNull(pairings.endedAt)))
        .orderBy(asc(signIns.createdAt))
        .limit(200);
    },
    async endSignIn(accountId, signInId) {
      const own = and(eq(signIns.accountId, accountId), eq(signIns.signInId, signInId));
      const [row] = await db.select({ id: signIns.signInId }).from(signIns).where(own);
      if (row) await db.delete(signIns).where(own);
      return row !== undefined;
    },
    async removeExpiredSignIns(now) {
      await db.delete(signIns).where(lt(signIns.expiresAt, now));
    },
  };
}

/** Links that let somebody in once. */
export function invitationsIn(
  db: Connection,
): Pick<PeopleStore, 'setInvitation' | 'findInvitation' | 'useInvitation'> {
  return {
    async setInvitation(tokenSha256, { accountId, eventId, kind }, expiresAt) {
      await db
        .delete(invitations)
        .where(
          and(
            eq(invitations.accountId, accountId),
            eq(invitations.kind, kind),
            eventId ? eq(invitations.eventId, eventId) : isNull(invitations.eventId),
          ),
        );
      await db.insert(invitations).values({ tokenSha256, accountId, eventId, kind, expiresAt });
    },
    async findInvitation(tokenSha256, now) {
      const [row] = await db.select(LINK).from(invitations).where(usable(tokenSha256, now));
      return row ?? null;
    },
    async useInvitation(tokenSha256, now) {
      const [row] = await db.select(LINK).from(invitations).where(usable(tokenSha256, now)).for('update');
      if (!row) return null;
      await db.update(invitations).set({ usedAt: now }).where(eq(invitations.tokenSha256, tokenSha256));
      return row;
    },
  };
}
