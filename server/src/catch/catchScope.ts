import { idParameter, type Asked } from '../http/routeTable.ts';
import type { Scope } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';
import type { EventId } from '@lauta/core/ids';

/** Whose catch a path with its id is about. */
export async function catchScope({ lauta, request }: Asked): Promise<Scope & { eventId: EventId }> {
  const record = await lauta.storage.read.catches.find(idParameter(request, 'catchId'));
  if (!record) refuse('not-found', { what: 'catch' });
  return { eventId: record.eventId, entrantId: record.entrantId };
}
