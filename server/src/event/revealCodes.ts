import type { Handler } from '../command/commandContext.ts';
import { requireMay } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';

/** Sets from when on entrants see their codes of a day. */
export const revealCodes: Handler<'codes.reveal'> = async (
  { stores, asker },
  { dayId, from },
  { eventId },
) => {
  await requireMay(stores, asker, 'edit-event', { eventId });
  const days = await stores.events.days(eventId);
  if (!days.some((day) => day.dayId === dayId)) refuse('not-found', { what: 'day' });
  await stores.events.setCodesFrom(dayId, from === null ? null : new Date(from));
  return { body: { dayId, from } };
};
