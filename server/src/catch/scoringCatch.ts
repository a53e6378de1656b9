import { needsJudge } from '@lauta/core/catch';
import type { Decision } from '@lauta/core/scoring';
import type { CatchRecord, Verdict } from './catchStore.ts';

/** A verdict as scoring sees it. */
export function decisionOf(last: Verdict | undefined): Decision | null {
  switch (last?.decision.kind) {
    case 'accepted':
      return { kind: 'accepted', steps: last.decision.steps, infractions: last.decision.infractions };
    case 'refused':
      return { kind: 'refused' };
    case 'sent-back':
      return { kind: 'sent-back' };
    default:
      return null;
  }
}

export function scoringCatch(record: CatchRecord, last: Verdict | undefined) {
  return {
    catchId: record.catchId,
    entrantId: record.entrantId,
    speciesId: record.speciesId,
    ruleVersion: record.ruleVersion,
    dayId: record.dayId,
    claimedSteps: record.claimedSteps,
    capturedAtMs: record.capturedAt.getTime(),
    inSession: record.inSession,
    withdrawn: record.withdrawnAt !== null,
    needsJudge: needsJudge(record.marks),
    decision: decisionOf(last),
  };
}
