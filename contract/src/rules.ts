import { z } from 'zod';
import { INFRACTIONS, TIE_BREAKS, upcastRuleSheet, type RuleSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, type LengthStepId } from '@lauta/core/units';

const steps = z.int().min(0).max(100_000);
const key = z
  .string()
  .min(1)
  .max(40)
  .regex(/^[a-z0-9-]+$/, 'only small letters, digits and hyphens');

export const lengthStepSchema = z.enum(Object.keys(LENGTH_STEPS) as [LengthStepId, ...LengthStepId[]]);
export const infractionSchema = z.enum(INFRACTIONS);

export const measureSchema = z.strictObject({
  kind: z.literal('length'),
  step: lengthStepSchema,
  rounding: z.enum(['down', 'nearest']),
});

export const speciesRuleSchema = z.strictObject({
  id: key,
  name: z.string().trim().min(1).max(60),
  minimumSteps: steps.nullable(),
  counts: z.boolean(),
});

export const penaltyRuleSchema = z.strictObject({
  infraction: infractionSchema,
  penalty: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('deduction'), steps: steps.min(1) }),
    z.strictObject({ kind: z.literal('disqualification') }),
  ]),
});

const distinct = <T>(items: readonly T[], keyOf: (item: T) => string): boolean =>
  new Set(items.map(keyOf)).size === items.length;

export const ruleSheetSchema = z.strictObject({
  schemaVersion: z.literal(1),
  title: z.string().trim().min(1).max(120),
  measure: measureSchema,
  bagLimit: z.int().min(1).max(50),
  bagPeriod: z.enum(['event', 'day']),
  species: z
    .array(speciesRuleSchema)
    .min(1, 'name at least one species')
    .max(60)
    .refine((list) => distinct(list, (one) => one.id), 'a species stands twice'),
  boards: z
    .array(key)
    .min(1, 'approve at least one board')
    .max(20)
    .refine((list) => distinct(list, (one) => one), 'a board stands twice'),
  penalties: z
    .array(penaltyRuleSchema)
    .max(INFRACTIONS.length)
    .refine((list) => distinct(list, (one) => one.infraction), 'an infraction stands twice'),
  airSeconds: z.int().min(1).max(600).optional(),
  personPicture: z.boolean().optional(),
  tieBreaks: z
    .array(z.enum(TIE_BREAKS))
    .max(TIE_BREAKS.length)
    .refine((list) => distinct(list, (one) => one), 'a tie-break stands twice'),
});

/** Fails to compile when the schema and core's type part ways. */
type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never;
export const ruleSheetTypesAgree: Same<z.infer<typeof ruleSheetSchema>, RuleSheet> = true;

/** A stored sheet of any landed version, lifted and checked. Throws when it is not a sheet. */
export function readRuleSheet(stored: unknown): RuleSheet {
  return ruleSheetSchema.parse(upcastRuleSheet(stored));
}
