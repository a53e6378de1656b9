import { and, asc, eq, gt, inArray, isNotNull, isNull, ne, sql } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { accounts, entrantMembers, entrants, eventRoles, pairings } from '../storage/schema.ts'; // prettier-ignore
import type { Entrant, PeopleStore } from './peopleStore.ts';
import { accountColumns, pairingColumns } from './columns.mariadb.ts';
import type { AccountId, EventId } from '@lauta/core/ids';

const entrantsWhere = async (
  db: Connection,
  where: ReturnType<typeof eq>,
): Promise<(Entrant & { eventId: EventId })[]> => {
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
  const byId = new Map<string, Entrant & { eventId: EventId }>();
  for (const row of rows) {
    const known = byId.get(row.entrantId);
    if (known) known.name += ` & ${row.name}`;
    else byId.set(row.entrantId, row);
  }
  return [...byId.values()];
};

const held = (eventId: EventId, accountId: AccountId) =>
  and(eq(eventRoles.eventId, eventId), eq(eventRoles.accountId, accountId));

/** A partner’s phones. */
export function pairingsIn(
  db: Connection,
): Pick<PeopleStore, 'addPairing' | 'usePairing' | 'pairingsOf' | 'endPairing' | 'endPairingsOf'> {
  return {
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
    async endPairingsOf(accountId, eventId, endedAt) {
      await db
        .update(pairings)
        .set({ endedAt })
        .where(
          and(
            eq(pairings.accountId, accountId),
            eventId ? eq(pairings.eventId, eventId) : undefined,
            isNull(pairings.endedAt),
          ),
        );
    },
  };
}

/** Who is what in an event. */
export function rolesIn(
  db: Connection,
): Pick<
  PeopleStore,
  'addRole' | 'acceptRoles' | 'heldIn' | 'removeRoles' | 'unacceptElsewhere' | 'rolesIn' | 'rolesOf'
> {
  return {
    async addRole(eventId, accountId, role, acceptedAt) {
      await db.insert(eventRoles).ignore().values({ eventId, accountId, role, acceptedAt });
    },
    async acceptRoles(eventId, accountId, acceptedAt) {
      await db
        .update(eventRoles)
        .set({ acceptedAt })
        .where(and(held(eventId, accountId), isNull(eventRoles.acceptedAt)));
      const rows = await db
        .select({ role: eventRoles.role })
        .from(eventRoles)
        .where(and(held(eventId, accountId), isNotNull(eventRoles.acceptedAt)));
      return rows.map(({ role }) => role);
    },
    async heldIn(eventId, accountId) {
      return db
        .select({ role: eventRoles.role, acceptedAt: eventRoles.acceptedAt })
        .from(eventRoles)
        .where(held(eventId, accountId));
    },
    async removeRoles(eventId, accountId, roles) {
      await db.delete(eventRoles).where(and(held(eventId, accountId), inArray(eventRoles.role, [...roles])));
    },
    async unacceptElsewhere(accountId, eventId) {
      const elsewhere = and(eq(eventRoles.accountId, accountId), ne(eventRoles.eventId, eventId));
      const rows = await db
        .selectDistinct({ eventId: eventRoles.eventId })
        .from(eventRoles)
        .where(and(elsewhere, isNotNull(eventRoles.acceptedAt)));
      await db.update(eventRoles).set({ acceptedAt: null }).where(elsewhere);
      return rows.map((row) => row.eventId);
    },
    async rolesIn(eventId, accountId) {
      const rows = await db
        .select({ role: eventRoles.role })
        .from(eventRoles)
        .where(and(held(eventId, accountId), isNotNull(eventRoles.acceptedAt)));
      return rows.map((row) => row.role);
    },
    async rolesOf(accountId) {
      return db
        .select({ eventId: eventRoles.eventId, role: eventRoles.role })
        .from(eventRoles)
        .where(and(eq(eventRoles.accountId, accountId), isNotNull(eventRoles.acceptedAt)));
    },
  };
}

/** Everybody of an event, with roles and boats. */
export function peopleIn(db: Connection): Pick<PeopleStore, 'peopleOf' | 'directorsOf'> {
  return {
    async directorsOf(eventId) {
      const rows = await db
        .select({ accountId: eventRoles.accountId })
        .from(eventRoles)
        .innerJoin(accounts, eq(accounts.accountId, eventRoles.accountId))
        .where(
          and(
            eq(eventRoles.eventId, eventId),
            eq(eventRoles.role, 'director'),
            isNotNull(eventRoles.acceptedAt),
            isNull(accounts.suspendedAt),
          ),
        );
      return rows.map(({ accountId }) => accountId);
    },
    async peopleOf(eventId) {
      const rows = await db
        .select({
          account: accountColumns,
          role: eventRoles.role,
          acceptedAt: eventRoles.acceptedAt,
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
      for (const { account, role, acceptedAt, entrantId, number } of rows) {
        const known = people.get(account.accountId);
        const isAccepted = acceptedAt !== null;
        if (known) {
          known.roles.push(role);
          known.isAccepted &&= isAccepted;
        } else
          people.set(account.accountId, {
            account,
            roles: [role],
            isAccepted,
            entrantId,
            entrantNumber: number,
          });
      }
      return [...people.values()];
    },
  };
}

/** Who enters an event, and whose boat it is. */
export function entrantsIn(
  db: Connection,
): Pick<PeopleStore, 'addEntrant' | 'entrantsOf' | 'findEntrant' | 'isMember' | 'entrantsWith'> {
  return {
    async addEntrant(eventId, entrantId, number, accountId) {
      await db.insert(entrants).values({ eventId, entrantId, number });
      await db.insert(entrantMembers).values({ entrantId, accountId });
    },
    entrantsOf: (eventId) => entrantsWhere(db, eq(entrants.eventId, eventId)),
    async findEntrant(entrantId) {
      const [entrant] = await entrantsWhere(db, eq(entrants.entrantId, entrantId));
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
