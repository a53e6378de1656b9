import type { Handler } from '../command/commandContext.ts';
import { requireMay } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';

/** A day of two phones that look at every fish each five minutes stays well under it. */
const MOST_ENTRIES = 2000;

/**
 * Keeps what was done at a well. What does not fit together is kept too and told by the core: two phones that did not
 * hear of each other are both right. What a boat has aboard is its own business until it shares a total: the ledger
 * tells that something was entered, and holds salted commitments to what.
 */
export const enterWell: Handler<'well.enter'> = async (
  { stores, asker, now, commit },
  { entrantId, dayId, entries },
  { eventId },
) => {
  const entrant = await stores.people.findEntrant(entrantId);
  if (entrant?.eventId !== eventId) refuse('not-found', { what: 'entrant' });
  await requireMay(stores, asker, 'keep-well', { eventId, entrantId });
  const days = await stores.events.days(eventId);
  if (!days.some((day) => day.dayId === dayId)) refuse('not-found', { what: 'day' });
  for (const { entryId } of entries) {
    if (await stores.wells.find(entryId)) refuse('entry-exists', { entryId });
  }
  if ((await stores.wells.count(entrantId, dayId)) + entries.length > MOST_ENTRIES)
    refuse('too-many-entries');
  await stores.wells.add({ eventId, entrantId, dayId }, entries, now);
  return {
    body: {
      entrantId,
      dayId,
      entries: entries.map((entry) => ({
        entryId: entry.entryId,
        content: commit(`well-${entry.entryId}`, entry),
      })),
    },
    result: { entered: entries.length },
  };
};
