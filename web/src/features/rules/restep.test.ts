import { describe, expect, it } from 'vitest';
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

  it('comes back as it was from a finer step', () => {
    expect(restep(restep(sheet, 'eighth-inch'), 'quarter-inch')).toEqual(sheet);
  });
});
