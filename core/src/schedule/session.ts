import type { DayId, SessionId } from '../ids.ts';

/** A session's hours as resolved instants (the wall time and zone they came from are stored beside them). */
export interface SessionTimes {
  sessionId: SessionId;
  dayId: DayId;
  linesInMs: number;
  linesOutMs: number;
}

export type PlaceInSchedule =
  | { kind: 'in-session'; sessionId: SessionId; dayId: DayId }
  /** Nearest day, so that a catch outside of the hours still belongs to one. */
  | { kind: 'before-lines-in' | 'after-lines-out'; dayId: DayId; byMs: number }
  | { kind: 'no-sessions' };

/** Where an instant falls in an event's sessions. Both lines-in and lines-out belong to the session. */
export function placeInSchedule(sessions: readonly SessionTimes[], instantMs: number): PlaceInSchedule {
  let nearest: PlaceInSchedule = { kind: 'no-sessions' };
  let nearestMs = Infinity;
  for (const { sessionId, dayId, linesInMs, linesOutMs } of sessions) {
    if (instantMs >= linesInMs && instantMs <= linesOutMs) return { kind: 'in-session', sessionId, dayId };
    const byMs = instantMs < linesInMs ? linesInMs - instantMs : instantMs - linesOutMs;
    if (byMs < nearestMs) {
      nearestMs = byMs;
      nearest = { kind: instantMs < linesInMs ? 'before-lines-in' : 'after-lines-out', dayId, byMs };
    }
  }
  return nearest;
}
