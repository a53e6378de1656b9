import { describe, expect, it } from 'vitest';
import { ruleSheetSchema } from '@lauta/contract';
import type { RuleSheet } from '@lauta/core/rules';
import { restep } from './restep.ts';

const sheet: RuleSheet = {
  schemaVersion: 1,
  title: 'Sheet',
  measure: { kind: 'length', step: 'quarter-inch', rounding: 'down' },
  bagLimit: 5,
  bagPeriod: 'event',
  species: [
    { id: 'bass', name: 'Bass', minimumSteps: 48, counts: true },
    { id: 'carp', name: 'Carp', minimumSteps: null, counts: false },
  ],
  boards: ['birch-30in'],
  penalties: [
    { infraction: 'mouth-open', penalty: { kind: 'deduction', steps: 1 } },
    { infraction: 'identifier-missing', penalty: { kind: 'disqualification' } },
  ],
  tieBreaks: [],
};

describe('a sheet put into another step', () => {
  it('keeps its lengths: 12 in are 305 mm, a quarter inch is 6 mm (25.4 mm an inch)', () => {
    const metric = restep(sheet, 'millimetre');
    expect(metric.species.map((one) => one.minimumSteps)).toEqual([305, null]);
    expect(metric.penalties[0]?.penalty).toEqual({ kind: 'deduction', steps: 6 });
    expect(metric.penalties[1]?.penalty).toEqual({ kind: 'disqualification' });
  });

  it('never lets a deduction shrink to nothing', () => {
    expect(restep(sheet, 'centimetre').penalties[0]?.penalty).toEqual({ kind: 'deduction', steps: 1 });
  });

  it('by weight begins with the scale’s own rules, and they stay as heavy in another step', () => {
    const pounds = restep(sheet, 'ounce');
    expect(pounds).toMatchObject({ boards: [], penalties: [], weighIn: { deadFish: { steps: 4 } } });
    expect(ruleSheetSchema.safeParse(pounds).success).toBe(true);
    // A quarter pound is 113.4 g; a pound 453.6 g (453.59237 g, NIST SP 811).
    expect(restep(pounds, 'ten-gram').weighIn).toMatchObject({
      deadFish: { steps: 11 },
      late: { stepsPerMinute: 45 },
    });
    const back = restep(pounds, 'quarter-inch');
    expect(back.weighIn).toBeUndefined();
    expect(ruleSheetSchema.safeParse(back).success).toBe(true);
  });

  it('comes back as it was from a finer step', () => {
    expect(restep(restep(sheet, 'eighth-inch'), 'quarter-inch')).toEqual(sheet);
  });
});
