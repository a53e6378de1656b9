import { isStanding } from '../find-board/quarterTurn.ts';
import { findingOf, type Finding } from '../findings/findings.ts';
import { flareAt, type FishOutline } from '../find-fish/outline.ts';
import type { Quad } from '../geometry/point.ts';
import type { Check } from './check.ts';

export const facing: Check<'board'> = {
  ids: ['facing-right'],
  live: 'straight',
  judge: ({ corners, outline, isEyeSeen }) => [facingFinding(corners, outline, isEyeSeen)],
};

/**
 * Which way round the fish lies: a board the wrong way round in the picture, or a fish on it. Where the board stands in
 * the picture, left and right say nothing: turned so that its stop is at the left, it lies as it should.
 * @param isEyeSeen whether an eye is seen at the stop: then what widens there may be a head whose fish is half seen
 */
export function facingFinding(corners: Quad, outline: FishOutline | null, isEyeSeen = false): Finding {
  const check = 'facing-right';
  const [zeroFar, endFar] = corners;
  if (!isStanding(corners) && endFar[0] < zeroFar[0])
    return findingOf(check, 'fault', 0.97, { code: 'stop-at-right' }, zeroFar); // prettier-ignore
  if (!outline || outline.xMm.length < 12) return findingOf(check, 'clear', 0.6, { code: 'stop-in-place' });
  // A tail is wider than the wrist before it by half and more; a head narrows down to the nose.
  const far = flareAt(outline, 'far');
  const stop = flareAt(outline, 'stop');
  const reason = { code: 'tail-at-stop' } as const;
  if (far < 1.5 && stop > 1.5 && !isEyeSeen)
    return findingOf(check, 'fault', outline.handMm.length > 0 ? 0.75 : 0.88, reason, zeroFar);
  if (stop > far || (far < 1.5 && stop > 1.3)) return findingOf(check, 'look', 0.5, reason, zeroFar);
  return findingOf(check, 'clear', 0.9, isStanding(corners) ? { code: 'head-at-stop' } : { code: 'head-at-left' }); // prettier-ignore
}
