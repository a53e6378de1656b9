import { findingOf, type Finding } from '../findings/findings.ts';
import { projectBoardPoint, type LensPose } from '../camera/lens.ts';
import type { Pattern } from '../find-board/pattern.ts';
import type { Point } from '../geometry/point.ts';
import type { Frame, SeenCatch } from './seenCatch.ts';

/** How far a place lies inside of the frame, px; under 0 it is outside. */
function insidePx([x, y]: Point, { widthPx, heightPx }: Frame): number {
  return Math.min(x, y, widthPx - 1 - x, heightPx - 1 - y);
}

/** @param nose px of the searched picture; null when no fish was found */
export function headCropped(
  pose: LensPose,
  pattern: Pattern,
  nose: Point | null,
  frame: Frame,
  toPhoto: SeenCatch['toPhoto'],
): Finding {
  const stop = [projectBoardPoint(pose, 0, 0), projectBoardPoint(pose, 0, pattern.widthMm)];
  const stopPx = Math.max(...stop.map((corner) => insidePx(corner, frame)));
  const worst = nose ? Math.min(insidePx(nose, frame), stopPx) : stopPx;
  const tone = worst < 1 ? 'fault' : worst < 0.006 * frame.widthPx ? 'look' : 'clear';
  return findingOf(
    'head-cropped',
    tone,
    tone === 'look' ? 0.6 : 0.97,
    tone === 'clear' ? { code: 'nose-in-picture' } : { code: 'nose-at-edge' },
    toPhoto(0, pattern.widthMm / 2),
  );
}

/** How near to the picture's edge a fish counts as cut off by it, cells of the view. */
const REACH_CELLS = 3;

export function tailCropped({ fish, pose, toPhoto }: SeenCatch, frame: Frame): Finding {
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
  const endMm = view.fromXMm + piece.toColumn / view.cellsPerMm;
  const middleMm = view.fromYMm + (piece.fromRow + piece.toRow) / 2 / view.cellsPerMm;
  return findingOf('tail-cropped', cut ? 'fault' : 'clear', 0.96, cut ? { code: 'tail-at-edge' } : { code: 'tail-in-picture' }, toPhoto(endMm, middleMm)); // prettier-ignore
}

export function steepCamera(tiltDeg: number, limitDeg: number): Finding {
  const tone = tiltDeg > limitDeg + 0.5 ? 'fault' : tiltDeg > limitDeg - 1 ? 'look' : 'clear';
  return findingOf(
    'steep-camera',
    tone,
    tone === 'look' ? 0.6 : 0.97,
    { code: 'camera-tilt', tiltDeg, limitDeg },
    null,
    { value: tiltDeg, unit: 'deg' },
  );
}
