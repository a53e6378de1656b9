import { describe, expect, it } from 'vitest';
import type { ClockPhase } from '@lauta/core/care';
import { isProposalDue, isShotAgain, stageOf, type WaterFacts } from './stage.ts';

const CLOCK_PHASES: readonly ClockPhase[] = ['idle', 'fight', 'net', 'air', 'over'];
const FACTS: WaterFacts = {
  phase: 'net',
  isTaped: false,
  hasDraft: true,
  isDraftSent: false,
  isReshooting: false,
};
const DUE = { isClaimed: false, isBursting: false, isFaultless: false };

describe('the stage', () => {
  it('is the bench once there is a photograph to claim by', () => {
    expect(stageOf(FACTS)).toBe('bench');
  });

  it.each([
    ['the fish is in the air: its clock comes first', { phase: 'air' }],
    ['its claim is with the outbox', { isDraftSent: true }],
    ['it is shot again', { isReshooting: true }],
    ['nothing was photographed', { hasDraft: false }],
  ] as const)('is the clock where %s', (_why, part) => {
    expect(stageOf({ ...FACTS, ...part })).toBe('clock');
  });

  it('is the tape as long as one reads it, whatever else there is', () => {
    for (const phase of CLOCK_PHASES) expect(stageOf({ ...FACTS, phase, isTaped: true })).toBe('tape');
  });
});

describe('the best frame', () => {
  const facts = { ...FACTS, hasDraft: false };

  it('goes to the bench in each phase but in the air', () => {
    for (const phase of CLOCK_PHASES)
      expect(isProposalDue({ ...facts, phase }, DUE), phase).toBe(phase !== 'air');
  });

  it('waits for the end of the burst unless nothing is wrong with it', () => {
    expect(isProposalDue(facts, { ...DUE, isBursting: true })).toBe(false);
    expect(isProposalDue(facts, { ...DUE, isBursting: true, isFaultless: true })).toBe(true);
  });

  it('never takes the place of another, nor of a fish that is claimed, nor while one shoots again', () => {
    expect(isProposalDue({ ...facts, hasDraft: true }, DUE)).toBe(false);
    expect(isProposalDue(facts, { ...DUE, isClaimed: true })).toBe(false);
    expect(isProposalDue({ ...facts, isReshooting: true }, DUE)).toBe(false);
  });
});

describe('shooting again', () => {
  it('ends with the next lift', () => {
    expect(isShotAgain(null, 0)).toBe(false);
    expect(isShotAgain(1, 1)).toBe(true);
    expect(isShotAgain(1, 2)).toBe(false);
  });
});
