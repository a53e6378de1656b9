import type { VerdictId } from '../ids.ts';

/** What a catch is marked with as it comes in: why it may not count, or what a judge looks at first. */
export type CatchMark =
  | 'before-lines-in'
  | 'after-lines-out'
  | 'no-session'
  | 'species-not-listed'
  | 'board-not-approved'
  | 'by-tape'
  | 'taken-outside'
  | 'no-person-picture'
  | 'captured-after-heard'
  | 'far-over-reading';

export type CatchState = 'undecided' | 'answered' | 'sent-back' | 'accepted' | 'refused' | 'withdrawn';

interface LastVerdict {
  verdictId: VerdictId;
  decision: { kind: 'accepted' | 'refused' | 'sent-back' | 'reopened' };
}

/** Where a catch stands, from its withdrawal, its last verdict and the answers to that verdict. */
export function catchState(
  withdrawn: boolean,
  last: LastVerdict | undefined,
  answers: readonly { verdictId: VerdictId }[],
): CatchState {
  if (withdrawn) return 'withdrawn';
  if (!last || last.decision.kind === 'reopened') return 'undecided';
  if (last.decision.kind !== 'sent-back') return last.decision.kind;
  return answers.some((answer) => answer.verdictId === last.verdictId) ? 'answered' : 'sent-back';
}

/** What nobody believes before a judge has looked. */
const NEEDS_JUDGE: ReadonlySet<CatchMark> = new Set(['captured-after-heard', 'far-over-reading']);

export const needsJudge = (marks: readonly CatchMark[]): boolean =>
  marks.some((mark) => NEEDS_JUDGE.has(mark));
