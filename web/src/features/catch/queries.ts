import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { CatchSummary, CatchView, Page, PhotographVariant } from '@lauta/contract';
import { ApiProblem, ask, getJson } from '../../door/http.ts';

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

/** The original byte for byte, or for those who may not see it the copy without metadata. Neither ever changes. */
export function useEvidence(photographId: string | undefined) {
  return useQuery({
    queryKey: ['photograph', photographId],
    enabled: photographId !== undefined,
    staleTime: Infinity,
    gcTime: 60_000,
    queryFn: async ({ signal }) => {
      const fetchVariant = async (variant: PhotographVariant): Promise<Blob> => {
        const response = await ask(`/api/photographs/${photographId ?? ''}/${variant}`, { signal });
        return response.blob();
      };
      try {
        return await fetchVariant('original');
      } catch (error) {
        if (!(error instanceof ApiProblem && error.type === 'not-allowed')) throw error;
        return fetchVariant('screen');
      }
    },
  });
}
