import { specimenWeight } from '@lauta/core/specimen';
import { commitmentValue, freeFile } from '../photo/freeFile.ts';
import type { Handler } from '../command/commandContext.ts';
import { requireMay } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';

/**
 * Keeps a large fish that was weighed on the bank. It scores nothing, so what is odd of it is told and not refused. Where
 * such a fish swims is its angler's own business: the ledger holds salted commitments.
 */
export const recordSpecimen: Handler<'specimen.record'> = async (context, record, { eventId }) => {
  const { stores, asker, now, commit } = context;
  const { specimenId, entrantId, specimen, corrects } = record;
  const entrant = await stores.people.findEntrant(entrantId);
  if (entrant?.eventId !== eventId) refuse('not-found', { what: 'entrant' });
  await requireMay(stores, asker, 'record-specimen', { eventId, entrantId });
  if (await stores.specimens.find(specimenId)) refuse('entry-exists', { entryId: specimenId });
  if (!specimenWeight(specimen.weighing)) refuse('invalid-request', { path: 'specimen.weighing' });
  const former = corrects && (await stores.specimens.find(corrects.specimenId));
  if (corrects) {
    if (former?.entrantId !== entrantId) refuse('not-found', { what: 'specimen' });
    if (await stores.specimens.correctionOf(corrects.specimenId)) refuse('specimen-corrected');
  }
  const files = [];
  for (const { photographId } of specimen.photographs) {
    // What the former record shows may stay; its commitment stands in the ledger already.
    if (former?.record.specimen.photographs.some((one) => one.photographId === photographId)) continue;
    const photograph = await freeFile(context, eventId, photographId, 'photograph');
    files.push({
      photographId,
      file: commit(`photograph-${photographId}`, await commitmentValue(context, photograph)),
    });
  }
  await stores.specimens.add({ record, eventId, entrantId, receivedAt: now });
  return {
    body: { specimenId, entrantId, content: commit(`specimen-${specimenId}`, record), photographs: files },
    result: { specimenId },
  };
};
