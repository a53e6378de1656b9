import { useQuery } from '@tanstack/react-query';
import type { WatersView } from '@lauta/contract';
import { getJson } from '../door/ask.ts';
import type { EventId } from '@lauta/core/ids';

/** The event's waters; null as long as nobody has drawn them. */
export function useWaters(eventId: EventId) {
  return useQuery({
    queryKey: ['event', eventId, 'waters'],
    queryFn: ({ signal }) => getJson<WatersView | null>(`/api/events/${eventId}/waters`, signal),
  });
}
