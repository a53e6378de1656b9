import { z } from 'zod';
import { INFRACTIONS, TIE_BREAKS, upcastRuleSheet, type RuleSheet } from '@lauta/core/rules';
import { LENGTH_STEPS, MASS_STEPS, type LengthStepId, type MassStepId } from '@lauta/core/units';

const steps = z.int().min(0).max(100_000);
const key = z
  .string()
  .min(1)
  .max(40)
  .regex(/^[a-z0-9-]+$/, 'only small letters, digits and hyphens');

export const lengthStepSchema = z.enum(Object.keys(LENGTH_STEPS) as [LengthStepId, ...LengthStepId[]]);
export const infractionSchema = z.enum(INFRACTIONS);

const massStepSchema = z.enum(Object.keys(MASS_STEPS) as [MassStepId, ...MassStepId[]]);
const rounding = z.enum(['down', 'nearest']);

const measureSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('length'), step: lengthStepSchema, rounding }),
  z.strictObject({ kind: z.literal('weight'), step: massStepSchema, rounding }),
]);

const slotSchema = z
  .strictObject({
    step: lengthStepSchema,
    fromSteps: steps,
    underSteps: steps,
    allowed: z.int().min(0).max(50),
  })
  .refine((slot) => slot.fromSteps < slot.underSteps, 'a slot ends above where it begins');

const fishPenaltySchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('deduction'), steps }),
  z.strictObject({ kind: z.literal('not-counted'), steps }),
  z.strictObject({ kind: z.literal('disqualification') }),
]);

const minutes = z.int().min(0).max(600);

const weighInSchema = z.strictObject({
  deadFish: fishPenaltySchema,
  shortFish: fishPenaltySchema,
  overLimit: z.strictObject({ penalty: fishPenaltySchema, takenOut: z.enum(['largest', 'smallest']) }),
  late: z.strictObject({
    graceMinutes: minutes,
    stepsPerMinute: steps,
    refusedAfterMinutes: minutes.nullable(),
  }),
  deadMayBeCulled: z.boolean(),
  twoPeople: z.boolean(),
});

export const speciesRuleSchema = z.strictObject({
  id: key,
  name: z.string().trim().min(1).max(60),
  minimumSteps: steps.nullable(),
  counts: z.boolean(),
  limit: z.int().min(0).max(50).optional(),
  minimumLength: z.strictObject({ step: lengthStepSchema, steps }).optional(),
  slot: slotSchema.optional(),
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

export const ruleSheetSchema = z
  .strictObject({
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
    weighIn: weighInSchema.optional(),
  })
  .refine((sheet) => sheet.measure.kind === 'weight' || sheet.boards.length > 0, {
    message: 'approve at least one board',
    path: ['boards'],
  })
  .refine((sheet) => (sheet.measure.kind === 'weight') === (sheet.weighIn !== undefined), {
    message: 'the scale’s rules belong to a sheet by weight, and to no other',
    path: ['weighIn'],
  });

/** Fails to compile when the schema and core's type part ways. */
type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never;
export const ruleSheetTypesAgree: Same<z.infer<typeof ruleSheetSchema>, RuleSheet> = true;

/** A stored sheet of any landed version, lifted and checked. Throws when it is not a sheet. */
export function readRuleSheet(stored: unknown): RuleSheet {
  return ruleSheetSchema.parse(upcastRuleSheet(stored));
}
