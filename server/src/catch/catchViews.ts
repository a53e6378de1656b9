import { mergedHandling, type Handling } from '@lauta/core/care';
import { readingOf } from '@lauta/vision';
import {
  exifView,
  type CatchSummary,
  type CatchView,
  type ClipView,
  type PhotographView,
} from '@lauta/contract';
import { may, type Subject } from '@lauta/core/people';
import { sheetOfVersion, type RuleBook } from '@lauta/core/rules';
import { scoreFish } from '@lauta/core/scoring';
import { loadRuleBook } from '../rules/ruleBook.ts';
import type { Entrant } from '../access/peopleStore.ts';
import type { Stores } from '../storage/storage.ts';
import { scoringCatch } from './scoringCatch.ts';
import type { CatchFilter, CatchRecord, ListedCatch, Timing, Verdict } from './catchStore.ts';
import type { CatchId, EventId, FileId } from '@lauta/core/ids';

function summary(
  { record, readMm, thumbId }: ListedCatch,
  last: Verdict | undefined,
  entrant: Entrant,
  book: RuleBook,
): CatchSummary {
  const score = scoreFish(sheetOfVersion(book, record.ruleVersion), scoringCatch(record, last));
  return {
    catchId: record.catchId,
    eventId: record.eventId,
    entrant: { entrantId: entrant.entrantId, number: entrant.number, name: entrant.name },
    speciesId: record.speciesId,
    dayId: record.dayId,
    capturedAt: record.capturedAt.toISOString(),
    receivedAt: record.receivedAt.toISOString(),
    claimedSteps: record.claimedSteps,
    readMm,
    state: record.state,
    marks: record.marks,
    thumbId,
    grossSteps: score.grossSteps,
    deductionSteps: score.deductionSteps,
    scoreSteps: score.scoreSteps,
    infractions: [...score.infractions],
    notCounting: score.notCounting,
  };
}

export async function listCatches(
  stores: Stores,
  eventId: EventId,
  filter: CatchFilter,
): Promise<{ items: CatchSummary[]; total: number }> {
  const book = await loadRuleBook(stores, eventId);
  if (!book) return { items: [], total: 0 };
  const { items, total } = await stores.catches.list(eventId, filter);
  const verdicts = await stores.catches.lastVerdictsIn(eventId);
  const entrants = new Map((await stores.people.entrantsOf(eventId)).map((one) => [one.entrantId, one]));
  return {
    items: items.map((listed) =>
      summary(
        listed,
        verdicts.get(listed.record.catchId),
        entrants.get(listed.record.entrantId) as Entrant,
        book,
      ),
    ),
    total,
  };
}

/** Everything about one catch that its asker may see. */
export async function viewCatch(
  stores: Stores,
  catchId: CatchId,
  subject: Subject,
  now: Date,
): Promise<CatchView | null> {
  const record = await stores.catches.find(catchId);
  if (!record) return null;
  const [book, measurement, verdicts, answers, photographs, entrant, identifiers, days, timings] =
    await Promise.all([
      loadRuleBook(stores, record.eventId),
      stores.catches.measurement(record.measurementId),
      stores.catches.verdictsOf(catchId),
      stores.catches.answersOf(catchId),
      stores.catches.photographsOf(catchId),
      stores.people.findEntrant(record.entrantId),
      stores.events.identifiersOf(record.entrantId),
      stores.events.days(record.eventId),
      stores.catches.timingsOf(catchId),
    ]);
  if (!book || !measurement || !entrant)
    throw new Error(`catch ${catchId}: expected rules, measurement, entrant`);
  const judges = new Map<string, string>();
  for (const { judgeId } of verdicts) {
    judges.set(judgeId, (await stores.people.findAccount(judgeId))?.name ?? '');
  }
  const codesFrom = days.find(({ dayId }) => dayId === record.dayId)?.codesFrom ?? null;
  const isCodeOut = codesFrom === null || codesFrom <= now;
  const maySeeCode = (subject.ownEntrant && isCodeOut) || may('see-queue', subject);
  const thumbId = measurement.photographId ?? photographs[0]?.photographId ?? '';
  return {
    ...summary({ record, readMm: measurement.reading.apparentMm, thumbId }, verdicts.at(-1), entrant, book),
    ruleVersion: record.ruleVersion,
    capturedSource: record.capturedSource,
    deviceId: record.deviceId,
    identifierCode: record.identifierCode,
    handling: handlingOf(record, timings),
    expectedCode: maySeeCode ? (identifiers.find((one) => one.dayId === record.dayId)?.code ?? null) : null,
    measurement: {
      measurementId: measurement.measurementId,
      photographId: measurement.photographId ?? '',
      reading: measurement.reading.kind === 'tape' ? measurement.reading : readingOf(measurement.reading),
    },
    photographs: await Promise.all(
      photographs.flatMap(({ photographId, role }) =>
        role === 'clip' ? [] : [photographView(stores, { photographId, role })],
      ),
    ),
    clip: await clipView(stores, photographs.find(({ role }) => role === 'clip')?.photographId),
    verdicts: verdicts.map(({ verdictId, seq, decidedAt, judgeId, decision }) => ({
      verdictId,
      seq,
      decidedAt: decidedAt.toISOString(),
      judge: judges.get(judgeId) ?? '',
      decision,
    })),
    answers: answers.map(({ answerId, verdictId, answeredAt, words, photographId }) => ({
      answerId,
      verdictId,
      answeredAt: answeredAt.toISOString(),
      words,
      photographId,
    })),
    mayJudge: may('judge-catch', subject),
    isOwn: subject.ownEntrant,
  };
}

/** How the fish was treated, by every device that told of it; null where nobody did. */
function handlingOf(record: CatchRecord, timings: readonly Timing[]): Handling | null {
  const own = record.laterHandling ?? record.handling;
  const told = [
    ...(own ? [{ handling: own, clockOffsetMs: record.clockOffsetMs }] : []),
    ...timings.filter(({ entrantId }) => entrantId === record.entrantId),
  ];
  return told.length === 0 ? null : mergedHandling(told);
}

async function clipView(stores: Stores, clipId: FileId | undefined): Promise<ClipView | null> {
  const clip = clipId === undefined ? null : await stores.photographs.find(clipId);
  if (!clip) return null;
  const { mediaType, byteLength, sha256 } = clip;
  return { clipId: clip.photographId, mediaType, byteLength, sha256 };
}

async function photographView(
  stores: Stores,
  { photographId, role }: { photographId: FileId; role: PhotographView['role'] },
): Promise<PhotographView> {
  const photograph = await stores.photographs.find(photographId);
  if (!photograph?.completedAt || !photograph.exif) {
    throw new Error(`photograph ${photographId}: expected a complete one`);
  }
  return {
    photographId,
    role,
    widthPx: photograph.widthPx ?? 0,
    heightPx: photograph.heightPx ?? 0,
    byteLength: photograph.byteLength,
    sha256: photograph.sha256,
    exif: exifView(photograph.exif),
  };
}
