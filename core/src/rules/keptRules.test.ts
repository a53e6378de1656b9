import { describe, expect, it } from 'vitest';
import { keptRules, type RuleSheet } from './index.ts';

const sheet = (measure: RuleSheet['measure']): RuleSheet => ({
  schemaVersion: 1,
  title: 'Sheet',
  measure,
  bagLimit: 5,
  bagPeriod: 'event',
  species: [
    { id: 'bass', name: 'Bass', minimumSteps: 40, counts: true, minimumLength: { step: 'quarter-inch', steps: 48 } },
  ],
  boards: [],
  penalties: [],
  tieBreaks: [],
}); // prettier-ignore

describe('what a sheet promises', () => {
  it('by weight is each day’s bag, and a length from which a fish is kept', () => {
    const kept = keptRules(sheet({ kind: 'weight', step: 'ounce', rounding: 'down' }));
    expect(kept.bagPeriod).toBe('day');
    expect(kept.species[0]).toMatchObject({ minimumSteps: null, minimumLength: { steps: 48 } });
  });

  it('by length is the chosen bag, and one least length', () => {
    const kept = keptRules(sheet({ kind: 'length', step: 'quarter-inch', rounding: 'down' }));
    expect(kept.bagPeriod).toBe('event');
    expect(kept.species[0]).toMatchObject({ minimumSteps: 40 });
    expect(kept.species[0]).not.toHaveProperty('minimumLength');
  });

  it('is the same when asked again', () => {
    for (const measure of [{ kind: 'weight', step: 'ounce', rounding: 'down' }, { kind: 'length', step: 'inch', rounding: 'down' }] as const) {
      const once = keptRules(sheet(measure as RuleSheet['measure']));
      expect(keptRules(once)).toEqual(once);
    }
  }); // prettier-ignore
});
