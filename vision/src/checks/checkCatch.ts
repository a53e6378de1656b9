import type { Finding } from '../findings/findings.ts';
import type { Quad } from '../geometry/point.ts';
import { seeDarkMouth } from './darkMouth.ts';
import { seeEye } from './eye.ts';
import { handFindings, seeReaching, type ReachingThing } from './hand.ts';
import { viewHead } from './headView.ts';
import { curledFinding, dorsalFinding } from './posture.ts';
import { mouthFinding, seeMouth } from './mouth.ts';
import { noseFinding, seeNose } from './nose.ts';
import type { SeenCatch } from './seenCatch.ts';
import { contactFinding, moreFishFinding, seeFront } from './otherObjects.ts';

export interface Checked {
  findings: Finding[];
  /** What reaches in over the edges. */
  things: readonly ReachingThing[];
  /** At the stop, where the head should be. */
  isEyeSeen: boolean;
  noseGapMm: number | null;
  mouthGapMm: number | null;
}

/**
 * Everything that is asked of a fish on a board.
 * @param cardsMm cards that were read, board coordinates
 */
export function checkCatch(seen: SeenCatch, cardsMm: readonly Quad[]): Checked {
  const head = viewHead(seen);
  const nose = seeNose(seen, head);
  const things = seeReaching(seen);
  const eye = seeEye(head, seen.farMm);
  const mouth = mouthFinding(
    seen,
    seeMouth(head, seen.farMm, eye?.side),
    seeDarkMouth(head, seen.farMm, eye?.side),
  );
  return {
    findings: [
      noseFinding(seen, nose, head.axisMm),
      mouth,
      curledFinding(seen),
      dorsalFinding(seen, eye),
      ...handFindings(seen, things, head, eye !== null),
      contactFinding(seen, seeFront(head, seen.farMm), nose, head.axisMm),
      moreFishFinding(seen, cardsMm),
    ],
    things,
    isEyeSeen: eye !== null,
    noseGapMm: nose && Math.max(0, nose.gapMm),
    mouthGapMm: mouth.measure?.value ?? null,
  };
}
