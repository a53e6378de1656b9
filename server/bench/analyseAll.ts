import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parsePayload } from '@lauta/core/identifier';
import { SHIPPED_BOARDS, shippedBoard } from '@lauta/vision';
import type { PhotoRecord } from '@lauta/sim/photos';
import type { AnalysedPhotograph } from '../src/bench/analysePhotograph.ts';
import { openAnalysisPool } from '../src/bench/analysisPool.ts';

export interface Read {
  record: PhotoRecord;
  found: AnalysedPhotograph | null;
}

/** Reads photographs of a folder on two threads, each on the board that its angler claims. */
export async function analyseAll(dir: string, records: readonly PhotoRecord[]): Promise<Read[]> {
  const pool = openAnalysisPool({
    threads: 2,
    mostWaiting: records.length + 1,
    mostRemembered: 1,
    limitMs: 60_000,
  });
  try {
    return await Promise.all(
      records.map(async (record) => {
        // The shared samples claim what they show.
        const board = shippedBoard(record.claimedBoard ?? record.board);
        const result = await pool.analyse(
          record.file,
          async () => ({
            bytes: await readFile(join(dir, record.file)),
            board,
            otherBoards: SHIPPED_BOARDS,
            limitTiltDeg: null,
            expected: parsePayload(record.expectedPayload ?? ''),
          }),
          true,
        );
        return { record, found: result.ok ? result.value : null };
      }),
    );
  } finally {
    await pool.close();
  }
}
