import { findingOf, type Finding } from '../findings/findings.ts';
import { projectBoardPoint } from '../camera/lens.ts';
import type { Check } from './check.ts';
import { insidePx, type Frame } from './frame.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import { columnStart, rowStart } from '../grid/planeGrid.ts';

export const tailCropped: Check<'fish'> = {
  ids: ['tail-cropped'],
  live: 'tail',
  judge: ({ seen, frame }) => [tailCroppedFinding(seen, frame)],
};

/** How near to the picture's edge a fish counts as cut off by it, cells of the view. */
const REACH_CELLS = 3;

export function tailCroppedFinding({ fish, pose, toPhoto }: SeenCatch, frame: Frame): Finding {
  const { view, labels, piece, tip } = fish;
  let cut = tip !== null && insidePx(projectBoardPoint(pose, tip.xMm + 2, tip.yMm), frame) < 1;
  // The fish goes on where the photograph ends.
  for (let row = piece.fromRow; row <= piece.toRow && !cut; row++) {
    for (let column = Math.max(piece.fromColumn, piece.toColumn - 8); column <= piece.toColumn; column++) {
      if (labels[row * view.columns + column] !== piece.label) continue;
      const beyond = row * view.columns + Math.min(view.columns - 1, column + REACH_CELLS);
      if (!view.inPhoto[beyond]) cut = true;
    }
  }
  const endMm = columnStart(view, piece.toColumn);
  const middleMm = rowStart(view, (piece.fromRow + piece.toRow) / 2);
  return findingOf('tail-cropped', cut ? 'fault' : 'clear', 0.96, cut ? { code: 'tail-at-edge' } : { code: 'tail-in-picture' }, toPhoto(endMm, middleMm)); // prettier-ignore
}
