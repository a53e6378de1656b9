import { placeInSchedule, type SessionTimes } from './session.ts';
import type { DayId } from '../ids.ts';

/**
 * Which day an instant belongs to: the one whose session runs then, else the one whose session is nearest. A night that
 * goes on past midnight is the day on which it began, for the code on the card, the well, the list and the judge alike.
 * Null where the event has no sessions.
 */
export function dayAt(sessions: readonly SessionTimes[], instantMs: number): string | null {
  const place = placeInSchedule(sessions, instantMs);
  return place.kind === 'no-sessions' ? null : place.dayId;
}

/** When the lines of a day are out: at the end of its last session. A day without sessions has no such moment: Infinity. */
export function linesOutOfDay(
  sessions: readonly Pick<SessionTimes, 'dayId' | 'linesOutMs'>[],
  dayId: DayId,
): number {
  const ends = sessions.filter((one) => one.dayId === dayId).map(({ linesOutMs }) => linesOutMs);
  return ends.length === 0 ? Infinity : Math.max(...ends);
}
