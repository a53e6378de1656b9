import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { StandingsView } from '@lauta/contract';
import { getJson } from '../door/ask.ts';
import type { DayId, EventId } from '@lauta/core/ids';

export interface StandingsChoice {
  include: 'all' | 'official';
  dayId: DayId | null;
  search: string;
  page: number;
}

export function standingsQuery({ include, dayId, search, page }: StandingsChoice): string {
  const query = new URLSearchParams({ include, page: String(page) });
  if (dayId) query.set('dayId', dayId);
  if (search) query.set('search', search);
  return query.toString();
}

export function useStandings(eventId: EventId, choice: StandingsChoice) {
  const query = standingsQuery(choice);
  return useQuery({
    queryKey: ['event', eventId, 'standings', query],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => getJson<StandingsView>(`/api/events/${eventId}/standings?${query}`, signal),
  });
}
