import { z } from 'zod';
import { BEAM_OUTCOMES } from '@lauta/core/cull';
import {
  CONDITIONS,
  RELEASE_REASONS,
  TAG_COLOURS,
  TAG_KINDS,
  WELL_SIGNS,
  type WellAct,
  type WellEntry,
} from '@lauta/core/well';
import { grams, key, scaleActSchemas } from './scale.ts';
import type { DayId, TagId } from '@lauta/core/ids';

const id = z.uuid();
const speciesId = z.string().min(1).max(40);
const lengthMm = z.number().positive().max(2500).nullable();
const seconds = z.number().min(0).max(3600).nullable();
const compartment = z.int().min(1).max(8);
const tagPlace = z.enum(['on', 'loose']);

const tagSchema = z.strictObject({
  tagId: key,
  number: z.int().min(0).max(999).nullable(),
  colour: z.enum(TAG_COLOURS).nullable(),
});

const distinctTags = (settings: { tags: { tagId: TagId }[]; spare: { tagId: TagId } | null }): boolean => {
  const ids = [...settings.tags, ...(settings.spare ? [settings.spare] : [])].map(({ tagId }) => tagId);
  return new Set(ids).size === ids.length;
};

const actSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('set-up'),
    settings: z
      .strictObject({
        tags: z.array(tagSchema).max(50),
        spare: tagSchema.nullable(),
        tagKind: z.enum(TAG_KINDS),
        compartments: compartment,
      })
      .refine(distinctTags, 'a tag stands twice'),
  }),
  ...scaleActSchemas,
  z.strictObject({
    kind: z.literal('fish-in'),
    fishId: id,
    speciesId,
    lengthMm,
    condition: z.enum(CONDITIONS),
    compartment,
    tagId: key.nullable(),
    tagPlace,
  }),
  z.strictObject({ kind: z.literal('described'), fishId: id, speciesId, lengthMm }),
  z.strictObject({
    kind: z.literal('weighed'),
    fishId: id,
    scaleId: key,
    readG: grams,
    how: z.enum(['typed', 'scale', 'memory']),
    airSeconds: seconds,
  }),
  z.strictObject({ kind: z.literal('tagged'), fishId: id, tagId: key.nullable(), tagPlace }),
  z.strictObject({ kind: z.literal('moved'), fishId: id, compartment }),
  z.strictObject({
    kind: z.literal('looked'),
    fishId: id,
    condition: z.enum(CONDITIONS),
    signs: z.array(z.enum(WELL_SIGNS)).max(WELL_SIGNS.length),
  }),
  z.strictObject({
    kind: z.literal('compared'),
    leftId: id,
    rightId: id,
    outcome: z.enum(BEAM_OUTCOMES).nullable(),
    hangingSeconds: seconds,
  }),
  z.strictObject({
    kind: z.literal('released'),
    fishId: id,
    reason: z.enum(RELEASE_REASONS),
    airSeconds: seconds,
  }),
  z.strictObject({ kind: z.literal('declared'), count: z.int().min(0).max(99) }),
  z.strictObject({ kind: z.literal('shared'), isShared: z.boolean() }),
  z.strictObject({ kind: z.literal('undone'), entryId: id }),
]);

type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never;
/** Fails to compile when the schema and core's type part ways. */
export const wellActTypesAgree: Same<z.infer<typeof actSchema>, WellAct> = true;

export const wellEntrySchema = z.strictObject({
  entryId: id,
  atMs: z.int().min(0).max(8.64e15),
  act: actSchema,
});

/** What was done at a well, in one go: it stands as a whole or not at all. */
export const enterWellSchema = z.strictObject({
  entrantId: id,
  dayId: id,
  entries: z
    .array(wellEntrySchema)
    .min(1)
    .max(20)
    .refine((list) => new Set(list.map(({ entryId }) => entryId)).size === list.length, {
      message: 'an entry stands twice',
    }),
});

/** Everything that was entered at an entrant's well, day by day. */
export interface WellView {
  days: { dayId: DayId; entries: WellEntry[] }[];
}
