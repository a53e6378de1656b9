import { readFileSync, readdirSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readRuleSheet, ruleSheetSchema } from './index.ts';

const fixtures = new URL('./fixtures/', import.meta.url);
const read = (name: string) =>
  JSON.parse(readFileSync(new URL(name, fixtures), 'utf8')) as Record<string, unknown>;

describe('stored rule sheets', () => {
  it.each(readdirSync(fixtures).filter((name) => name.startsWith('rule-sheet')))(
    '%s is still read',
    (name) => {
      expect(readRuleSheet(read(name))).toMatchObject({ schemaVersion: 1, bagLimit: 5 });
    },
  );
});

describe('a rule sheet is refused', () => {
  const sheet = read('rule-sheet.v1.json');
  it.each([
    ['no species', { species: [] }],
    [
      'the same species twice',
      { species: [(sheet['species'] as unknown[])[0], (sheet['species'] as unknown[])[0]] },
    ],
    ['no board where length counts', { boards: [] }],
    [
      'a weight without the rules of the scale',
      { measure: { kind: 'weight', step: 'ounce', rounding: 'down' } },
    ],
    [
      'a slot that ends before it begins',
      {
        species: [
          {
            id: 'bass',
            name: 'Bass',
            minimumSteps: null,
            counts: true,
            slot: { step: 'quarter-inch', fromSteps: 60, underSteps: 60, allowed: 1 },
          },
        ],
      },
    ],
    ['a bag of none', { bagLimit: 0 }],
    ['a lift of no time', { airSeconds: 0 }],
    ['half a fish', { bagLimit: 2.5 }],
    ['an unknown step', { measure: { kind: 'length', step: 'cubit', rounding: 'down' } }],
    ['an unknown field', { surprise: true }],
    [
      'a deduction of nothing',
      { penalties: [{ infraction: 'mouth-open', penalty: { kind: 'deduction', steps: 0 } }] },
    ],
    [
      'an infraction outside of the catalogue',
      { penalties: [{ infraction: 'bad-luck', penalty: { kind: 'disqualification' } }] },
    ],
  ])('%s', (_, change) => {
    expect(ruleSheetSchema.safeParse({ ...sheet, ...change }).success).toBe(false);
  });
});
