import { linesOutOfDay } from '@lauta/core/schedule';
import type { Stores } from '../storage/storage.ts';
import type { EventId } from '@lauta/core/ids';

/** When the lines of each of the event's days are out, ms since 1970. */
export async function linesOutOf(stores: Stores, eventId: EventId): Promise<Map<string, number>> {
  const sessions = (await stores.events.sessions(eventId)).map(({ dayId, linesOutAt }) => ({
    dayId,
    linesOutMs: linesOutAt.getTime(),
  }));
  const days = await stores.events.days(eventId);
  return new Map(days.map(({ dayId }) => [dayId, linesOutOfDay(sessions, dayId)]));
}
