import type { RuleSheet } from './index.ts';

/** A quarter-inch, two-fish sheet for tests. */
export function exampleSheet(change: Partial<RuleSheet> = {}): RuleSheet {
  return {
    schemaVersion: 1,
    title: 'Test sheet',
    measure: { kind: 'length', step: 'quarter-inch', rounding: 'down' },
    bagLimit: 2,
    bagPeriod: 'event',
    species: [
      { id: 'bass', name: 'Bass', minimumSteps: 40, counts: true },
      { id: 'carp', name: 'Carp', minimumSteps: null, counts: false },
      { id: 'perch', name: 'Perch', minimumSteps: null, counts: true },
    ],
    boards: ['birch-30in'],
    penalties: [
      { infraction: 'mouth-open', penalty: { kind: 'deduction', steps: 1 } },
      { infraction: 'tail-held', penalty: { kind: 'deduction', steps: 4 } },
      { infraction: 'identifier-missing', penalty: { kind: 'disqualification' } },
    ],
    tieBreaks: ['biggest-fish', 'next-biggest', 'earliest-completion'],
    ...change,
  };
}
