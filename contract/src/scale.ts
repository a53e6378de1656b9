import { z } from 'zod';
import { ACCURACY_CLASSES, type ScaleAct } from '@lauta/core/scale';

/** A tag's or a scale's name within one list. */
export const key = z.string().min(1).max(40).regex(/^[a-z0-9-]+$/); // prettier-ignore
export const grams = z.number().min(0).max(500_000);
/** A scale may show less than nothing. */
const shownGrams = z.number().min(-500_000).max(500_000);
const spread = z.number().min(0).max(10_000);

/** The acts of a scale's logbook, for the lists that hold one. */
export const scaleActSchemas = [
  z.strictObject({
    kind: z.literal('scale'),
    scaleId: key,
    name: z.string().trim().min(1).max(60),
    scale: z.strictObject({
      divisionG: z.number().positive().max(1000),
      capacityG: z.number().positive().max(500_000),
      repeatabilityG: spread,
      gainSigma: z.number().min(0).max(0.5),
      zeroSigmaG: spread,
      driftGPerRootHour: spread,
    }),
    accuracyClass: z.enum(ACCURACY_CLASSES).optional(),
  }),
  z.strictObject({ kind: z.literal('scale-check'), scaleId: key, trueG: grams, readG: shownGrams }),
  z.strictObject({
    kind: z.literal('scale-repeat'),
    scaleId: key,
    readG: z.array(shownGrams).min(2).max(10),
  }),
] as const;

type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never;
/** Fails to compile when the schemas and core's type part ways. */
export const scaleActTypesAgree: Same<z.infer<(typeof scaleActSchemas)[number]>, ScaleAct> = true;
