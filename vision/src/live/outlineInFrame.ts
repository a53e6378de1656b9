import { faceLengthMm, type MeasuringBoard } from '../board/board.ts';
import type { Quad } from '../geometry/point.ts';

/** Share of the frame's width that the board should fill. */
export const OUTLINE_SHARE = 0.86;

/** Where the board should lie in a frame, px: corners as in `BoardMarks`, stop at the left. */
export function outlineInFrame(board: MeasuringBoard, widthPx: number, heightPx: number): Quad {
  const lengthMm = faceLengthMm(board);
  const pxPerMm = Math.min((OUTLINE_SHARE * widthPx) / lengthMm, (OUTLINE_SHARE * heightPx) / board.widthMm);
  const [halfX, halfY] = [(lengthMm * pxPerMm) / 2, (board.widthMm * pxPerMm) / 2];
  const [cx, cy] = [widthPx / 2, heightPx / 2];
  return [
    [cx - halfX, cy - halfY],
    [cx + halfX, cy - halfY],
    [cx + halfX, cy + halfY],
    [cx - halfX, cy + halfY],
  ];
}
