import type { BenchReadingView } from '@lauta/contract';
import { readingOf } from '@lauta/core/photo';
import { boardsOf } from '../board/eventBoards.ts';
import type { Lauta } from '../lauta.ts';
import { readOriginal } from '../photo/receivePhotograph.ts';
import { refuse } from '../refusal.ts';

/** Two readings that differ by more than this many combined standard uncertainties are called different (GUM, k = 2). */
const COVERAGE = 2;

/**
 * What the server reads off the stored original of a catch's measurement by itself, beside the reading that was claimed.
 * The device that claimed is not asked.
 * @param urgent somebody is looking at the catch; otherwise it is made ahead
 */
export async function benchReading(
  lauta: Lauta,
  catchId: string,
  urgent: boolean,
): Promise<BenchReadingView> {
  const stores = lauta.storage.read;
  const record = await stores.catches.find(catchId);
  const measurement = record && (await stores.catches.measurement(record.measurementId));
  const photographId = measurement?.photographId;
  if (!measurement || !photographId) refuse('not-found', { what: 'measurement' });
  const reading = readingOf(measurement.reading);
  const boards = await boardsOf(stores, record.eventId);
  const board = boards.find(({ id }) => id === reading.boardId);
  if (!board) refuse('board-not-known', { board: reading.boardId });
  const result = await lauta.bench.analyse(
    `${photographId} ${board.id} ${boards.length}`,
    async () => {
      const photograph = await stores.photographs.find(photographId);
      const bytes = photograph && (await readOriginal(stores, photograph));
      return bytes && { bytes, board, otherBoards: boards, limitTiltDeg: null };
    },
    urgent,
  );
  if (!result.ok) {
    if (result.code === 'broken' || result.code === 'too-long') refuse('bench-failed', { why: result.code });
    refuse('bench-busy');
  }
  const { analysis, isTruncated } = result.value;
  const differenceMm = analysis.apparentMm === null ? null : analysis.apparentMm - reading.apparentMm;
  return {
    analysis,
    isTruncated,
    differenceMm,
    isDifferent:
      differenceMm !== null &&
      Math.abs(differenceMm) > COVERAGE * Math.hypot(analysis.sigmaMm ?? 0, reading.sigmaMm),
  };
}
