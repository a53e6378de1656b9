import { describe, expect, it } from 'vitest';
import { CLOCK_SLACK_MS } from '../file-evidence/index.ts';
import type { RuleSheet } from '../rules/index.ts';
import { claimMarks, isInSession, type ClaimFacts } from './claimMarks.ts';

const SHEET: RuleSheet = {
  schemaVersion: 1,
  title: '',
  measure: { kind: 'length', step: 'quarter-inch', rounding: 'down' },
  bagLimit: 5,
  bagPeriod: 'event',
  species: [{ id: 'largemouth-bass', name: 'Largemouth bass', minimumSteps: null, counts: true }],
  boards: ['birch-30in'],
  penalties: [],
  tieBreaks: [],
};
const board = { kind: 'board', boardId: 'birch-30in', apparentMm: 381, sigmaMm: 1 } as const;
const FACTS: ClaimFacts = {
  sheet: SHEET,
  when: 'in-session',
  speciesId: 'largemouth-bass',
  claimedSteps: 60,
  reading: board,
  isFromOutside: false,
  hasPersonPicture: false,
  capturedAtMs: 1000,
  heardAtMs: 1000,
};

describe('the marks of a claim', () => {
  it('are none for a fish on an approved board within the hours', () => {
    expect(claimMarks(FACTS)).toEqual([]);
  });

  it.each([
    ['before-lines-in', { when: 'before-lines-in' }],
    ['after-lines-out', { when: 'after-lines-out' }],
    ['no-session', { when: 'no-session' }],
    ['species-not-listed', { speciesId: 'other' }],
    ['by-tape', { reading: { kind: 'tape', apparentMm: 381, sigmaMm: 3 } }],
    ['board-not-approved', { reading: { ...board, boardId: 'slate-80cm' } }],
    ['taken-outside', { isFromOutside: true }],
    ['no-person-picture', { sheet: { ...SHEET, personPicture: true } }],
  ] as const)('%s', (mark, part) => {
    expect(claimMarks({ ...FACTS, ...part })).toEqual([mark]);
  });

  it('ask for no picture with the person where there is one', () => {
    expect(
      claimMarks({ ...FACTS, sheet: { ...SHEET, personPicture: true }, hasPersonPicture: true }),
    ).toEqual([]);
  });

  it('allow the clocks’ slack between capture and hearing, and no more', () => {
    const heardAtMs = 5000;
    expect(claimMarks({ ...FACTS, heardAtMs, capturedAtMs: heardAtMs + CLOCK_SLACK_MS })).toEqual([]);
    expect(claimMarks({ ...FACTS, heardAtMs, capturedAtMs: heardAtMs + CLOCK_SLACK_MS + 1 })).toEqual(['captured-after-heard']); // prettier-ignore
    expect(claimMarks({ ...FACTS, heardAtMs: null, capturedAtMs: 1e15 })).toEqual([]);
  });

  it('bear a slip of an inch over the reading, or of five sigmas where those are more', () => {
    // 381 mm are 15 in, 60 quarters; an inch more is 64.
    expect(claimMarks({ ...FACTS, claimedSteps: 64 })).toEqual([]);
    expect(claimMarks({ ...FACTS, claimedSteps: 65 })).toEqual(['far-over-reading']);
    const unsure = { ...board, sigmaMm: 10 };
    // Five sigmas are 50 mm: to 431 mm, 67 quarters.
    expect(claimMarks({ ...FACTS, reading: unsure, claimedSteps: 67 })).toEqual([]);
    expect(claimMarks({ ...FACTS, reading: unsure, claimedSteps: 68 })).toEqual(['far-over-reading']);
    const unread = { ...board, apparentMm: null, sigmaMm: null };
    expect(claimMarks({ ...FACTS, reading: unread, claimedSteps: 500 })).toEqual([]);
  });

  it('come in one order, whatever they are', () => {
    const all = claimMarks({
      ...FACTS,
      sheet: { ...SHEET, personPicture: true },
      when: 'no-session',
      speciesId: 'other',
      reading: { ...board, boardId: 'x' },
      isFromOutside: true,
      claimedSteps: 100,
      capturedAtMs: 1e12,
    });
    expect(all).toEqual(['no-session', 'species-not-listed', 'board-not-approved', 'taken-outside', 'captured-after-heard', 'far-over-reading', 'no-person-picture']); // prettier-ignore
    expect(isInSession(all)).toBe(false);
    expect(isInSession(all.slice(1))).toBe(true);
  });
});
