import type { CommandContext } from './commandContext.ts';
import { refuse } from '../base/refusal.ts';
import type { CatchId, EntrantId, EventId } from '@lauta/core/ids';

/**
 * Binds a catch's id to the entrant from the first word heard of it, and refuses whoever speaks of it for another:
 * nobody occupies, times or announces a catch that is still on its way.
 */
export async function requireOwnCatchId(
  { stores, now }: CommandContext,
  eventId: EventId,
  entrantId: EntrantId,
  catchId: CatchId,
): Promise<void> {
  if ((await stores.catches.bindId(catchId, eventId, entrantId, now)) !== entrantId)
    refuse('catch-of-another', { catchId });
}
