import type { EventView } from '@lauta/contract';
import { dayAt, type SessionTimes } from '@lauta/core/schedule';

/** An event's sessions as the core takes them. */
export function sessionTimes({ sessions }: Pick<EventView, 'sessions'>): SessionTimes[] {
  return sessions.map(({ sessionId, dayId, linesInAt, linesOutAt }) => ({
    sessionId,
    dayId,
    linesInMs: Date.parse(linesInAt),
    linesOutMs: Date.parse(linesOutAt),
  }));
}

/** The event's day that it is now, by the server's own rule; null of an event without days. */
export function dayOfNow(
  event: Pick<EventView, 'sessions' | 'days'>,
  nowMs: number,
): EventView['days'][number] | null {
  const dayId = dayAt(sessionTimes(event), nowMs);
  return event.days.find((day) => day.dayId === dayId) ?? event.days[0] ?? null;
}
