import { z } from 'zod';
import { ROLES } from '@lauta/core/people';
import { boardSchema } from './board.ts';
import { handlingSchema } from './handling.ts';
import { announceCatchSchema, askFramesSchema, sendFrameSchema, tellCapturesSchema } from './custody.ts';
import { benchNotesSchema, marksSchema } from './photo.ts';
import { infractionSchema, ruleSheetSchema } from './rules.ts';
import { publishWatersSchema } from './waters.ts';
import { normalEmail } from './people.ts';
import { line, prose } from './text.ts';
import { enterWellSchema } from './well.ts';
import { enterWeighInSchema } from './weighIn.ts';
import { recordSpecimenSchema } from './specimen.ts';
import { ID } from './ids.ts';

/** Version of the envelope and bodies below. The server goes on accepting every version that has landed. */
export const COMMAND_VERSION = 1;

const words = (max: number) => z.string().trim().min(1).max(max);
const wallTime = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, 'a date and a time, as 2026-05-30T06:00');

export const sessionPlanSchema = z
  .strictObject({ linesInLocal: wallTime, linesOutLocal: wallTime })
  .refine((plan) => plan.linesOutLocal > plan.linesInLocal, {
    message: 'lines-out must come after lines-in',
    path: ['linesOutLocal'],
  });

export const createEventSchema = z.strictObject({
  eventId: ID.event,
  name: line(80),
  zone: words(60),
  isPublic: z.boolean(),
  days: z
    .array(
      z.strictObject({
        date: z.iso.date(),
        sessions: z.array(sessionPlanSchema).min(1, 'a day needs a session').max(6),
      }),
    )
    .min(1, 'an event needs a day')
    .max(14),
});

export const publishRulesSchema = z.strictObject({
  sheet: ruleSheetSchema,
  /** The version that the director saw when writing, null where there was none; absent in commands of versions before. */
  replaces: z.int().nullable().optional(),
});

export const addBoardSchema = z.strictObject({ board: boardSchema });

export const addPersonSchema = z.strictObject({
  accountId: ID.account,
  name: line(80),
  email: z.string().max(200).transform(normalEmail).pipe(z.email().max(120)),
  roles: z.array(z.enum(ROLES)).min(1, 'choose a role').max(ROLES.length),
});

/** With the token of the link that the event's director handed over. */
export const acceptRolesSchema = z.strictObject({ token: z.string().min(20).max(100) });

export const removePersonSchema = z.strictObject({
  accountId: ID.account,
  roles: z.array(z.enum(ROLES)).min(1, 'choose a role').max(ROLES.length),
  why: prose(300),
});

export const photographRoleSchema = z.enum(['board', 'fish', 'person']);

/** Ways to measure; scale and sling join as members. */
export const measurementInputSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('board'),
    measurementId: ID.measurement,
    photographId: ID.file,
    boardId: words(40),
    marks: marksSchema,
    /** What the bench found, when it set the marks; absent where all were set by hand. */
    bench: benchNotesSchema.optional(),
  }),
  z.strictObject({
    kind: z.literal('tape'),
    measurementId: ID.measurement,
    /** The photograph of the last reading, by which the catch is shown. */
    photographId: ID.file,
    marks: z
      .array(z.strictObject({ tapeMm: z.number().positive().max(5000), photographId: ID.file }))
      .min(2, 'two readings must agree')
      .max(6),
    gripOffsetMm: z.number().min(0).max(150),
  }),
]);

export const capturedAtSchema = z.strictObject({
  at: z.iso.datetime(),
  source: z.enum(['photograph', 'device', 'typed']),
});

/** A device's clock may be wrong by years. */
const CLOCK_OFFSET_MS = 1e12;

export const claimCatchSchema = z
  .strictObject({
    catchId: ID.catch,
    entrantId: ID.entrant,
    speciesId: words(40),
    captured: capturedAtSchema,
    photographs: z
      .array(
        z.strictObject({
          photographId: ID.file,
          role: photographRoleSchema,
          /** Taken by another camera than the page's own; absent where the version did not tell. */
          isFromOutside: z.boolean().optional(),
        }),
      )
      .min(1, 'a catch needs a photograph')
      .max(12),
    measurement: measurementInputSchema,
    claimedSteps: z.int().min(0).max(100_000),
    identifierCode: z.string().trim().toUpperCase().max(12).nullable(),
    /** From hook-up to release; absent in claims of versions without the clock, and where nobody tapped. */
    handling: handlingSchema.optional(),
    /** The device's clock less the server's, ms, where the device has asked. */
    clockOffsetMs: z.int().min(-CLOCK_OFFSET_MS).max(CLOCK_OFFSET_MS).optional(),
  })
  .refine(
    (claim) => measuredOn(claim).every((id) => claim.photographs.some((one) => one.photographId === id)),
    {
      message: 'the measured photograph is not among the claim’s',
      path: ['measurement', 'photographId'],
    },
  );

/** The photographs that a claim's measurement stands on. */
function measuredOn({ measurement }: { measurement: z.infer<typeof measurementInputSchema> }): string[] {
  const more = measurement.kind === 'tape' ? measurement.marks.map((mark) => mark.photographId) : [];
  return [measurement.photographId, ...more];
}

export const decisionSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('accepted'),
    steps: z.int().min(0).max(100_000),
    infractions: z.array(infractionSchema).max(24),
    note: z.string().trim().max(500),
  }),
  z.strictObject({
    kind: z.literal('refused'),
    infractions: z.array(infractionSchema).max(24),
    reason: words(500),
  }),
  z.strictObject({ kind: z.literal('sent-back'), request: words(500) }),
  /** Takes the former decision back: the catch is undecided again. */
  z.strictObject({ kind: z.literal('reopened') }),
]);
export type DecisionInput = z.infer<typeof decisionSchema>;

export const judgeCatchSchema = z.strictObject({
  catchId: ID.catch,
  verdictId: ID.verdict,
  /** The verdict that the judge saw when deciding, so that two judges do not overrule each other unseen. */
  replaces: z.uuid().nullable(),
  decision: decisionSchema,
});

export const answerRequestSchema = z
  .strictObject({
    catchId: ID.catch,
    answerId: z.uuid(),
    verdictId: ID.verdict,
    words: z.string().trim().max(500),
    photographId: ID.file.nullable(),
  })
  .refine((answer) => answer.words !== '' || answer.photographId !== null, {
    message: 'write a few words or add a photograph',
    path: ['words'],
  });

/** What happened to a fish after it was claimed: the whole of it, once. */
export const handleCatchSchema = z.strictObject({ catchId: ID.catch, handling: handlingSchema });

/** What a second device timed of a catch, told once and perhaps before the claim. */
export const timeCatchSchema = z.strictObject({
  catchId: ID.catch,
  entrantId: ID.entrant,
  handling: handlingSchema,
  clockOffsetMs: z.int().min(-CLOCK_OFFSET_MS).max(CLOCK_OFFSET_MS).nullable(),
});

/** Adds the clip of its release to a catch: one, once. */
export const clipCatchSchema = z.strictObject({ catchId: ID.catch, clipId: ID.file });

/** From when on entrants see the codes of a day; null shows them at once. */
export const revealCodesSchema = z.strictObject({
  dayId: ID.day,
  from: z.iso.datetime().nullable(),
});

/** From when on the results stand; devices may then let go of frames that nobody asked for. */
export const declareResultsSchema = z.strictObject({ isOfficial: z.boolean() });

export const withdrawCatchSchema = z.strictObject({ catchId: ID.catch });

/** Undoes a withdrawal. */
export const restoreCatchSchema = z.strictObject({ catchId: ID.catch });

const envelope = {
  v: z.literal(COMMAND_VERSION),
  commandId: ID.command,
  eventId: ID.event,
  madeAt: z.iso.datetime(),
  deviceId: ID.device,
};

/** Every write goes through one of these. */
export const commandSchema = z.discriminatedUnion('kind', [
  z.strictObject({ ...envelope, kind: z.literal('event.create'), body: createEventSchema }),
  z.strictObject({ ...envelope, kind: z.literal('rules.publish'), body: publishRulesSchema }),
  z.strictObject({ ...envelope, kind: z.literal('board.add'), body: addBoardSchema }),
  z.strictObject({ ...envelope, kind: z.literal('people.add'), body: addPersonSchema }),
  z.strictObject({ ...envelope, kind: z.literal('people.accept'), body: acceptRolesSchema }),
  z.strictObject({ ...envelope, kind: z.literal('people.remove'), body: removePersonSchema }),
  z.strictObject({ ...envelope, kind: z.literal('waters.publish'), body: publishWatersSchema }),
  z.strictObject({ ...envelope, kind: z.literal('captures.tell'), body: tellCapturesSchema }),
  z.strictObject({ ...envelope, kind: z.literal('catch.announce'), body: announceCatchSchema }),
  z.strictObject({ ...envelope, kind: z.literal('catch.claim'), body: claimCatchSchema }),
  z.strictObject({ ...envelope, kind: z.literal('catch.judge'), body: judgeCatchSchema }),
  z.strictObject({ ...envelope, kind: z.literal('catch.answer'), body: answerRequestSchema }),
  z.strictObject({ ...envelope, kind: z.literal('catch.handle'), body: handleCatchSchema }),
  z.strictObject({ ...envelope, kind: z.literal('catch.time'), body: timeCatchSchema }),
  z.strictObject({ ...envelope, kind: z.literal('catch.clip'), body: clipCatchSchema }),
  z.strictObject({ ...envelope, kind: z.literal('frames.ask'), body: askFramesSchema }),
  z.strictObject({ ...envelope, kind: z.literal('frame.send'), body: sendFrameSchema }),
  z.strictObject({ ...envelope, kind: z.literal('well.enter'), body: enterWellSchema }),
  z.strictObject({ ...envelope, kind: z.literal('weigh-in.enter'), body: enterWeighInSchema }),
  z.strictObject({ ...envelope, kind: z.literal('specimen.record'), body: recordSpecimenSchema }),
  z.strictObject({ ...envelope, kind: z.literal('results.declare'), body: declareResultsSchema }),
  z.strictObject({ ...envelope, kind: z.literal('codes.reveal'), body: revealCodesSchema }),
  z.strictObject({ ...envelope, kind: z.literal('catch.withdraw'), body: withdrawCatchSchema }),
  z.strictObject({ ...envelope, kind: z.literal('catch.restore'), body: restoreCatchSchema }),
]);
export type Command = z.infer<typeof commandSchema>;
export type CommandKind = Command['kind'];
export type CommandBody<K extends CommandKind> = Extract<Command, { kind: K }>['body'];

export const receiptSchema = z.object({
  commandId: ID.command,
  kind: z.string(),
  eventId: ID.event,
  /** Place of the command's entry in the event's ledger. */
  seq: z.int(),
  /** That entry's hash, and the server's signature that the ledger ended so; absent in receipts of versions before. */
  hash: z.string().optional(),
  signature: z.string().optional(),
  signedBy: z.string().optional(),
  receivedAt: z.iso.datetime(),
  result: z.record(z.string(), z.unknown()),
});
export type Receipt = z.infer<typeof receiptSchema>;
