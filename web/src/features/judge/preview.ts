import type { CatchView, DecisionInput } from '@lauta/contract';
import { isInSession } from '@lauta/core/catch';
import type { Infraction, LengthSheet } from '@lauta/core/rules';
import { scoreFish, type FishScore } from '@lauta/core/scoring';

/** What the catch would score if it were accepted like this: the very function that the standings use. */
export function previewScore(
  sheet: LengthSheet,
  caught: CatchView,
  steps: number,
  infractions: readonly Infraction[],
): FishScore {
  return scoreFish(sheet, {
    catchId: caught.catchId,
    entrantId: caught.entrant.entrantId,
    speciesId: caught.speciesId,
    ruleVersion: caught.ruleVersion,
    dayId: caught.dayId,
    claimedSteps: caught.claimedSteps,
    capturedAtMs: Date.parse(caught.capturedAt),
    inSession: isInSession(caught.marks),
    withdrawn: false,
    decision: { kind: 'accepted', steps, infractions },
  });
}

/** The decision that stands at present, if one does. */
export function standingDecision(caught: CatchView): DecisionInput | null {
  const last = caught.verdicts.at(-1)?.decision ?? null;
  return last?.kind === 'reopened' ? null : last;
}
