import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { CatchSummary, CatchView, Page, PhotographVariant } from '@lauta/contract';
import { hashHex } from '@lauta/core/ledger';
import { ApiProblem, ask, getJson } from '../door/ask.ts';
import type { CatchId, EventId, FileId } from '@lauta/core/ids';

export function useOwnCatches(eventId: EventId, page: number) {
  return useQuery({
    queryKey: ['event', eventId, 'own-catches', page],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      getJson<Page<CatchSummary>>(`/api/events/${eventId}/own-catches?page=${page}&pageSize=20`, signal),
  });
}

/** Own catches that a judge has sent back and that wait for an answer; asked for again whenever the event's ledger grows. */
export function useSentBack(eventId: EventId, isAngler: boolean) {
  return useQuery({
    queryKey: ['event', eventId, 'own-catches', 'sent-back'],
    enabled: isAngler,
    queryFn: ({ signal }) =>
      getJson<Page<CatchSummary>>(`/api/events/${eventId}/own-catches?state=sent-back`, signal),
  });
}

export function useCatch(eventId: EventId, catchId: CatchId) {
  return useQuery({
    queryKey: ['event', eventId, 'catch', catchId],
    queryFn: ({ signal }) => getJson<CatchView>(`/api/catches/${catchId}`, signal),
  });
}

/**
 * The original byte for byte, or for those who may not see it the copy without metadata. Neither ever changes: what comes
 * is hashed here, and shown to nobody where it is another file than the one that stands in the record.
 * @param sha256 of the original, as the catch names it
 */
export function useEvidence(photographId: FileId | undefined, sha256: string | undefined) {
  return useQuery({
    queryKey: ['photograph', photographId, sha256],
    enabled: photographId !== undefined,
    staleTime: Infinity,
    gcTime: 60_000,
    queryFn: async ({ signal }) => {
      const fetchVariant = async (variant: PhotographVariant): Promise<Blob> => {
        const response = await ask(`/api/photographs/${photographId ?? ''}/${variant}`, { signal });
        const blob = await response.blob();
        // Of a copy the answer itself names the hash.
        const named = /[0-9a-f]{64}/.exec(response.headers.get('etag') ?? '')?.[0];
        const expected = variant === 'original' ? (sha256 ?? named) : named;
        const found = hashHex(new Uint8Array(await blob.arrayBuffer()));
        if (expected !== undefined && found !== expected)
          throw new ApiProblem({ type: 'photograph-altered', title: 'photograph altered', status: 409 });
        return blob;
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
