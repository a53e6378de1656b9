import type { LengthMeasure, RuleSheet, WeightMeasure } from './index.ts';

/** A quarter-inch, two-fish sheet for tests. */
export function exampleSheet(change: Partial<RuleSheet<LengthMeasure>> = {}): RuleSheet<LengthMeasure> {
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

/** Pounds and ounces, five fish, of the small-mouthed kind three, and one fish in the slot. */
export function weightSheet(change: Partial<RuleSheet<WeightMeasure>> = {}): RuleSheet<WeightMeasure> {
  return {
    schemaVersion: 1,
    title: 'Test sheet of the scale',
    measure: { kind: 'weight', step: 'ounce', rounding: 'down' },
    bagLimit: 5,
    bagPeriod: 'day',
    species: [
      {
        id: 'largemouth-bass',
        name: 'Largemouth bass',
        minimumSteps: null,
        counts: true,
        minimumLength: { step: 'quarter-inch', steps: 48 },
        slot: { step: 'quarter-inch', fromSteps: 80, underSteps: 96, allowed: 1 },
      },
      { id: 'smallmouth-bass', name: 'Smallmouth bass', minimumSteps: null, counts: true, limit: 3 },
      { id: 'carp', name: 'Carp', minimumSteps: null, counts: false },
    ],
    boards: [],
    penalties: [],
    weighIn: {
      deadFish: { kind: 'deduction', steps: 4 },
      shortFish: { kind: 'not-counted', steps: 16 },
      overLimit: { penalty: { kind: 'not-counted', steps: 0 }, takenOut: 'largest' },
      late: { graceMinutes: 0, stepsPerMinute: 16, refusedAfterMinutes: 15 },
      deadMayBeCulled: false,
      twoPeople: true,
    },
    tieBreaks: ['biggest-fish', 'more-alive'],
    ...change,
  };
}
