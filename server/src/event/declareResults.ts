import type { CommandContext, Handler } from '../command/commandContext.ts';
import { requireMay } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';
import type { EventId } from '@lauta/core/ids';

/** Says that the results stand, or takes that back: while they stand nothing that scores is changed. */
export const declareResults: Handler<'results.declare'> = async (
  { stores, asker, now },
  { isOfficial },
  { eventId },
) => {
  await requireMay(stores, asker, 'edit-event', { eventId });
  await stores.events.setOfficial(eventId, isOfficial ? now : null);
  return { body: { isOfficial }, result: { isOfficial } };
};

/** What would change a result waits until the director opens them again. */
export async function refuseIfOfficial(
  { stores }: Pick<CommandContext, 'stores'>,
  eventId: EventId,
): Promise<void> {
  if ((await stores.events.find(eventId))?.officialAt) refuse('results-official');
}
