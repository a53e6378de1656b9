import { describe, expect, it } from 'vitest';
import { exampleSheet, weightSheet } from './exampleSheet.test-data.ts';
import {
  applyPenalties,
  bagLimits,
  fitsLimits,
  isInSlot,
  isShort,
  stepsOutlook,
  stepsReached,
  upcastRuleSheet,
  versionInForce,
  waysToLose,
} from './index.ts';

describe('a rule sheet', () => {
  it('rounds a measured length by its own step and rounding', () => {
    const { measure } = exampleSheet();
    expect(stepsReached(measure, 387.3)).toBe(60);
    expect(stepsReached({ ...measure, rounding: 'nearest' }, 387.3)).toBe(61);
  });

  it('adds up deductions, names disqualifications and notes what it does not punish', () => {
    const sum = applyPenalties(exampleSheet(), [
      'mouth-open',
      'tail-held',
      'identifier-missing',
      'eye-covered',
    ]);
    expect(sum).toEqual({
      deductionSteps: 5,
      disqualifiedBy: ['identifier-missing'],
      noted: ['eye-covered'],
    });
  });

  it('counts an infraction once, however often it is named', () => {
    expect(applyPenalties(exampleSheet(), ['mouth-open', 'mouth-open']).deductionSteps).toBe(1);
  });
});

describe('a stored sheet', () => {
  it('of the present version stays as it is', () => {
    const sheet = exampleSheet();
    expect(upcastRuleSheet(sheet)).toBe(sheet);
  });

  it.each([{ schemaVersion: 99 }, { schemaVersion: '1' }, {}, null, 7])('%j is refused', (stored) => {
    expect(() => upcastRuleSheet(stored)).toThrow(RangeError);
  });
});

describe('the version in force', () => {
  const published = [
    { version: 2, publishedAtMs: 200 },
    { version: 1, publishedAtMs: 100 },
  ];
  it.each([
    [99, 1],
    [100, 1],
    [199, 1],
    [200, 2],
    [201, 2],
  ])('at %d is version %d', (instantMs, version) => {
    expect(versionInForce(published, instantMs)).toBe(version);
  });

  it('is none while nothing is published', () => {
    expect(versionInForce([], 0)).toBeNull();
  });
});

describe('what an angler hears before letting the fish go', () => {
  const { measure } = exampleSheet();

  it('is the step reached, the margin over it and what the next one lacks', () => {
    const outlook = stepsOutlook(measure, 446.3, 0.6);
    expect(outlook).toMatchObject({ steps: 70, isSafe: true });
    // 17½ in is 444.5 mm, 17¾ in is 450.85 mm (25.4 mm an inch).
    expect(outlook.marginMm).toBeCloseTo(1.8, 9);
    expect(outlook.nextLacksMm).toBeCloseTo(4.55, 9);
  });

  it('is not safe within twice the uncertainty', () => {
    expect(stepsOutlook(measure, 444.5 + 1.21, 0.6).isSafe).toBe(true);
    expect(stepsOutlook(measure, 444.5 + 1.19, 0.6).isSafe).toBe(false);
  });

  it('goes by the half way where the sheet rounds to the nearest', () => {
    const outlook = stepsOutlook({ kind: 'length', step: 'centimetre', rounding: 'nearest' }, 434.9, 0.5);
    expect(outlook.steps).toBe(43);
    expect(outlook.marginMm).toBeCloseTo(9.9, 9);
    expect(outlook.nextLacksMm).toBeCloseTo(0.1, 9);
  });
});

describe('the ways to lose a fish’s points', () => {
  const sheet = exampleSheet();

  it('are ten at most, what disqualifies first, deductions by their size', () => {
    const dear = {
      ...sheet,
      penalties: [
        ...(['identifier-missing', 'screen-photo', 'wrong-board', 'tail-held', 'more-fish', 'nose-gap', 'eye-covered'] as const).map((infraction) => ({ infraction, penalty: { kind: 'disqualification' } as const })),
        { infraction: 'mouth-open', penalty: { kind: 'deduction', steps: 1 } } as const,
        { infraction: 'hand-in-gills', penalty: { kind: 'deduction', steps: 4 } } as const,
      ],
    }; // prettier-ignore
    const ways = waysToLose(dear);
    expect(ways).toHaveLength(10);
    expect(ways[0]).toMatchObject({ penalty: { kind: 'disqualification' } });
    const deductions = ways.flatMap((way) =>
      way.kind === 'infraction' && way.penalty.kind === 'deduction' ? [way.penalty.steps] : [],
    );
    expect(deductions).toEqual([4, 1]);
    expect(ways.map(({ kind }) => kind)).toContain('outside-hours');
  });

  it('leave out what the sheet does not know', () => {
    const plain = {
      ...sheet,
      penalties: [],
      species: [{ id: 'bass', name: 'Bass', minimumSteps: null, counts: true }],
    };
    expect(waysToLose(plain).map(({ kind }) => kind)).toEqual([
      'outside-hours',
      'board-not-approved',
      'over-limit',
    ]);
  });
});

describe('limits of a bag by weight', () => {
  const sheet = weightSheet();
  const [largemouth] = sheet.species;
  const fish = (speciesId: string, lengthMm: number | null = null) => ({ speciesId, lengthMm });
  const limits = bagLimits(sheet);

  it('hold each kind to its own, and all to the bag’s', () => {
    const three = Array.from({ length: 3 }, () => fish('smallmouth-bass'));
    expect(fitsLimits(limits, three, fish('smallmouth-bass'))).toBe(false);
    expect(fitsLimits(limits, three, fish('largemouth-bass'))).toBe(true);
    expect(fitsLimits(limits, [...three, fish('largemouth-bass'), fish('largemouth-bass')], fish('largemouth-bass'))).toBe(false); // prettier-ignore
  });

  it.each([
    [507.9, false],
    [508, true],
    [609.5, true],
    [609.6, false],
  ])('a bass of %d mm is in the slot of 20 to under 24 in: %s', (lengthMm, isIn) => {
    if (!largemouth) throw new Error('expected a kind');
    expect(isInSlot(largemouth, lengthMm)).toBe(isIn);
    expect(fitsLimits(limits, [fish('largemouth-bass', 550)], fish('largemouth-bass', lengthMm))).toBe(!isIn);
  });

  it.each([
    [304.7, true],
    [304.8, false],
    [null, false],
  ])('a bass of %s mm is short of 12 in: %s', (lengthMm, short) => {
    if (!largemouth) throw new Error('expected a kind');
    expect(isShort(largemouth, lengthMm)).toBe(short);
  });
});
