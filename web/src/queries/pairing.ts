import { useQuery } from '@tanstack/react-query';
import type { PairedJob, PairingView } from '@lauta/contract';
import { getJson } from '../door/ask.ts';
import { useWho } from '../session/who.ts';
import type { EntrantId, EventId, PairingId } from '@lauta/core/ids';

/** Phones that were paired for one's own entrant, or may be as soon as they have read the code. */
export function useOwnPairings(eventId: EventId, isAsked: boolean) {
  return useQuery({
    queryKey: ['event', eventId, 'own-pairings'],
    enabled: isAsked,
    queryFn: ({ signal }) => getJson<PairingView[]>(`/api/events/${eventId}/own-pairings`, signal),
  });
}

/** What this phone does where a partner's is paired with it. */
export interface MyPairing {
  pairingId: PairingId;
  job: PairedJob;
}

const OTHER: Record<PairedJob, PairedJob> = { camera: 'timer', timer: 'camera' };

/** Null where no phone is paired; with several the last one that has read its code. */
export function useMyPairing(eventId: EventId, entrantId: EntrantId | null): MyPairing | null {
  const who = useWho();
  const own = who.data?.account?.pairing ?? null;
  const pairings = useOwnPairings(eventId, entrantId !== null && own === null);
  if (own) return own.eventId === eventId ? { pairingId: own.pairingId, job: own.job } : null;
  const last = pairings.data?.findLast(({ usedAt }) => usedAt !== null);
  return last ? { pairingId: last.pairingId, job: OTHER[last.job] } : null;
}
