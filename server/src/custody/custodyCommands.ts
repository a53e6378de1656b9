import { statementHash } from '@lauta/core/custody';
import type { CommandContext, Handler } from '../command/commandContext.ts';
import { requireMay } from '../access/scope.ts';
import { refuse } from '../base/refusal.ts';
import { requireOwnCatchId } from '../command/ownCatchId.ts';
import { commitmentValue, freeFile } from '../photo/freeFile.ts';
import type { EntrantId, EventId } from '@lauta/core/ids';

/** So many fish of one boat are not on their way at once: false ones would hide the others' true ones. */
const MOST_WAITING = 60;
/** Ten bursts of one fish. */
const MOST_CAPTURES = 240;

async function requireOwnEntrant(
  { stores, asker }: CommandContext,
  eventId: EventId,
  entrantId: EntrantId,
): Promise<void> {
  const entrant = await stores.people.findEntrant(entrantId);
  if (entrant?.eventId !== eventId) refuse('not-found', { what: 'entrant' });
  await requireMay(stores, asker, 'claim-catch', { eventId, entrantId });
}

/**
 * Keeps what a device signed, as it signed it. What does not fit is kept too and found when a judge looks: whoever
 * forges learns nothing from an answer.
 */
export const tellCaptures: Handler<'captures.tell'> = async (
  context,
  { entrantId, captures },
  { eventId },
) => {
  await requireOwnEntrant(context, eventId, entrantId);
  const told = [];
  for (const { statement, signature } of captures) {
    if (statement.eventId !== eventId || statement.entrantId !== entrantId)
      refuse('capture-of-another', { captureId: statement.captureId });
    const hash = statementHash(statement);
    if ((await context.stores.custody.capturesOfCatch(statement.catchId)) >= MOST_CAPTURES)
      refuse('too-many-entries');
    const { catchId, captureId, keyId, seq } = statement;
    await requireOwnCatchId(context, eventId, entrantId, catchId);
    const known = await context.stores.custody.findCapture(hash);
    await context.stores.custody.addCapture({
      hash,
      eventId,
      entrantId,
      catchId,
      captureId,
      statement,
      signature,
      heardAt: context.now,
    });
    // The catch's id is told with its claim: before, it is nobody else's business.
    told.push({
      captureId,
      keyId,
      seq,
      // Salted: whoever knows the rest of a statement could try places until its hash fits.
      statement: context.commit(`capture-${captureId}`, {
        statement,
        // Told again with another signature, the first one stands.
        signature: known?.signature ?? signature,
      }),
    });
  }
  return { body: { entrantId, captures: told }, result: { told: told.length } };
};

/** Hears of a claim ahead of its photographs: from then on it is known what is claimed, and since when. */
export const announceCatch: Handler<'catch.announce'> = async (context, body, { eventId }) => {
  const { stores, now, commit } = context;
  await requireOwnEntrant(context, eventId, body.entrantId);
  const { catchId, entrantId } = body;
  await requireOwnCatchId(context, eventId, entrantId, catchId);
  if (await stores.custody.findAnnouncement(catchId)) refuse('catch-announced');
  if ((await stores.custody.waitingOf(entrantId)) >= MOST_WAITING) refuse('too-many-tries');
  if (await stores.catches.find(catchId)) refuse('catch-exists');
  await stores.custody.announce({ catchId, eventId, entrantId, body, heardAt: now });
  return {
    // What is on its way, and how long it is, rivals learn when it is claimed.
    body: { entrantId, content: commit('announced', body) },
    result: { catchId },
  };
};

/** A judge asks for frames that were signed and stayed on the device. */
export const askFrames: Handler<'frames.ask'> = async (context, { catchId, captureIds }, { eventId }) => {
  const { stores, asker, now } = context;
  const record = await stores.catches.find(catchId);
  if (record?.eventId !== eventId) refuse('not-found', { what: 'catch' });
  await requireMay(stores, asker, 'judge-catch', { eventId, entrantId: record.entrantId });
  const known = (await stores.custody.capturesOf(record.entrantId)).filter((one) => one.catchId === catchId);
  const missing = captureIds.find((id) => !known.some(({ captureId }) => captureId === id));
  if (missing !== undefined) refuse('not-found', { what: 'capture' });
  await stores.custody.ask(catchId, captureIds, now);
  return { body: { catchId, captureIds } };
};

/** The device's answer: the frame, byte for byte what it signed, or that it has it no more. */
export const sendFrame: Handler<'frame.send'> = async (context, body, { eventId }) => {
  const { stores, asker, now, commit } = context;
  const { catchId, captureId, photographId } = body;
  const record = await stores.catches.lock(catchId);
  if (record?.eventId !== eventId) refuse('not-found', { what: 'catch' });
  await requireMay(stores, asker, 'tell-catch', { eventId, entrantId: record.entrantId });
  const asked = (await stores.custody.askedOf([record.entrantId])).find(
    (one) => one.catchId === catchId && one.captureId === captureId,
  );
  if (!asked) refuse('frame-not-asked');
  let file: string | null = null;
  if (photographId !== null) {
    const photograph = await freeFile(context, eventId, photographId, 'photograph');
    if (photograph.sha256 !== asked.statement.photographSha256) refuse('checksum-mismatch');
    await stores.catches.attach(catchId, { photographId, role: 'board' });
    file = commit(`photograph-${photographId}`, await commitmentValue(context, photograph));
  }
  await stores.custody.answer(asked.hash, now, photographId);
  return { body: { catchId, captureId, photographId, file } };
};
