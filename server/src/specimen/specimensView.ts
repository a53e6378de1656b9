import type { SpecimensView } from '@lauta/contract';
import type { Stores } from '../storage/storage.ts';
import type { EntrantId, EventId } from '@lauta/core/ids';

/** The records of an event, or of some of its entrants, with what later ones put right. */
export async function specimensView(
  stores: Stores,
  eventId: EventId,
  entrantIds?: readonly EntrantId[],
): Promise<SpecimensView> {
  const stored = await stores.specimens.inEvent(eventId, entrantIds);
  const entrants = new Map((await stores.people.entrantsOf(eventId)).map((one) => [one.entrantId, one]));
  const corrections = new Map(
    stored.flatMap(({ record }) =>
      record.corrects ? [[record.corrects.specimenId, record.specimenId]] : [],
    ),
  );
  return {
    specimens: stored.map(({ record, entrantId, receivedAt }) => ({
      ...record,
      entrant: {
        number: entrants.get(entrantId)?.number ?? 0,
        name: entrants.get(entrantId)?.name ?? '',
      },
      receivedAt: receivedAt.toISOString(),
      correctedBy: corrections.get(record.specimenId) ?? null,
    })),
  };
}
