import { useQuery, useQueryClient } from '@tanstack/react-query';
import { whoSchema, type PersonView, type Who } from '@lauta/contract';
import type { Role } from '@lauta/core/people';
import { setAppClock } from '../clock/appClock.ts';
import { getJson } from '../door/http.ts';

export const WHO_KEY = ['who'] as const;

export async function fetchWho(): Promise<Who> {
  const who = whoSchema.parse(await getJson('/api/who'));
  setAppClock(who.clockOffsetMs, who.frozenAt);
  return who;
}

export function useWho() {
  return useQuery({ queryKey: WHO_KEY, queryFn: fetchWho, staleTime: 60_000 });
}

/** After signing in or out nothing that was fetched may be shown any more. */
export function useForgetAll() {
  const client = useQueryClient();
  return async (): Promise<void> => {
    client.removeQueries({ type: 'inactive' });
    await client.invalidateQueries();
  };
}

export interface PlaceInEvent {
  roles: readonly Role[];
  /** The entrant that the account is a member of in this event. */
  entrantId: string | null;
}

export function placeIn(who: Who | undefined, eventId: string): PlaceInEvent {
  const account = who?.account;
  return {
    roles: account?.roles.filter((held) => held.eventId === eventId).map((held) => held.role) ?? [],
    entrantId: account?.entrants.find((one) => one.eventId === eventId)?.entrantId ?? null,
  };
}

export function usePeople(eventId: string) {
  return useQuery({
    queryKey: ['event', eventId, 'people'],
    queryFn: ({ signal }) => getJson<PersonView[]>(`/api/events/${eventId}/people`, signal),
  });
}
