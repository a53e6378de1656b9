import type { CatchMark, CatchState } from '@lauta/contract';
import type { Decision } from '@lauta/core/scoring';
import type { Answer, CatchRecord, Verdict } from './catchStore.ts';

/** Where a catch stands, from its withdrawal, its last verdict and the answers to that verdict. */
export function catchState(
  withdrawn: boolean,
  last: Verdict | undefined,
  answers: readonly Answer[],
): CatchState {
  if (withdrawn) return 'withdrawn';
  if (!last || last.decision.kind === 'reopened') return 'undecided';
  if (last.decision.kind !== 'sent-back') return last.decision.kind;
  return answers.some((answer) => answer.verdictId === last.verdictId) ? 'answered' : 'sent-back';
}

/** What nobody believes before a judge has looked. */
const NEEDS_JUDGE: ReadonlySet<CatchMark> = new Set(['captured-after-heard', 'far-over-reading']);

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
    needsJudge: record.marks.some((mark) => NEEDS_JUDGE.has(mark)),
    decision: decisionOf(last),
  };
}
