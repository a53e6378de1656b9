import { useQuery } from '@tanstack/react-query';
import { readRuleSheet, type EventView, type IdentifierView, type RuleSheetView } from '@lauta/contract';
import type { RuleSheet } from '@lauta/core/rules';
import { getJson } from '../door/ask.ts';
import type { EntrantId, EventId } from '@lauta/core/ids';

export function useEvents() {
  return useQuery({
    queryKey: ['events'],
    queryFn: ({ signal }) => getJson<EventView[]>('/api/events', signal),
  });
}

export function useEvent(eventId: EventId) {
  return useQuery({
    queryKey: ['event', eventId],
    queryFn: ({ signal }) => getJson<EventView>(`/api/events/${eventId}`, signal),
  });
}

export interface Published extends RuleSheetView {
  sheet: RuleSheet;
}

/** All versions of the rule sheet, first to last. */
export function useRules(eventId: EventId) {
  return useQuery({
    queryKey: ['event', eventId, 'rules'],
    queryFn: async ({ signal }): Promise<Published[]> => {
      const views = await getJson<RuleSheetView[]>(`/api/events/${eventId}/rules`, signal);
      return views.map((view) => ({ ...view, sheet: readRuleSheet(JSON.parse(view.text)) }));
    },
  });
}

/** The code on the entrant's card, day by day. */
export function useIdentifiers(eventId: EventId, entrantId: EntrantId | null) {
  return useQuery({
    queryKey: ['event', eventId, 'identifiers', entrantId],
    enabled: entrantId !== null,
    queryFn: ({ signal }) =>
      getJson<IdentifierView[]>(`/api/events/${eventId}/entrants/${entrantId ?? ''}/identifiers`, signal),
  });
}
