import { and, asc, desc, eq, inArray, isNotNull, or } from 'drizzle-orm';
import type { Connection } from '../storage/database.ts';
import { eventDays, eventRoles, eventSessions, events, identifiers } from '../storage/schema.ts';
import type { EventStore } from './eventStore.ts';

const eventColumns = {
  eventId: events.eventId,
  name: events.name,
  zone: events.zone,
  isPublic: events.isPublic,
  officialAt: events.officialAt,
  eventCode: events.eventCode,
};

export function mariadbEventStore(db: Connection): EventStore {
  return { ...eventsIn(db), ...daysIn(db), ...cardsIn(db) };
}

/** Events, and who sees them. */
function eventsIn(
  db: Connection,
): Pick<EventStore, 'add' | 'setOfficial' | 'find' | 'all' | 'visibleTo' | 'eventCodes'> {
  return {
    async add(event, createdAt) {
      await db.insert(events).values({ ...event, createdAt });
    },
    async setOfficial(eventId, officialAt) {
      await db.update(events).set({ officialAt }).where(eq(events.eventId, eventId));
    },
    async find(eventId) {
      const [row] = await db.select(eventColumns).from(events).where(eq(events.eventId, eventId));
      return row ?? null;
    },
    async all() {
      return db.select(eventColumns).from(events).orderBy(asc(events.createdAt));
    },
    async visibleTo(accountId) {
      const own = accountId
        ? db
            .select({ eventId: eventRoles.eventId })
            .from(eventRoles)
            .where(and(eq(eventRoles.accountId, accountId), isNotNull(eventRoles.acceptedAt)))
        : null;
      return db
        .select(eventColumns)
        .from(events)
        .where(own ? or(eq(events.isPublic, true), inArray(events.eventId, own)) : eq(events.isPublic, true))
        .orderBy(desc(events.createdAt));
    },
    async eventCodes() {
      const rows = await db.select({ code: events.eventCode }).from(events);
      return rows.map((row) => row.code);
    },
  };
}

/** Days and sessions. */
function daysIn(
  db: Connection,
): Pick<EventStore, 'addDay' | 'addSession' | 'days' | 'setCodesFrom' | 'sessions'> {
  return {
    async addDay(eventId, day) {
      await db.insert(eventDays).values({ eventId, ...day });
    },
    async addSession(session) {
      await db.insert(eventSessions).values(session);
    },
    async days(eventId) {
      return db
        .select({
          dayId: eventDays.dayId,
          seq: eventDays.seq,
          date: eventDays.date,
          codesFrom: eventDays.codesFrom,
        })
        .from(eventDays)
        .where(eq(eventDays.eventId, eventId))
        .orderBy(asc(eventDays.seq));
    },
    async setCodesFrom(dayId, codesFrom) {
      await db.update(eventDays).set({ codesFrom }).where(eq(eventDays.dayId, dayId));
    },
    async sessions(eventId) {
      const rows = await db
        .select({ session: eventSessions })
        .from(eventSessions)
        .innerJoin(eventDays, eq(eventDays.dayId, eventSessions.dayId))
        .where(eq(eventDays.eventId, eventId))
        .orderBy(asc(eventSessions.linesInAt));
      return rows.map((row) => row.session);
    },
  };
}

/** Entrants’ identifiers of the days. */
function cardsIn(db: Connection): Pick<EventStore, 'addIdentifier' | 'identifiersOfDay' | 'identifiersOf'> {
  return {
    async addIdentifier(entrantId, dayId, code) {
      await db.insert(identifiers).values({ entrantId, dayId, code });
    },
    async identifiersOfDay(dayId) {
      return db
        .select({ entrantId: identifiers.entrantId, code: identifiers.code })
        .from(identifiers)
        .where(eq(identifiers.dayId, dayId));
    },
    async identifiersOf(entrantId) {
      return db
        .select({ dayId: identifiers.dayId, code: identifiers.code })
        .from(identifiers)
        .where(eq(identifiers.entrantId, entrantId));
    },
  };
}
