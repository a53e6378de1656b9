import { z } from 'zod';
import { SPECIMEN_CARE, WOUND_PLACES, type Specimen } from '@lauta/core/specimen';
import { handlingSchema } from './handling.ts';

const grams = z.number().min(0).max(500_000);
const id = z.uuid();
const once = (list: readonly unknown[]): boolean => new Set(list).size === list.length;

/** A large fish that was weighed in a sling on the bank. */
export const specimenSchema = z.strictObject({
  speciesId: z.string().trim().min(1).max(40),
  lengthMm: z.number().positive().max(5000).nullable(),
  weighing: z.strictObject({
    tare: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('zeroed') }),
      z.strictObject({ kind: z.literal('noted'), slingG: grams, standG: grams }),
    ]),
    grossG: grams.positive(),
    // A scale may show less than nothing.
    emptyAfterG: z.number().min(-500_000).max(500_000).nullable(),
    divisionG: z.number().positive().max(1000),
  }),
  care: z.array(z.enum(SPECIMEN_CARE)).max(SPECIMEN_CARE.length).refine(once, 'told twice').readonly(),
  wounds: z
    .array(z.strictObject({ place: z.enum(WOUND_PLACES), isDressed: z.boolean() }))
    .max(8)
    .readonly(),
  photographs: z
    .array(z.strictObject({ photographId: id }))
    .max(4)
    .refine((list) => once(list.map(({ photographId }) => photographId)), 'a photograph stands twice')
    .readonly(),
  /** From hook-up to release; absent where nobody tapped. */
  handling: handlingSchema.optional(),
}) satisfies z.ZodType<Specimen>;

export const recordSpecimenSchema = z.strictObject({
  specimenId: id,
  entrantId: id,
  /** The device's clock when it was weighed. */
  weighedAt: z.iso.datetime(),
  /** The device's clock less the server's, ms; null where it never asked. */
  clockOffsetMs: z.int().min(-1e12).max(1e12).nullable(),
  /** The weight was taken from a connected scale, or typed off it. */
  weighedHow: z.enum(['scale', 'typed']),
  specimen: specimenSchema,
  note: z.string().trim().max(500),
  /** The record that this one puts right, and why; nothing is ever changed. */
  corrects: z.strictObject({ specimenId: id, reason: z.string().trim().min(1).max(300) }).nullable(),
});
export type RecordSpecimen = z.infer<typeof recordSpecimenSchema>;

/** A record as it is shown. */
export interface SpecimenView extends Omit<RecordSpecimen, 'specimen'> {
  specimen: Specimen;
  entrant: { number: number; name: string };
  receivedAt: string;
  /** The later record that puts it right. */
  correctedBy: string | null;
}

export interface SpecimensView {
  specimens: SpecimenView[];
}
