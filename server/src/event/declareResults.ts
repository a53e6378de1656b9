import type { Handler } from '../command/commandContext.ts';
import { requireMay } from '../people/subject.ts';

/** Says that the results stand, or takes that back: while they stand no catch is decided anew. */
export const declareResults: Handler<'results.declare'> = async (
  { stores, asker, now },
  { isOfficial },
  { eventId },
) => {
  await requireMay(stores, asker, 'edit-event', { eventId });
  await stores.events.setOfficial(eventId, isOfficial ? now : null);
  return { body: { isOfficial }, result: { isOfficial } };
};
