import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { CatchSummary, Page } from '@lauta/contract';
import { getJson } from '../../door/http.ts';

export function useQueue(eventId: string, isDecided: boolean, page: number) {
  return useQuery({
    queryKey: ['event', eventId, 'queue', isDecided, page],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      getJson<Page<CatchSummary>>(
        `/api/events/${eventId}/queue?decided=${isDecided}&page=${page}&pageSize=50`,
        signal,
      ),
  });
}
