import {
  boardMap,
  type BenchNotes,
  type BoardMarks,
  type MarkName,
  type MeasuringBoard,
  type PhotoAnalysis,
} from '@lauta/vision';
import { firstMarks } from './handles.ts';

/** What goes with marks that the bench has set; null where it found no board. */
export function benchNotes(analysis: PhotoAnalysis | null, byHand: readonly MarkName[]): BenchNotes | null {
  if (!analysis?.found) return null;
  const edge = analysis.budget.find(({ cause }) => cause === 'tip-edge');
  // Without a tail of its own the bench knows nothing of its edge: then the tail is set by hand anyway.
  return { lens: analysis.found.lens, byHand, tipSigmaMm: edge?.sigmaMm ?? 1 };
}

/** Where the handles lie before anyone has set them: on the found board, or as most photographs show it. */
export function startMarks(
  analysis: PhotoAnalysis | null,
  boards: readonly MeasuringBoard[],
  { widthPx, heightPx }: { widthPx: number; heightPx: number },
): BoardMarks {
  const first = firstMarks(widthPx, heightPx);
  const found = analysis?.found;
  const board = found && boards.find(({ id }) => id === found.boardId);
  if (!found || !board) return first;
  const map = boardMap(board, found.corners, found.lens, { widthPx, heightPx });
  return {
    corners: found.corners,
    nose: map.toPhoto([0, board.widthMm / 2]),
    tail: map.toPhoto([board.widthMm * 2, board.widthMm / 2]),
  };
}
