import { useQuery, useQueryClient } from '@tanstack/react-query';
import { whoSchema, type PersonView, type Who } from '@lauta/contract';
import { may, type Capability } from '@lauta/core/people';
import { setAppClock } from '../clock/appClock.ts';
import { getJson } from '../door/ask.ts';
import type { EntrantId, EventId } from '@lauta/core/ids';

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
  /** The entrant that the account is a member of in this event. */
  entrantId: EntrantId | null;
  /** What the server would say, by the same table; of an entrant's own things when one is named. */
  may(capability: Capability, entrantId?: EntrantId): boolean;
}

export function placeIn(who: Who | undefined, eventId: EventId): PlaceInEvent {
  const account = who?.account ?? null;
  const held = account?.roles.filter((one) => one.eventId === eventId) ?? [];
  const own = account?.entrants.find((one) => one.eventId === eventId)?.entrantId ?? null;
  const subject = {
    signedIn: account !== null,
    founder: account?.founder ?? false,
    roles: new Set(held.map(({ role }) => role)),
    // What anyone may see is shown without being asked for.
    eventPublic: false,
    paired: (account?.pairing ?? null) !== null,
  };
  return {
    entrantId: own,
    may: (capability, entrantId) =>
      may(capability, { ...subject, ownEntrant: entrantId !== undefined && entrantId === own }),
  };
}

export function usePeople(eventId: EventId) {
  return useQuery({
    queryKey: ['event', eventId, 'people'],
    queryFn: ({ signal }) => getJson<PersonView[]>(`/api/events/${eventId}/people`, signal),
  });
}
