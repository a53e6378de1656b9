import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exampleSheet } from '../rules/exampleSheet.test-data.ts';
import type { Infraction, RuleBook, RuleSheet } from '../rules/index.ts';
import { completedAtMs, fillBag, rankEntrants, scoreFish, type ScoringCatch } from './index.ts';

let serial = 0;
function caught(change: Partial<ScoringCatch> = {}): ScoringCatch {
  serial += 1;
  return {
    catchId: `catch-${String(serial).padStart(5, '0')}`,
    entrantId: 'a',
    speciesId: 'bass',
    ruleVersion: 1,
    dayId: 'day-1',
    claimedSteps: 60,
    capturedAtMs: serial * 60_000,
    inSession: true,
    withdrawn: false,
    decision: null,
    ...change,
  };
}
/** One version only. */
const bookOf = (sheet: RuleSheet): RuleBook => ({ current: sheet, versions: new Map([[1, sheet]]) });
const accepted = (steps: number, infractions: readonly Infraction[] = []) =>
  ({ kind: 'accepted', steps, infractions }) as const;

describe('one fish', () => {
  it.each([
    [39, 'under-minimum'],
    [40, null],
    [41, null],
  ])('of %d steps against a minimum of 40: %s', (claimedSteps, notCounting) => {
    expect(scoreFish(exampleSheet(), caught({ claimedSteps })).notCounting).toBe(notCounting);
  });

  it('keeps its place over the minimum when a deduction takes its score under it', () => {
    const score = scoreFish(exampleSheet(), caught({ decision: accepted(40, ['mouth-open']) }));
    expect(score).toMatchObject({ grossSteps: 40, deductionSteps: 1, scoreSteps: 39, notCounting: null });
  });

  it('never scores under zero', () => {
    const score = scoreFish(
      exampleSheet(),
      caught({ speciesId: 'perch', decision: accepted(2, ['tail-held']) }),
    );
    expect(score.scoreSteps).toBe(0);
  });

  it.each([
    ['refused', { decision: { kind: 'refused' } }],
    ['withdrawn', { withdrawn: true }],
    ['outside-session', { inSession: false }],
    ['species-unknown', { speciesId: 'kraken' }],
    ['species-not-counting', { speciesId: 'carp' }],
    ['disqualified', { decision: accepted(60, ['identifier-missing']) }],
  ] as const)('does not count: %s', (reason, change) => {
    expect(scoreFish(exampleSheet(), caught(change as Partial<ScoringCatch>)).notCounting).toBe(reason);
  });

  it('outside of the session counts once a judge accepted it all the same', () => {
    expect(
      scoreFish(exampleSheet(), caught({ inSession: false, decision: accepted(60) })).notCounting,
    ).toBeNull();
  });

  it('scores what the judge accepted, not what was claimed', () => {
    expect(scoreFish(exampleSheet(), caught({ claimedSteps: 61, decision: accepted(60) })).scoreSteps).toBe(
      60,
    );
  });

  it('sent back stays provisional', () => {
    expect(scoreFish(exampleSheet(), caught({ decision: { kind: 'sent-back' } })).standing).toBe(
      'provisional',
    );
  });
});

describe('the bag', () => {
  const scored = (sheet: RuleSheet, ...catches: ScoringCatch[]) =>
    catches.map((one) => scoreFish(sheet, one));

  it('holds the best fish up to the limit; the others are culled', () => {
    const sheet = exampleSheet();
    const bag = fillBag(
      sheet,
      scored(sheet, caught({ claimedSteps: 50 }), caught({ claimedSteps: 70 }), caught({ claimedSteps: 60 })),
    );
    expect(bag.counting.map((fish) => fish.scoreSteps)).toEqual([70, 60]);
    expect(bag.culled.map((fish) => fish.scoreSteps)).toEqual([50]);
    expect(bag.totalSteps).toBe(130);
  });

  it('is filled day by day where the sheet says so', () => {
    const sheet = exampleSheet({ bagPeriod: 'day', bagLimit: 1 });
    const bag = fillBag(
      sheet,
      scored(
        sheet,
        caught({ claimedSteps: 50 }),
        caught({ claimedSteps: 70 }),
        caught({ claimedSteps: 45, dayId: 'day-2' }),
      ),
    );
    expect(bag.totalSteps).toBe(115);
  });

  it('equals the best of all subsets of the limit (brute force)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 30, max: 90 }), { maxLength: 7 }),
        fc.integer({ min: 1, max: 4 }),
        (steps, bagLimit) => {
          const sheet = exampleSheet({ bagLimit });
          const bag = fillBag(sheet, scored(sheet, ...steps.map((claimedSteps) => caught({ claimedSteps }))));
          let best = 0;
          for (let mask = 0; mask < 1 << steps.length; mask++) {
            const chosen = steps.filter((_, i) => mask & (1 << i));
            if (chosen.length > bagLimit || chosen.some((one) => one < 40)) continue;
            best = Math.max(
              best,
              chosen.reduce((sum, one) => sum + one, 0),
            );
          }
          expect(bag.totalSteps).toBe(best);
        },
      ),
      { seed: 20261124 },
    );
  });

  it('keeps the limits of kinds and slots, and is the best of all legal subsets (brute force)', () => {
    // Of bass two, and of bass from 15 to under 20 in one; of perch as many as the bag holds.
    const sheet = exampleSheet({
      bagLimit: 4,
      species: [
        {
          id: 'bass',
          name: 'Bass',
          minimumSteps: null,
          counts: true,
          limit: 2,
          slot: { step: 'quarter-inch', fromSteps: 60, underSteps: 80, allowed: 1 },
        },
        { id: 'perch', name: 'Perch', minimumSteps: null, counts: true },
      ],
    });
    const isLegal = (fish: readonly ScoringCatch[]): boolean => {
      const bass = fish.filter(({ speciesId }) => speciesId === 'bass');
      const inSlot = bass.filter(({ claimedSteps }) => claimedSteps >= 60 && claimedSteps < 80);
      return fish.length <= 4 && bass.length <= 2 && inSlot.length <= 1;
    };
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('bass', 'perch'), fc.integer({ min: 30, max: 90 })), {
          maxLength: 9,
        }),
        (drawn) => {
          const fish = drawn.map(([speciesId, claimedSteps]) => caught({ speciesId, claimedSteps }));
          let best = 0;
          for (let mask = 0; mask < 1 << fish.length; mask++) {
            const chosen = fish.filter((_, i) => mask & (1 << i));
            if (isLegal(chosen))
              best = Math.max(
                best,
                chosen.reduce((sum, one) => sum + one.claimedSteps, 0),
              );
          }
          const bag = fillBag(sheet, scored(sheet, ...fish));
          expect(bag.totalSteps).toBe(best);
          expect(
            isLegal(fish.filter(({ catchId }) => bag.counting.some((one) => one.catchId === catchId))),
          ).toBe(true);
        },
      ),
      { seed: 20261127 },
    );
  });

  it('was complete when its last needed fish was caught, not when an equal one followed', () => {
    const sheet = exampleSheet();
    const fish = scored(
      sheet,
      caught({ claimedSteps: 60, capturedAtMs: 1000 }),
      caught({ claimedSteps: 50, capturedAtMs: 2000 }),
      caught({ claimedSteps: 60, capturedAtMs: 3000 }),
      caught({ claimedSteps: 60, capturedAtMs: 4000 }),
    );
    expect(completedAtMs(sheet, fillBag(sheet, fish))).toBe(3000);
  });
});

describe('the ranking', () => {
  const rank = (catches: ScoringCatch[], sheet = exampleSheet(), entrants = ['a', 'b', 'c']) =>
    rankEntrants(bookOf(sheet), entrants, catches, { include: 'all' });

  it('is a standard competition ranking: 15.25 14.5 14.5 12 12 12 9.75 gives 1 2 2 4 4 4 7', () => {
    // Same as R rank(-x, ties.method="min") and scipy.stats.rankdata(-x, method="min").
    const lengths = [61, 58, 58, 48, 48, 48, 39];
    const entrants = lengths.map((_, i) => `e${i}`);
    const catches = lengths.map((claimedSteps, i) =>
      caught({ entrantId: `e${i}`, claimedSteps, speciesId: 'perch', capturedAtMs: 5 }),
    );
    expect(rank(catches, exampleSheet(), entrants).map((one) => one.rank)).toEqual([1, 2, 2, 4, 4, 4, 7]);
  });

  it('breaks a tie by the biggest fish', () => {
    const [first, second] = rank([
      caught({ entrantId: 'a', claimedSteps: 60 }),
      caught({ entrantId: 'a', claimedSteps: 60 }),
      caught({ entrantId: 'b', claimedSteps: 70 }),
      caught({ entrantId: 'b', claimedSteps: 50 }),
    ]);
    expect(first).toMatchObject({
      entrantId: 'b',
      rank: 1,
      tieBreak: { rule: 'biggest-fish', entrantIds: ['a'] },
    });
    expect(second).toMatchObject({ entrantId: 'a', rank: 2 });
  });

  it('then by the next biggest', () => {
    const sheet = exampleSheet({ bagLimit: 3 });
    const fish = (entrantId: string, ...steps: number[]) =>
      steps.map((claimedSteps) => caught({ entrantId, claimedSteps }));
    const [first] = rank([...fish('a', 70, 50, 50), ...fish('b', 70, 55, 45)], sheet);
    expect(first).toMatchObject({ entrantId: 'b', tieBreak: { rule: 'next-biggest' } });
  });

  it('then by the capture that first completed the score', () => {
    const [first, second] = rank([
      caught({ entrantId: 'a', claimedSteps: 60, capturedAtMs: 1 }),
      caught({ entrantId: 'a', claimedSteps: 50, capturedAtMs: 9 }),
      caught({ entrantId: 'b', claimedSteps: 50, capturedAtMs: 2 }),
      caught({ entrantId: 'b', claimedSteps: 60, capturedAtMs: 8 }),
    ]);
    expect(first).toMatchObject({
      entrantId: 'b',
      tieBreak: { rule: 'earliest-completion', entrantIds: ['a'] },
    });
    expect(second?.rank).toBe(2);
  });

  it('shares the rank when every tie-break is equal', () => {
    const standings = rank([
      caught({ entrantId: 'a', claimedSteps: 60, capturedAtMs: 7 }),
      caught({ entrantId: 'b', claimedSteps: 60, capturedAtMs: 7 }),
    ]);
    expect(standings.map((one) => one.rank)).toEqual([1, 1, 3]);
    expect(standings[0]).toMatchObject({ sharedWith: ['b'], tieBreak: null });
  });

  it('tells official from provisional fish', () => {
    const catches = [caught({ claimedSteps: 60 }), caught({ claimedSteps: 61, decision: accepted(61) })];
    expect(rank(catches)[0]).toMatchObject({
      score: { measure: 'quarter-inch', steps: 121 },
      provisionalSteps: 60,
    });
    const [official] = rankEntrants(bookOf(exampleSheet()), ['a'], catches, { include: 'official' });
    expect(official?.score.steps).toBe(61);
  });

  it('does not depend on the order of catches or entrants', () => {
    const catches = Array.from({ length: 30 }, (_, i) =>
      caught({
        entrantId: 'abc'[i % 3] ?? 'a',
        claimedSteps: 40 + ((i * 7) % 5),
        capturedAtMs: (i * 13) % 11,
      }),
    );
    const expected = rank(catches);
    fc.assert(
      fc.property(fc.shuffledSubarray(catches, { minLength: 30 }), (shuffled) => {
        expect(rank(shuffled, exampleSheet(), ['c', 'a', 'b'])).toEqual(expected);
      }),
      { seed: 7, numRuns: 40 },
    );
  });
});

describe('a rule sheet that changes during the event', () => {
  const first = exampleSheet();
  const second = exampleSheet({
    species: [{ id: 'bass', name: 'Bass', minimumSteps: 70, counts: true }],
    bagLimit: 1,
  });
  const book: RuleBook = {
    current: second,
    versions: new Map([
      [1, first],
      [2, second],
    ]),
  };

  it('judges each fish by the version in force when it was caught, and fills the bag by the latest', () => {
    const catches = [
      caught({ catchId: 'early', claimedSteps: 60, ruleVersion: 1 }),
      caught({ catchId: 'also-early', claimedSteps: 55, ruleVersion: 1 }),
      caught({ catchId: 'late', claimedSteps: 65, ruleVersion: 2 }),
    ];
    const [standing] = rankEntrants(book, ['a'], catches, { include: 'all' });
    expect(standing?.bag.counting.map((fish) => fish.catchId)).toEqual(['early']);
    expect(standing?.bag.culled.map((fish) => fish.catchId)).toEqual(['also-early']);
    expect(standing?.bag.notCounting).toMatchObject([{ catchId: 'late', notCounting: 'under-minimum' }]);
  });

  it('refuses a version that was never published', () => {
    expect(() => rankEntrants(book, ['a'], [caught({ ruleVersion: 3 })], { include: 'all' })).toThrow(
      RangeError,
    );
  });
});
