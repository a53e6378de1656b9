import { and, asc, eq, gt, isNull, lt, sql } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { accounts, entrantMembers, entrants, eventRoles, invitations, pairings, signIns } from '../storage/schema.ts'; // prettier-ignore
import type { Account, Entrant, PeopleStore } from './peopleStore.ts';

const accountColumns = {
  accountId: accounts.accountId,
  name: accounts.name,
  email: accounts.email,
  passwordHash: accounts.passwordHash,
  founder: accounts.founder,
  invitedByEventId: accounts.invitedByEventId,
};

const pairingColumns = {
  pairingId: pairings.pairingId,
  eventId: pairings.eventId,
  entrantId: pairings.entrantId,
  accountId: pairings.accountId,
  job: pairings.job,
  createdAt: pairings.createdAt,
  usedAt: pairings.usedAt,
  endedAt: pairings.endedAt,
};

export function mariadbPeopleStore(db: Connection): PeopleStore {
  const one = async (where: ReturnType<typeof eq>): Promise<Account | null> => {
    const [row] = await db.select(accountColumns).from(accounts).where(where);
    return row ?? null;
  };
  const entrantsWhere = async (where: ReturnType<typeof eq>): Promise<(Entrant & { eventId: string })[]> => {
    const rows = await db
      .select({
        entrantId: entrants.entrantId,
        eventId: entrants.eventId,
        number: entrants.number,
        name: accounts.name,
      })
      .from(entrants)
      .innerJoin(entrantMembers, eq(entrantMembers.entrantId, entrants.entrantId))
      .innerJoin(accounts, eq(accounts.accountId, entrantMembers.accountId))
      .where(where)
      .orderBy(asc(entrants.number), asc(accounts.createdAt));
    const byId = new Map<string, Entrant & { eventId: string }>();
    for (const row of rows) {
      const known = byId.get(row.entrantId);
      if (known) known.name += ` & ${row.name}`;
      else byId.set(row.entrantId, row);
    }
    return [...byId.values()];
  };

  return {
    async anyAccount() {
      const rows = await db.select({ id: accounts.accountId }).from(accounts).limit(1);
      return rows.length > 0;
    },
    async addAccount(account, createdAt) {
      await db.insert(accounts).values({ ...account, createdAt });
    },
    findAccount: (accountId) => one(eq(accounts.accountId, accountId)),
    findAccountByEmail: (email) => one(eq(accounts.email, email)),
    async setPassword(accountId, passwordHash) {
      await db.update(accounts).set({ passwordHash }).where(eq(accounts.accountId, accountId));
    },

    async addSignIn(tokenSha256, accountId, createdAt, expiresAt, pairingId) {
      await db
        .insert(signIns)
        .values({ tokenSha256, accountId, createdAt, expiresAt, pairingId: pairingId ?? null });
    },
    async accountOfSignIn(tokenSha256, now) {
      const [row] = await db
        .select({ account: accountColumns, pairing: pairingColumns })
        .from(signIns)
        .innerJoin(accounts, eq(accounts.accountId, signIns.accountId))
        .leftJoin(pairings, eq(pairings.pairingId, signIns.pairingId))
        .where(
          and(eq(signIns.tokenSha256, tokenSha256), gt(signIns.expiresAt, now), isNull(pairings.endedAt)),
        );
      return row ? { ...row.account, pairing: row.pairing } : null;
    },
    async removeSignIn(tokenSha256) {
      await db.delete(signIns).where(eq(signIns.tokenSha256, tokenSha256));
    },
    async removeSignInsOf(accountId) {
      await db.delete(signIns).where(eq(signIns.accountId, accountId));
    },
    async removeExpiredSignIns(now) {
      await db.delete(signIns).where(lt(signIns.expiresAt, now));
    },

    async setInvitation(tokenSha256, accountId, expiresAt) {
      await db.delete(invitations).where(eq(invitations.accountId, accountId));
      await db.insert(invitations).values({ tokenSha256, accountId, expiresAt });
    },
    async useInvitation(tokenSha256, now) {
      const [row] = await db
        .select({ accountId: invitations.accountId })
        .from(invitations)
        .where(
          and(
            eq(invitations.tokenSha256, tokenSha256),
            isNull(invitations.usedAt),
            gt(invitations.expiresAt, now),
          ),
        )
        .for('update');
      if (!row) return null;
      await db.update(invitations).set({ usedAt: now }).where(eq(invitations.tokenSha256, tokenSha256));
      return row;
    },

    async addPairing(pairing, tokenSha256, expiresAt) {
      await db.insert(pairings).values({ ...pairing, tokenSha256, expiresAt });
    },
    async usePairing(tokenSha256, now) {
      const [row] = await db
        .select(pairingColumns)
        .from(pairings)
        .where(
          and(
            eq(pairings.tokenSha256, tokenSha256),
            isNull(pairings.usedAt),
            isNull(pairings.endedAt),
            gt(pairings.expiresAt, now),
          ),
        )
        .for('update');
      if (!row) return null;
      await db.update(pairings).set({ usedAt: now }).where(eq(pairings.pairingId, row.pairingId));
      return { ...row, usedAt: now };
    },
    async pairingsOf(accountId, eventId) {
      return db
        .select(pairingColumns)
        .from(pairings)
        .where(
          and(eq(pairings.accountId, accountId), eq(pairings.eventId, eventId), isNull(pairings.endedAt)),
        )
        .orderBy(asc(pairings.createdAt));
    },
    async endPairing(accountId, pairingId, endedAt) {
      const own = and(eq(pairings.accountId, accountId), eq(pairings.pairingId, pairingId));
      const [row] = await db.select({ id: pairings.pairingId }).from(pairings).where(own);
      if (!row) return false;
      await db
        .update(pairings)
        .set({ endedAt })
        .where(and(own, isNull(pairings.endedAt)));
      return true;
    },

    async addRole(eventId, accountId, role) {
      await db.insert(eventRoles).ignore().values({ eventId, accountId, role });
    },
    async rolesIn(eventId, accountId) {
      const rows = await db
        .select({ role: eventRoles.role })
        .from(eventRoles)
        .where(and(eq(eventRoles.eventId, eventId), eq(eventRoles.accountId, accountId)));
      return rows.map((row) => row.role);
    },
    async rolesOf(accountId) {
      return db
        .select({ eventId: eventRoles.eventId, role: eventRoles.role })
        .from(eventRoles)
        .where(eq(eventRoles.accountId, accountId));
    },
    async peopleOf(eventId) {
      const rows = await db
        .select({
          account: accountColumns,
          role: eventRoles.role,
          entrantId: entrants.entrantId,
          number: entrants.number,
        })
        .from(eventRoles)
        .innerJoin(accounts, eq(accounts.accountId, eventRoles.accountId))
        .leftJoin(
          entrantMembers,
          and(
            eq(entrantMembers.accountId, accounts.accountId),
            sql`${entrantMembers.entrantId} in (select ${entrants.entrantId} from ${entrants} where ${entrants.eventId} = ${eventId})`,
          ),
        )
        .leftJoin(entrants, eq(entrants.entrantId, entrantMembers.entrantId))
        .where(eq(eventRoles.eventId, eventId))
        .orderBy(asc(accounts.name), asc(accounts.accountId));
      const people = new Map<string, Awaited<ReturnType<PeopleStore['peopleOf']>>[number]>();
      for (const { account, role, entrantId, number } of rows) {
        const known = people.get(account.accountId);
        if (known) known.roles.push(role);
        else people.set(account.accountId, { account, roles: [role], entrantId, entrantNumber: number });
      }
      return [...people.values()];
    },

    async addEntrant(eventId, entrantId, number, accountId) {
      await db.insert(entrants).values({ eventId, entrantId, number });
      await db.insert(entrantMembers).values({ entrantId, accountId });
    },
    entrantsOf: (eventId) => entrantsWhere(eq(entrants.eventId, eventId)),
    async findEntrant(entrantId) {
      const [entrant] = await entrantsWhere(eq(entrants.entrantId, entrantId));
      return entrant ?? null;
    },
    async isMember(entrantId, accountId) {
      const rows = await db
        .select({ id: entrantMembers.entrantId })
        .from(entrantMembers)
        .where(and(eq(entrantMembers.entrantId, entrantId), eq(entrantMembers.accountId, accountId)));
      return rows.length > 0;
    },
    async entrantsWith(accountId) {
      return db
        .select({ eventId: entrants.eventId, entrantId: entrants.entrantId })
        .from(entrantMembers)
        .innerJoin(entrants, eq(entrants.entrantId, entrantMembers.entrantId))
        .where(eq(entrantMembers.accountId, accountId));
    },
  };
}
