import type { CommandBody } from '@lauta/contract';
import { captureTime, catchState, claimMarks, type CapturedWhen } from '@lauta/core/catch';
import { readBoard, type BoardReading } from '@lauta/vision';
import { sheetOfVersion, versionInForce } from '@lauta/core/rules';
import { readTape, type TapeReading } from '@lauta/core/tape';
import { placeInSchedule } from '@lauta/core/schedule';
import { boardIn } from '../board/eventBoards.ts';
import type { CommandContext, Handler } from '../command/commandContext.ts';
import { refuseIfOfficial } from '../event/declareResults.ts';
import type { LautaEvent } from '../event/eventStore.ts';
import { requireMay } from '../access/scope.ts';
import type { Photograph } from '../photo/photographStore.ts';
import { refuse } from '../base/refusal.ts';
import { loadRuleBook } from '../rules/ruleBook.ts';
import { requireOwnCatchId } from '../command/ownCatchId.ts';
import { commitmentValue, freeFile } from '../photo/freeFile.ts';
import type { CatchRecord } from './catchStore.ts';
import type { CatchId, DayId, DeviceId, EventId, FileId } from '@lauta/core/ids';

type Claim = CommandBody<'catch.claim'>;

const HOUR_MS = 3_600_000;
/** A day's outbox may come in one go; a fish a minute for hours does not. */
const MOST_CLAIMS_AN_HOUR = 120;

/**
 * Takes a claim. What can't count (outside of the hours, a species or board that the sheet does not name) is kept
 * and marked, never dropped. The reading is computed anew from the marks and the stored original.
 */
export const claimCatch: Handler<'catch.claim'> = async (context, claim, command) => {
  const { stores, now, commit } = context;
  const { eventId } = command;
  const event = await claimableEvent(context, eventId, claim);
  const book = await loadRuleBook(stores, eventId);
  if (!book) refuse('no-rule-sheet');

  const photographs = await Promise.all(
    claim.photographs.map((one) => freeFile(context, eventId, one.photographId, 'photograph')),
  );
  const measured = photographs.find((one) => one.photographId === claim.measurement.photographId);
  const reading = await readMeasurement(context, eventId, claim, measured as Photograph);
  const captured = capturedAt(claim, measured as Photograph, event);
  const ruleVersion = versionInForce(book.published, captured.at.getTime()) ?? book.currentVersion;
  const sheet = sheetOfVersion(book, ruleVersion);
  const { dayId, when } = await placeCapture(context, eventId, captured.at);
  const announced = await stores.custody.findAnnouncement(claim.catchId);
  const marks = claimMarks({
    sheet,
    when,
    speciesId: claim.speciesId,
    claimedSteps: claim.claimedSteps,
    reading,
    isFromOutside: claim.photographs.some((one) => one.isFromOutside),
    hasPersonPicture: claim.photographs.some(({ role }) => role === 'person'),
    capturedAtMs: captured.at.getTime(),
    heardAtMs: (announced?.heardAt ?? now).getTime(),
  });

  const { measurementId } = claim.measurement;
  await stores.catches.add(
    {
      ...newRecord(claim, command, now),
      dayId,
      ruleVersion,
      capturedAt: captured.at,
      capturedSource: captured.source,
      inSession: when === 'in-session',
      marks,
    },
    {
      measurementId,
      catchId: claim.catchId,
      kind: reading.kind,
      photographId: claim.measurement.photographId,
      reading,
    },
    claim.photographs.map(({ photographId, role }) => ({ photographId, role })),
  );
  return {
    body: {
      catchId: claim.catchId,
      entrantId: claim.entrantId,
      speciesId: claim.speciesId,
      dayId,
      ruleVersion,
      capturedAt: captured.at.toISOString(),
      capturedSource: captured.source,
      inSession: when === 'in-session',
      marks,
      claimedSteps: claim.claimedSteps,
      ...(claim.handling ? { handling: claim.handling } : {}),
      ...(claim.clockOffsetMs === undefined ? {} : { clockOffsetMs: claim.clockOffsetMs }),
      measurement: { measurementId, photographId: claim.measurement.photographId, reading },
      identifier: commit('identifier', claim.identifierCode),
      photographs: await committedFiles(context, claim, photographs),
    },
    result: { catchId: claim.catchId, apparentMm: reading.apparentMm, marks },
  };
};

/** The event, once it is known that this person may claim this fish there now. */
async function claimableEvent(context: CommandContext, eventId: EventId, claim: Claim): Promise<LautaEvent> {
  const { stores, asker, now } = context;
  const entrant = await stores.people.findEntrant(claim.entrantId);
  if (entrant?.eventId !== eventId) refuse('not-found', { what: 'entrant' });
  await requireMay(stores, asker, 'claim-catch', { eventId, entrantId: entrant.entrantId });
  await requireOwnCatchId(context, eventId, entrant.entrantId, claim.catchId);
  const known = await stores.catches.find(claim.catchId);
  // Told by what it was claimed, so that a device sees whether that was its own claim or another phone's.
  if (known) refuse('catch-exists', { measurementId: known.measurementId });
  const event = await stores.events.find(eventId);
  if (!event) refuse('not-found', { what: 'event' });
  if (
    (await stores.catches.claimedSince(entrant.entrantId, new Date(now.getTime() - HOUR_MS))) >=
    MOST_CLAIMS_AN_HOUR
  )
    refuse('too-many-tries');
  return event;
}

/** A claim's photographs as they stand in the ledger. */
async function committedFiles(
  context: CommandContext,
  claim: Claim,
  photographs: readonly Photograph[],
): Promise<{ photographId: FileId; role: string; file: string }[]> {
  const files: { photographId: FileId; role: string; file: string }[] = [];
  for (const [i, one] of photographs.entries()) {
    files.push({
      photographId: one.photographId,
      role: claim.photographs[i]?.role ?? 'board',
      file: context.commit(`photograph-${one.photographId}`, await commitmentValue(context, one)),
    });
  }
  return files;
}

/** What a catch is as it comes in, but for what follows from its time. */
const newRecord = (
  claim: Claim,
  command: { eventId: EventId; madeAt: string; deviceId: DeviceId },
  now: Date,
) => ({
  catchId: claim.catchId,
  eventId: command.eventId,
  entrantId: claim.entrantId,
  speciesId: claim.speciesId,
  madeAt: new Date(command.madeAt),
  receivedAt: now,
  deviceId: command.deviceId,
  claimedSteps: claim.claimedSteps,
  measurementId: claim.measurement.measurementId,
  identifierCode: claim.identifierCode,
  handling: claim.handling ?? null,
  laterHandling: null,
  clockOffsetMs: claim.clockOffsetMs ?? null,
  withdrawnAt: null,
  state: 'undecided' as const,
});

async function readMeasurement(
  { stores }: CommandContext,
  eventId: EventId,
  { measurement }: Claim,
  photograph: Photograph,
): Promise<BoardReading | TapeReading> {
  if (measurement.kind === 'tape') {
    const read = readTape(measurement.marks, measurement.gripOffsetMm);
    if (!read.ok) refuse('reading-refused', { why: read.code });
    return read.value;
  }
  const { boardId, marks, bench = null } = measurement;
  const board = await boardIn(stores, eventId, boardId);
  if (!board) refuse('board-not-known', { board: boardId });
  const reading = readBoard(board, marks, {
    widthPx: photograph.widthPx ?? 0,
    heightPx: photograph.heightPx ?? 0,
    focal35Mm: photograph.exif?.focal35Mm ?? null,
    bench,
  });
  if (!reading.ok) refuse('reading-refused', { why: reading.code });
  return reading.value;
}

function capturedAt(
  { captured }: Claim,
  { exif }: Photograph,
  { zone }: LautaEvent,
): { at: Date; source: CatchRecord['capturedSource'] } {
  if (captured.source !== 'photograph') return { at: new Date(captured.at), source: captured.source };
  const { at, source } = captureTime(exif, captured.at, zone);
  return { at: new Date(at), source };
}

async function placeCapture(
  { stores }: CommandContext,
  eventId: EventId,
  at: Date,
): Promise<{ dayId: DayId; when: CapturedWhen }> {
  const sessions = await stores.events.sessions(eventId);
  const place = placeInSchedule(
    sessions.map((session) => ({
      sessionId: session.sessionId,
      dayId: session.dayId,
      linesInMs: session.linesInAt.getTime(),
      linesOutMs: session.linesOutAt.getTime(),
    })),
    at.getTime(),
  );
  if (place.kind !== 'no-sessions') return { dayId: place.dayId, when: place.kind };
  const [day] = await stores.events.days(eventId);
  if (!day) throw new Error(`event ${eventId}: expected a day, got none`);
  return { dayId: day.dayId, when: 'no-session' };
}

async function lockedCatch(
  { stores }: CommandContext,
  catchId: CatchId,
  eventId: EventId,
): Promise<CatchRecord> {
  const record = await stores.catches.lock(catchId);
  if (record?.eventId !== eventId) refuse('not-found', { what: 'catch' });
  return record;
}

/** Decides on a catch. Former decisions stay; a judge who has not seen the latest one is told so. */
export const judgeCatch: Handler<'catch.judge'> = async (context, body, command) => {
  const { stores, asker, accountId, now, commit } = context;
  const { eventId } = command;
  const record = await lockedCatch(context, body.catchId, eventId);
  await requireMay(stores, asker, 'judge-catch', { eventId, entrantId: record.entrantId });
  if (record.withdrawnAt) refuse('catch-withdrawn');
  await refuseIfOfficial(context, eventId);
  const former = await stores.catches.verdictsOf(body.catchId);
  const last = former.at(-1);
  if ((last?.verdictId ?? null) !== body.replaces)
    refuse('verdict-moved-on', { last: last?.verdictId ?? null });
  const { decision } = body;
  if (decision.kind === 'reopened' && !last) refuse('verdict-moved-on', { last: null });
  const verdict = {
    verdictId: body.verdictId,
    catchId: body.catchId,
    seq: former.length + 1,
    judgeId: accountId,
    decidedAt: now,
    decision,
  };
  await stores.catches.addVerdict(verdict);
  await stores.catches.setState(body.catchId, catchState(false, verdict, []));
  return {
    body: {
      catchId: body.catchId,
      verdictId: body.verdictId,
      replaces: body.replaces,
      kind: decision.kind,
      steps: decision.kind === 'accepted' ? decision.steps : null,
      infractions:
        decision.kind === 'accepted' || decision.kind === 'refused' ? decision.infractions.toSorted() : [],
      words: commit('words', wordsOf(decision)),
    },
    result: { verdictId: body.verdictId },
  };
};

function wordsOf(decision: CommandBody<'catch.judge'>['decision']): string {
  switch (decision.kind) {
    case 'accepted':
      return decision.note;
    case 'refused':
      return decision.reason;
    case 'sent-back':
      return decision.request;
    case 'reopened':
      return '';
  }
}

/** Answers a judge's request with words, another photograph, or both. */
export const answerRequest: Handler<'catch.answer'> = async (context, body, command) => {
  const { stores, asker, now, commit } = context;
  const { eventId } = command;
  const record = await lockedCatch(context, body.catchId, eventId);
  await requireMay(stores, asker, 'answer-request', { eventId, entrantId: record.entrantId });
  const last = (await stores.catches.verdictsOf(body.catchId)).at(-1);
  if (record.withdrawnAt || last?.verdictId !== body.verdictId || last.decision.kind !== 'sent-back') {
    refuse('nothing-to-answer');
  }
  const photograph = body.photographId
    ? await freeFile(context, eventId, body.photographId, 'photograph')
    : null;
  if (photograph) {
    await stores.catches.attach(body.catchId, { photographId: photograph.photographId, role: 'board' });
  }
  const { answerId, catchId, verdictId, words, photographId } = body;
  await stores.catches.addAnswer({ answerId, catchId, verdictId, answeredAt: now, words, photographId });
  await stores.catches.setState(catchId, 'answered');
  return {
    body: {
      answerId,
      catchId,
      verdictId,
      words: commit('words', words),
      photograph: photograph
        ? {
            photographId: photograph.photographId,
            file: commit(`photograph-${photograph.photographId}`, await commitmentValue(context, photograph)),
          }
        : null,
    },
    result: { answerId },
  };
};

export const withdrawCatch: Handler<'catch.withdraw'> = async (context, { catchId }, command) => {
  const record = await ownCatch(context, 'withdraw-catch', catchId, command.eventId);
  if (record.withdrawnAt) refuse('catch-withdrawn');
  await refuseIfOfficial(context, command.eventId);
  await context.stores.catches.setWithdrawn(catchId, context.now);
  await context.stores.catches.setState(catchId, 'withdrawn');
  return { body: { catchId } };
};

/** Undoes a withdrawal: the catch stands where it stood before. */
export const restoreCatch: Handler<'catch.restore'> = async (context, { catchId }, command) => {
  const { stores } = context;
  const record = await ownCatch(context, 'withdraw-catch', catchId, command.eventId);
  if (!record.withdrawnAt) refuse('catch-not-withdrawn');
  await refuseIfOfficial(context, command.eventId);
  const last = (await stores.catches.verdictsOf(catchId)).at(-1);
  await stores.catches.setWithdrawn(catchId, null);
  await stores.catches.setState(catchId, catchState(false, last, await stores.catches.answersOf(catchId)));
  return { body: { catchId } };
};

/** Tells what happened to a fish after its claim, such as its release: once, and nothing of the claim left out. */
export const handleCatch: Handler<'catch.handle'> = async (context, { catchId, handling }, command) => {
  const record = await ownCatch(context, 'tell-catch', catchId, command.eventId);
  if (record.laterHandling) refuse('handling-told');
  const before = record.handling?.events ?? [];
  if (before.some(({ step }, i) => handling.events[i]?.step !== step)) refuse('handling-not-later');
  await context.stores.catches.setLaterHandling(catchId, handling);
  return { body: { catchId, handling } };
};

/**
 * What a partner's phone timed. It may come before the claim: both are of one catch by its id, and are put together
 * when somebody looks.
 */
export const timeCatch: Handler<'catch.time'> = async (context, body, command) => {
  const { stores, asker, now, commit } = context;
  const { catchId, entrantId, handling, clockOffsetMs } = body;
  const { eventId, deviceId } = command;
  const entrant = await stores.people.findEntrant(entrantId);
  if (entrant?.eventId !== eventId) refuse('not-found', { what: 'entrant' });
  await requireMay(stores, asker, 'claim-catch', { eventId, entrantId });
  await requireOwnCatchId(context, eventId, entrantId, catchId);
  const known = await stores.catches.timingsOf(catchId);
  if (known.some((one) => one.deviceId === deviceId)) refuse('handling-told');
  await stores.catches.addTiming({
    catchId,
    deviceId,
    eventId,
    entrantId,
    handling,
    clockOffsetMs,
    toldAt: now,
  });
  // Until it is claimed nobody else knows the catch's id.
  return { body: { entrantId, content: commit('timing', { catchId, deviceId, handling, clockOffsetMs }) } };
};

/** Adds the clip of a fish's release to its catch. */
export const clipCatch: Handler<'catch.clip'> = async (context, { catchId, clipId }, command) => {
  const { stores, commit } = context;
  const record = await ownCatch(context, 'tell-catch', catchId, command.eventId);
  const known = await stores.catches.photographsOf(record.catchId);
  if (known.some(({ role }) => role === 'clip')) refuse('clip-sent');
  const clip = await freeFile(context, command.eventId, clipId, 'clip');
  await stores.catches.attach(catchId, { photographId: clipId, role: 'clip' });
  const file = commit(`photograph-${clipId}`, await commitmentValue(context, clip));
  return { body: { catchId, clipId, file } };
};

async function ownCatch(
  context: CommandContext,
  capability: 'withdraw-catch' | 'tell-catch',
  catchId: CatchId,
  eventId: EventId,
): Promise<CatchRecord> {
  const record = await lockedCatch(context, catchId, eventId);
  await requireMay(context.stores, context.asker, capability, { eventId, entrantId: record.entrantId });
  return record;
}
