import { useQuery } from '@tanstack/react-query';
import type { SpecimensView, SpecimenView } from '@lauta/contract';
import { getJson } from '../door/ask.ts';
import { useOutbox } from '../outbox/outbox.ts';
import type { EventId } from '@lauta/core/ids';

/** Own records, or an event's for its officials. */
export function useSpecimens(eventId: EventId, isOfficial: boolean) {
  const part = isOfficial ? 'specimens' : 'own-specimens';
  return useQuery({
    queryKey: ['event', eventId, part],
    queryFn: ({ signal }) => getJson<SpecimensView>(`/api/events/${eventId}/${part}`, signal),
  });
}

/** Records that wait on this device, as they will be shown. */
export function useWaitingSpecimens(eventId: EventId, entrant: SpecimenView['entrant']): SpecimenView[] {
  const { entries } = useOutbox();
  return entries.flatMap(({ command, refused }) =>
    command.kind === 'specimen.record' && command.eventId === eventId && refused === null
      ? [{ ...command.body, entrant, receivedAt: '', correctedBy: null }]
      : [],
  );
}
