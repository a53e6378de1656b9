import { useQuery } from '@tanstack/react-query';
import type { WellView } from '@lauta/contract';
import { askedJson } from '../outbox/askedJson.ts';
import type { EntrantId, EventId } from '@lauta/core/ids';

export const wellKey = (eventId: EventId, entrantId: EntrantId) =>
  ['event', eventId, 'well', entrantId] as const;

/** What the server has heard of an entrant's well, and what was put there on this device since. */
export function useWellView(eventId: EventId, entrantId: EntrantId) {
  return useQuery({
    queryKey: wellKey(eventId, entrantId),
    queryFn: ({ signal }) => askedJson<WellView>(`/api/events/${eventId}/entrants/${entrantId}/well`, signal),
  });
}
