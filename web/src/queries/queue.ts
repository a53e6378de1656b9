import { useQuery } from '@tanstack/react-query';
import type { CatchSummary, Page } from '@lauta/contract';
import { getJson } from '../door/ask.ts';
import type { EventId } from '@lauta/core/ids';

export function useQueue(eventId: EventId, isDecided: boolean, page: number, search = '') {
  return useQuery<Page<CatchSummary>>({
    queryKey: ['event', eventId, 'queue', isDecided, page, search],
    // Another page of the same list may stand in meanwhile, never the other list.
    placeholderData: (former, query) => (query?.queryKey[3] === isDecided ? former : undefined),
    queryFn: ({ signal }) =>
      getJson(
        `/api/events/${eventId}/queue?decided=${isDecided}&page=${page}&pageSize=50&search=${encodeURIComponent(search)}`,
        signal,
      ),
  });
}
