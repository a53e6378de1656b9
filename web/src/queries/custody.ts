import { useQuery } from '@tanstack/react-query';
import type { AnnouncedView, AskedFrameView, CustodyView, OwnKeyView } from '@lauta/contract';
import { getJson } from '../door/ask.ts';
import type { CatchId, EntrantId, EventId } from '@lauta/core/ids';

/** How a catch came to the server; for judges alone. */
export function useCustody(eventId: EventId, catchId: CatchId, mayJudge: boolean) {
  return useQuery({
    queryKey: ['event', eventId, 'catch', catchId, 'custody'],
    enabled: mayJudge,
    queryFn: ({ signal }) => getJson<CustodyView>(`/api/catches/${catchId}/custody`, signal),
  });
}

/** Catches whose photographs are on their way. */
export function useAnnounced(eventId: EventId) {
  return useQuery({
    queryKey: ['event', eventId, 'announced'],
    queryFn: ({ signal }) => getJson<AnnouncedView[]>(`/api/events/${eventId}/announced`, signal),
  });
}

/** Frames that a judge waits for. */
export function useAskedFrames(eventId: EventId, entrantId: EntrantId | null) {
  return useQuery({
    queryKey: ['event', eventId, 'asked-frames'],
    enabled: entrantId !== null,
    queryFn: ({ signal }) => getJson<AskedFrameView[]>(`/api/events/${eventId}/asked-frames`, signal),
  });
}

export const OWN_KEYS = ['own-keys'] as const;

export function useOwnKeys() {
  return useQuery({
    queryKey: OWN_KEYS,
    queryFn: ({ signal }) => getJson<OwnKeyView[]>('/api/own-keys', signal),
  });
}
