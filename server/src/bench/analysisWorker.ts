import { parentPort } from 'node:worker_threads';
import type { Identifier } from '@lauta/core/identifier';
import type { MeasuringBoard } from '@lauta/vision';
import { analysePhotograph, type AnalysedPhotograph } from './analysePhotograph.ts';

export interface AnalysisTask {
  bytes: Uint8Array;
  board: MeasuringBoard;
  /** What the board may be instead. */
  otherBoards: readonly MeasuringBoard[];
  limitTiltDeg: number | null;
  /** The entrant's card of the day; null when nobody knows. */
  expected: Identifier | null;
}
export type AnalysisAnswer = { ok: true; value: AnalysedPhotograph } | { ok: false; error: string };

parentPort?.on('message', ({ bytes, board, otherBoards, limitTiltDeg, expected }: AnalysisTask) => {
  const limit = limitTiltDeg === null ? {} : { limitTiltDeg };
  analysePhotograph(bytes, board, { otherBoards, expected, ...limit }).then(
    (value) => parentPort?.postMessage({ ok: true, value } satisfies AnalysisAnswer),
    (error: unknown) => parentPort?.postMessage({ ok: false, error: String(error) } satisfies AnalysisAnswer),
  );
});
