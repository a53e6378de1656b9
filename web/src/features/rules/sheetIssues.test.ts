import { describe, expect, it } from 'vitest';
import type { RuleSheet } from '@lauta/core/rules';
import { checkSheet, issueAt } from './sheetIssues.ts';

const SHEET: RuleSheet = {
  schemaVersion: 1,
  title: 'Rule sheet',
  measure: { kind: 'length', step: 'quarter-inch', rounding: 'down' },
  bagLimit: 5,
  bagPeriod: 'event',
  species: [{ id: 'largemouth-bass', name: 'Largemouth bass', minimumSteps: null, counts: true }],
  boards: ['birch-30in'],
  penalties: [],
  tieBreaks: [],
};
const issuesOf = (part: Partial<RuleSheet>) => {
  const checked = checkSheet({ ...SHEET, ...part });
  return checked.ok ? new Map<string, string>() : checked.issues;
};

describe('a rule sheet that is filled in', () => {
  it('is published as it stands', () => {
    expect(checkSheet(SHEET)).toEqual({ ok: true, sheet: SHEET });
  });

  it.each([
    ['title', { title: '  ' }, 'A title of 1 to 120 letters.'],
    ['bagLimit', { bagLimit: 0 }, 'From 1 to 50 fish.'],
    ['bagLimit', { bagLimit: NaN }, 'From 1 to 50 fish.'],
    ['bagLimit', { bagLimit: 51 }, 'From 1 to 50 fish.'],
    ['airSeconds', { airSeconds: 601 }, 'From 1 to 600 seconds, or empty.'],
    ['boards', { boards: [] }, 'Approve at least one board.'],
    ['species.0.name', { species: [{ id: 'x', name: '', minimumSteps: null, counts: true }] }, 'A name with letters or figures.'],
    ['species.0.id', { species: [{ id: '', name: '漁', minimumSteps: null, counts: true }] }, 'A name with letters or figures.'],
    ['species', { species: [...SHEET.species, ...SHEET.species] }, 'Each species stands here once.'],
    ['species.0.slot', { species: [{ id: 'x', name: 'x', minimumSteps: null, counts: true, slot: { step: 'quarter-inch', fromSteps: 60, underSteps: 48, allowed: 0 } }] }, 'A slot ends above where it begins.'],
  ] as const)('tells at %s what is wrong', (path, part, words) => {
    const issues = issuesOf(part as Partial<RuleSheet>);
    expect(issueAt(issues, path)).toBe(words);
    expect(issues.size).toBe(1);
  }); // prettier-ignore

  it('tells of every field at once, and of nothing that is right', () => {
    const issues = issuesOf({ title: '', bagLimit: 0 });
    expect([...issues.keys()].sort()).toEqual(['bagLimit', 'title']);
    expect(issueAt(issues, 'species')).toBeUndefined();
    expect(issueAt(issues, 'species.0.name')).toBeUndefined();
  });
});
