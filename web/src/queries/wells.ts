import { useQuery } from '@tanstack/react-query';
import type { WellView } from '@lauta/contract';
import { askedJson } from '../outbox/askedJson.ts';

export const wellKey = (eventId: string, entrantId: string) => ['event', eventId, 'well', entrantId] as const;

/** What the server has heard of an entrant's well, and what was put there on this device since. */
export function useWellView(eventId: string, entrantId: string) {
  return useQuery({
    queryKey: wellKey(eventId, entrantId),
    queryFn: ({ signal }) => askedJson<WellView>(`/api/events/${eventId}/entrants/${entrantId}/well`, signal),
  });
}
