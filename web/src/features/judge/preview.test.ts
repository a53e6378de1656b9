import { describe, expect, it } from 'vitest';
import type { CatchView, DecisionInput } from '@lauta/contract';
import type { LengthSheet } from '@lauta/core/rules';
import { previewScore, standingDecision } from './preview.ts';

const sheet: LengthSheet = {
  schemaVersion: 1,
  title: 'Sheet',
  measure: { kind: 'length', step: 'quarter-inch', rounding: 'down' },
  bagLimit: 5,
  bagPeriod: 'event',
  species: [{ id: 'bass', name: 'Bass', minimumSteps: 48, counts: true }],
  boards: ['birch-30in'],
  penalties: [
    { infraction: 'mouth-open', penalty: { kind: 'deduction', steps: 1 } },
    { infraction: 'tail-held', penalty: { kind: 'deduction', steps: 4 } },
    { infraction: 'identifier-missing', penalty: { kind: 'disqualification' } },
  ],
  tieBreaks: [],
};

function caught(change: Partial<CatchView> = {}): CatchView {
  return {
    catchId: 'c',
    entrant: { entrantId: 'e', number: 1, name: 'E' },
    speciesId: 'bass',
    ruleVersion: 1,
    dayId: 'd',
    claimedSteps: 62,
    capturedAt: '2026-06-14T10:00:00Z',
    marks: [],
    verdicts: [],
    ...change,
  } as unknown as CatchView;
}

describe('what a judge sees before deciding', () => {
  it('is the score with the deductions picked', () => {
    expect(previewScore(sheet, caught(), 62, []).scoreSteps).toBe(62);
    expect(previewScore(sheet, caught(), 62, ['mouth-open', 'tail-held']).scoreSteps).toBe(57);
  });

  it('is nothing for an infraction that disqualifies, or under the minimum', () => {
    expect(previewScore(sheet, caught(), 62, ['identifier-missing']).notCounting).toBe('disqualified');
    expect(previewScore(sheet, caught(), 47, []).notCounting).toBe('under-minimum');
    expect(previewScore(sheet, caught(), 48, []).notCounting).toBeNull();
  });

  it('counts a catch out of hours once it is accepted', () => {
    expect(previewScore(sheet, caught({ marks: ['after-lines-out'] }), 62, []).notCounting).toBeNull();
  });
});

describe('the decision that stands', () => {
  const verdict = (decision: DecisionInput) => ({
    verdictId: 'v',
    seq: 1,
    decidedAt: '',
    judge: '',
    decision,
  });
  const accepted: DecisionInput = { kind: 'accepted', steps: 62, infractions: [], note: '' };

  it('is the last one', () => {
    const refused: DecisionInput = { kind: 'refused', infractions: [], reason: 'No card.' };
    expect(standingDecision(caught({ verdicts: [verdict(accepted), verdict(refused)] }))).toEqual(refused);
  });

  it('is none before any, and after one was taken back', () => {
    expect(standingDecision(caught())).toBeNull();
    expect(
      standingDecision(caught({ verdicts: [verdict(accepted), verdict({ kind: 'reopened' })] })),
    ).toBeNull();
  });
});
