import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { CatchSummary, CatchView, Page } from '@lauta/contract';
import { getJson } from '../../door/http.ts';

export function useOwnCatches(eventId: string, page: number) {
  return useQuery({
    queryKey: ['event', eventId, 'own-catches', page],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      getJson<Page<CatchSummary>>(`/api/events/${eventId}/own-catches?page=${page}&pageSize=20`, signal),
  });
}

export function useCatch(eventId: string, catchId: string) {
  return useQuery({
    queryKey: ['event', eventId, 'catch', catchId],
    queryFn: ({ signal }) => getJson<CatchView>(`/api/catches/${catchId}`, signal),
  });
}

/** The original, byte for byte; it never changes. */
export function useOriginal(photographId: string | undefined) {
  return useQuery({
    queryKey: ['photograph', photographId],
    enabled: photographId !== undefined,
    staleTime: Infinity,
    gcTime: 60_000,
    queryFn: async ({ signal }) => {
      const response = await fetch(`/api/photographs/${photographId ?? ''}/original`, { signal });
      if (!response.ok) throw new Error(`photograph: ${response.status}`);
      return response.blob();
    },
  });
}
