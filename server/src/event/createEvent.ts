import { v7 as uuidv7 } from 'uuid';
import { issueCodes } from '@lauta/core/identifier';
import { genesisHash } from '@lauta/core/ledger';
import { resolveWallTime } from '@lauta/core/schedule';
import type { Handler } from '../command/commandContext.ts';
import { requireMay } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';
import type { DayId, SessionId } from '@lauta/core/ids';

const EVENT_CODE_LENGTH = 4;

/** A new event with its days and sessions; who creates it is its first director. */
export const createEvent: Handler<'event.create'> = async (
  { stores, asker, accountId, now, random, commit },
  body,
  command,
) => {
  const { eventId } = body;
  if (eventId !== command.eventId)
    refuse('invalid-request', { path: 'body.eventId', expected: command.eventId });
  await requireMay(stores, asker, 'create-event', { eventId: null });
  if (await stores.events.find(eventId)) refuse('event-exists');
  const sessions = resolveSessions(body.days, body.zone);
  const eventCode = freeEventCode(await stores.events.eventCodes(), random);
  const { name, zone, isPublic } = body;
  await stores.events.add({ eventId, name, zone, isPublic, eventCode }, now);
  await stores.ledger.open(eventId, { seq: 0, hash: genesisHash(eventId) });
  const dayIds: DayId[] = [];
  const sessionIds: SessionId[] = [];
  for (const [i, { date }] of body.days.entries()) {
    const dayId = uuidv7();
    dayIds.push(dayId);
    await stores.events.addDay(eventId, { dayId, seq: i + 1, date, codesFrom: null });
    for (const [k, session] of sessions.filter((one) => one.day === i).entries()) {
      const { linesInLocal, linesOutLocal, linesInAt, linesOutAt } = session;
      const sessionId = uuidv7();
      sessionIds.push(sessionId);
      await stores.events.addSession({
        sessionId,
        dayId,
        seq: k + 1,
        linesInLocal,
        linesOutLocal,
        linesInAt,
        linesOutAt,
      });
    }
  }
  await stores.people.addRole(eventId, accountId, 'director', now);
  const founder = await stores.people.findAccount(accountId);
  return {
    body: {
      name,
      zone,
      isPublic,
      eventCode,
      days: body.days,
      dayIds,
      person: commit('person', { name: founder?.name ?? '', email: founder?.email ?? '' }),
      sessions: sessions.map((one, i) => ({
        sessionId: sessionIds[i],
        linesInAt: one.linesInAt.toISOString(),
        linesOutAt: one.linesOutAt.toISOString(),
      })),
    },
    result: { eventCode },
  };
};

interface ResolvedSession {
  day: number;
  linesInLocal: string;
  linesOutLocal: string;
  linesInAt: Date;
  linesOutAt: Date;
}

function resolveSessions(
  days: readonly { sessions: readonly { linesInLocal: string; linesOutLocal: string }[] }[],
  zone: string,
): ResolvedSession[] {
  const resolve = (local: string): Date => {
    const resolved = resolveWallTime(local, zone);
    if (resolved.ok) return new Date(resolved.instantMs);
    if (resolved.code === 'unknown-zone') refuse('unknown-zone', { zone });
    refuse('wall-time-skipped', { local, zone, why: resolved.code });
  };
  const sessions = days.flatMap((day, i) =>
    day.sessions.map(({ linesInLocal, linesOutLocal }) => ({
      day: i,
      linesInLocal,
      linesOutLocal,
      linesInAt: resolve(linesInLocal),
      linesOutAt: resolve(linesOutLocal),
    })),
  );
  const inOrder = sessions.toSorted((a, b) => a.linesInAt.getTime() - b.linesInAt.getTime());
  for (const [i, session] of inOrder.entries()) {
    const next = inOrder[i + 1];
    if (session.linesOutAt <= session.linesInAt || (next && next.linesInAt < session.linesOutAt)) {
      refuse('sessions-overlap', { linesInLocal: session.linesInLocal });
    }
  }
  return sessions;
}

function freeEventCode(taken: readonly string[], random: () => number): string {
  for (;;) {
    const [code] = issueCodes(1, random, EVENT_CODE_LENGTH);
    if (code && !taken.includes(code)) return code;
  }
}
