import { useCallback } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { recordSpecimenSchema, specimenSchema } from '@lauta/contract';
import type { SpecimenWeighing } from '@lauta/core/specimen';
import { jsonOf, readStored, useStored, writeStored, type Preference } from '../../device/stored.ts';
import type { EventId, SpecimenId } from '@lauta/core/ids';

const grams = z.number().nullable();

/** A record as it is being made; it stays on the device until it is kept or put away. */
const draftSchema = z.object({
  specimenId: z.uuid(),
  commandId: z.uuid(),
  speciesId: z.string().nullable(),
  lengthMm: z.number().nullable(),
  tare: z.enum(['zeroed', 'noted']),
  slingG: grams,
  standG: grams,
  grossG: grams,
  weighedHow: z.enum(['scale', 'typed']),
  weighedAt: z.iso.datetime().nullable(),
  emptyAfterG: grams,
  divisionG: z.number().positive(),
  care: specimenSchema.shape.care,
  wounds: specimenSchema.shape.wounds,
  note: z.string().max(500),
  /** The record that this one puts right, with what stays of it. */
  corrects: recordSpecimenSchema
    .pick({ specimen: true })
    .extend({ specimenId: z.uuid(), reason: z.string().max(300) })
    .nullable(),
});
export type SpecimenDraft = z.infer<typeof draftSchema>;

/** The step of the bank's scale as it was chosen last, g; null before. */
const DIVISION: Preference<number | null> = {
  key: 'lauta-bank-scale-step',
  parse: (text) => (Number(text) > 0 ? Number(text) : null),
};

/** @param divisionG the scale's step where no other was ever chosen here, g */
export function freshDraft(specimenId: SpecimenId, divisionG: number): SpecimenDraft {
  return {
    specimenId,
    commandId: uuidv7(),
    speciesId: null,
    lengthMm: null,
    tare: 'zeroed',
    slingG: null,
    standG: null,
    grossG: null,
    weighedHow: 'typed',
    weighedAt: null,
    emptyAfterG: null,
    divisionG: readStored(DIVISION) ?? divisionG,
    care: [],
    wounds: [],
    note: '',
    corrects: null,
  };
}

/** What was weighed, as far as it is told; null as long as the fish or a noted sling was not. */
export function weighingOf({
  grossG,
  slingG,
  standG,
  tare,
  emptyAfterG,
  divisionG,
}: SpecimenDraft): SpecimenWeighing | null {
  if (grossG === null || (tare === 'noted' && slingG === null)) return null;
  return {
    tare: tare === 'noted' ? { kind: tare, slingG: slingG ?? 0, standG: standG ?? 0 } : { kind: tare },
    grossG,
    emptyAfterG,
    divisionG,
  };
}

const draftIn = (eventId: EventId): Preference<SpecimenDraft | null> => ({
  key: `lauta-specimen-${eventId}`,
  parse: (text) => draftSchema.nullable().catch(null).parse(jsonOf(text)),
});

/** The record that is being made in an event on this device; null as long as nothing was told. */
export function useSpecimenDraft(eventId: EventId) {
  const draft = useStored(draftIn(eventId));
  const put = useCallback(
    (next: SpecimenDraft | null) => {
      writeStored(draftIn(eventId), next);
      if (next) writeStored(DIVISION, next.divisionG);
    },
    [eventId],
  );
  return { draft, put };
}
