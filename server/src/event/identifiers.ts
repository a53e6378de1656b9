import { extendCodes } from '@lauta/core/identifier';
import type { Stores } from '../storage/storage.ts';
import type { DayId, EntrantId, EventId } from '@lauta/core/ids';

/** Gives every entrant a code for every day that has none yet, apart enough from all codes of that day. @returns those */
export async function issueMissingIdentifiers(
  stores: Stores,
  eventId: EventId,
  random: () => number,
): Promise<{ entrantId: EntrantId; dayId: DayId; code: string }[]> {
  const made: { entrantId: EntrantId; dayId: DayId; code: string }[] = [];
  const entrants = await stores.people.entrantsOf(eventId);
  for (const { dayId } of await stores.events.days(eventId)) {
    const issued = await stores.events.identifiersOfDay(dayId);
    const without = entrants.filter(
      ({ entrantId }) => !issued.some((identifier) => identifier.entrantId === entrantId),
    );
    const codes = extendCodes(
      issued.map((identifier) => identifier.code),
      without.length,
      random,
    );
    for (const [i, { entrantId }] of without.entries()) {
      const code = codes[i] ?? '';
      await stores.events.addIdentifier(entrantId, dayId, code);
      made.push({ entrantId, dayId, code });
    }
  }
  return made;
}
