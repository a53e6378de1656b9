import { z } from 'zod';
import { SIGNERS, type TicketState, type WeighInAct, type WeighInEntry } from '@lauta/core/weigh-in';
import { grams, key, scaleActSchemas } from './scale.ts';
import type { DayId, EntrantId, TicketId } from '@lauta/core/ids';

const id = z.uuid();
const fish = z.int().min(0).max(60);
const reason = z.string().trim().max(300).nullable();
/** A drawn name is a few hundred points; more is no name. */
const MOST_NUMBERS = 8000;

const signatureSchema = z.discriminatedUnion('kind', [
  z
    .strictObject({
      kind: z.literal('drawn'),
      strokes: z
        .array(z.array(z.number().min(-0.1).max(1.1)).min(2).max(4000))
        .min(1)
        .max(60),
    })
    .refine(({ strokes }) => strokes.reduce((sum, one) => sum + one.length, 0) <= MOST_NUMBERS, 'too long'),
  z.strictObject({ kind: z.literal('typed'), name: z.string().trim().min(1).max(80) }),
]);

const actSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('queued'),
    ticketId: id,
    entrantId: id,
    dayId: id,
    number: z.int().min(1).max(9999),
  }),
  z.strictObject({ kind: z.literal('called'), ticketId: id }),
  z.strictObject({ kind: z.literal('checked'), ticketId: id, alive: fish, dead: fish, short: fish, reason }),
  z.strictObject({
    kind: z.literal('weighed'),
    ticketId: id,
    grossG: grams,
    tareG: grams,
    how: z.enum(['typed', 'scale']),
    scaleId: key.optional(),
    reason,
  }),
  z.strictObject({ kind: z.literal('big-fish'), ticketId: id, massG: grams, reason }),
  z.strictObject({ kind: z.literal('confirmed'), ticketId: id, weighedId: id }),
  z.strictObject({
    kind: z.literal('signed'),
    ticketId: id,
    signer: z.enum(SIGNERS),
    signature: signatureSchema,
  }),
  z.strictObject({
    kind: z.literal('released'),
    ticketId: id,
    tank: z.int().min(1).max(60),
    alive: fish,
    died: fish,
  }),
  ...scaleActSchemas,
  z.strictObject({ kind: z.literal('undone'), entryId: id }),
]);

type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never;
/** Fails to compile when the schema and core's type part ways. */
export const weighInActTypesAgree: Same<z.infer<typeof actSchema>, WeighInAct> = true;

/** What was done at the scale, in one go. Who did it is whoever sends it. */
export const enterWeighInSchema = z.strictObject({
  entries: z
    .array(z.strictObject({ entryId: id, atMs: z.int().min(0).max(8.64e15), act: actSchema }))
    .min(1)
    .max(20)
    .refine((list) => new Set(list.map(({ entryId }) => entryId)).size === list.length, {
      message: 'an entry stands twice',
    }),
});

/** The weigh-in as its officials see it. */
export interface WeighInView {
  entries: WeighInEntry[];
  /** Names of whoever entered something. */
  people: Record<string, string>;
  entrants: { entrantId: EntrantId; number: number; name: string }[];
  /** How many fish each boat said that it has aboard, day by day. */
  declared: { entrantId: EntrantId; dayId: DayId; count: number }[];
}

/** The queue as everybody sees it. */
export interface BagsView {
  bags: {
    ticketId: TicketId;
    dayId: DayId;
    entrantId: EntrantId;
    name: string;
    number: number;
    state: TicketState;
  }[];
}
