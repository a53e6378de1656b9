import type { BenchReadingView } from '@lauta/contract';
import type { Identifier } from '@lauta/core/identifier';
import { readingOf, type BoardReading } from '@lauta/vision';
import { boardsOf } from '../board/eventBoards.ts';
import type { ReadCatch } from '../same-fish/flankKeeper.ts';
import type { Lauta } from '../context/lauta.ts';
import type { AnalysisResult } from '../bench/analysisPool.ts';
import { readOriginal } from '../photo/readOriginal.ts';
import { Refusal, refuse } from '../base/refusal.ts';
import type { Stores } from '../storage/storage.ts';
import type { CatchRecord } from '../catch/catchStore.ts';
import { fileEvidence } from './fileEvidence.ts';
import type { CatchId, FileId } from '@lauta/core/ids';

/** Two readings that differ by more than this many combined standard uncertainties are called different (GUM, k = 2). */
const COVERAGE = 2;

/** What the entrant's card says on the day of the catch; null where none was issued. */
async function expectedCard(
  stores: Stores,
  { eventId, entrantId, dayId }: CatchRecord,
): Promise<Identifier | null> {
  const [event, entrant, issued] = await Promise.all([
    stores.events.find(eventId),
    stores.people.findEntrant(entrantId),
    stores.events.identifiersOf(entrantId),
  ]);
  const code = issued.find((one) => one.dayId === dayId)?.code;
  return event && entrant && code
    ? { eventCode: event.eventCode, entrantNumber: entrant.number, code }
    : null;
}

/**
 * What the server reads off the stored original of a catch's measurement by itself, beside the reading that was claimed.
 * The device that claimed is not asked.
 * @param isUrgent somebody is looking at the catch; otherwise it is made ahead
 * @param isForJudge whether to tell of other catches that look like the same fish
 */
export async function benchReading(
  lauta: Lauta,
  catchId: CatchId,
  { isUrgent, isForJudge }: { isUrgent: boolean; isForJudge: boolean },
): Promise<BenchReadingView> {
  const { record, photographId, reading, result } = await readCatch(lauta, catchId, isUrgent);
  if (!result.ok) {
    if (result.code === 'broken' || result.code === 'too-long') refuse('bench-failed', { why: result.code });
    refuse('bench-busy');
  }
  const { analysis, isTruncated } = result.value;
  const differenceMm = analysis.apparentMm === null ? null : analysis.apparentMm - reading.apparentMm;
  const own = await lauta.flanks.keep(record, photographId, analysis);
  const readOther: ReadCatch = async (otherId) => {
    try {
      const { result: other } = await readCatch(lauta, otherId, false);
      if (other.ok) return other.value.analysis;
      return other.code === 'busy' || other.code === 'closed' ? null : 'unreadable';
    } catch (error) {
      if (error instanceof Refusal) return 'unreadable';
      throw error;
    }
  };
  const alike = isForJudge ? await lauta.flanks.alikeTo(record, own, readOther) : { catches: [], unread: 0 };
  return {
    // The pattern is of no use to a page.
    analysis: { ...analysis, flank: null },
    isTruncated,
    differenceMm,
    isDifferent:
      differenceMm !== null &&
      Math.abs(differenceMm) > COVERAGE * Math.hypot(analysis.sigmaMm ?? 0, reading.sigmaMm),
    evidence: isForJudge ? await fileEvidence(lauta.storage.read, record, photographId) : [],
    alike: alike.catches,
    alikeUnread: alike.unread,
  };
}

async function readCatch(
  lauta: Lauta,
  catchId: CatchId,
  isUrgent: boolean,
): Promise<{ record: CatchRecord; photographId: FileId; reading: BoardReading; result: AnalysisResult }> {
  const stores = lauta.storage.read;
  const record = await stores.catches.find(catchId);
  const measurement = record && (await stores.catches.measurement(record.measurementId));
  const photographId = measurement?.photographId;
  // A tape in the water shows no board that could be read.
  if (!record || !photographId || measurement.reading.kind !== 'board')
    refuse('not-found', { what: 'measurement' });
  const reading = readingOf(measurement.reading);
  const boards = await boardsOf(stores, record.eventId);
  const board = boards.find(({ id }) => id === reading.boardId);
  if (!board) refuse('board-not-known', { board: reading.boardId });
  let altered: unknown = null;
  const result = await lauta.bench.analyse(
    `${photographId} ${board.id} ${boards.length}`,
    async () => {
      const photograph = await stores.photographs.find(photographId);
      const bytes =
        photograph &&
        (await readOriginal(stores, photograph).catch((error: unknown) => {
          altered = error;
          throw error;
        }));
      const expected = await expectedCard(stores, record);
      return bytes && { bytes, board, otherBoards: boards, limitTiltDeg: null, expected };
    },
    isUrgent,
  );
  if (altered instanceof Refusal) throw altered;
  return { record, photographId, reading, result };
}
