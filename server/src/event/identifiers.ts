import { extendCodes } from '@lauta/core/identifier';
import type { Stores } from '../storage/storage.ts';

/** Gives every entrant a code for every day that has none yet, apart enough from all codes of that day. */
export async function issueMissingIdentifiers(
  stores: Stores,
  eventId: string,
  random: () => number,
): Promise<void> {
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
      await stores.events.addIdentifier(entrantId, dayId, codes[i] as string);
    }
  }
}
