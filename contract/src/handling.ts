import { z } from 'zod';
import {
  HOOK_PLACES,
  LEFT_WITH,
  SIGNS_SEEN,
  VITALITY_SIGNS,
  WATER_STEPS,
  type Handling,
} from '@lauta/core/care';

const celsius = z.number().min(-40).max(60).nullable();
const deviceTimeMs = z.int().min(0).max(8.64e15);

/** How a fish was treated, as the phone kept it: times are the device's and prove nothing by themselves. */
export const handlingSchema = z.strictObject({
  events: z
    .array(
      z.strictObject({
        step: z.enum(WATER_STEPS),
        atMs: deviceTimeMs,
        tappedAtMs: deviceTimeMs.optional(),
      }),
    )
    .max(80)
    .refine((events) => events.every(({ atMs }, i) => i === 0 || atMs >= (events[i - 1]?.atMs ?? 0)), {
      message: 'times must not run backwards',
    }),
  airLimitSeconds: z.number().min(0).max(3600),
  guessedMassG: z.number().positive().max(500_000).nullable(),
  waterCelsius: celsius,
  airCelsius: celsius,
  hookPlace: z.enum(HOOK_PLACES).nullable(),
  bleeds: z.boolean(),
  leftWith: z
    .array(z.enum(LEFT_WITH))
    .max(LEFT_WITH.length)
    .refine((all) => new Set(all).size === all.length, 'told twice')
    .readonly()
    .optional(),
  signs: z.partialRecord(z.enum(VITALITY_SIGNS), z.enum(SIGNS_SEEN)),
}) satisfies z.ZodType<Handling>;
