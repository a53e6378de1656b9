import { findingOf, type Finding } from '../findings/findings.ts';
import { projectBoardPoint, type LensPose } from '../camera/lens.ts';
import type { Pattern } from '../find-board/pattern.ts';
import type { Point } from '../geometry/point.ts';
import type { Check } from './check.ts';
import { insidePx, type Frame } from './frame.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';

/** Nose and stop are what a length begins with. */
export const headCropped: Check<'board'> = {
  ids: ['head-cropped'],
  live: 'nose',
  judge: ({ pose, pattern, nosePx, frame, toPhoto }) => [
    headCroppedFinding(pose, pattern, nosePx, frame, toPhoto),
  ],
};

/** @param nose px of the searched picture; null when no fish was found */
export function headCroppedFinding(
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
