import { describe, expect, it } from 'vitest';
import {
  WATER_STEPS,
  clockOf,
  mainStep,
  filledIn,
  mended,
  nextSteps,
  returnedInTime,
  tapped,
  untapped,
  type WaterEvent,
  type WaterStep,
} from './catchClock.ts';

/** Taps at given seconds. */
const taps = (...list: [WaterStep, number][]): WaterEvent[] =>
  list.map(([step, seconds]) => ({ step, atMs: 1000 * seconds }));
const CATCH = taps(['hooked', 0], ['netted', 95], ['lifted', 140], ['returned', 146], ['lifted', 200], ['returned', 205], ['released', 260]); // prettier-ignore

describe('the clock of a catch', () => {
  it('adds up a day worked by hand', () => {
    expect(clockOf(CATCH, 999_000)).toEqual({
      phase: 'over',
      fightMs: 95_000,
      restMs: null,
      lifts: [
        { fromMs: 140_000, toMs: 146_000 },
        { fromMs: 200_000, toMs: 205_000 },
      ],
      airNowMs: null,
      airTotalMs: 11_000,
      restTotalMs: 154_000,
      totalMs: 260_000,
      isMended: false,
    });
  });

  it.each([
    [1, 60, 'fight', { fightMs: 60_000, airNowMs: null, restMs: null }],
    [2, 110, 'net', { fightMs: 95_000, restMs: 15_000 }],
    [3, 143, 'air', { airNowMs: 3000, airTotalMs: 3000, restMs: null }],
    [4, 176, 'net', { airNowMs: null, airTotalMs: 6000, restMs: 30_000 }],
    [5, 204, 'air', { airNowMs: 4000, airTotalMs: 10_000 }],
  ] as const)('after %i taps at %i s it is in the phase "%s"', (count, seconds, phase, times) => {
    expect(clockOf(CATCH.slice(0, count), 1000 * seconds)).toMatchObject({ phase, ...times });
  });

  it('is idle before the first tap', () => {
    expect(clockOf([], 5000)).toMatchObject({ phase: 'idle', fightMs: null, totalMs: 0, lifts: [] });
  });

  it('goes on where steps were skipped: a fish swung aboard, or only lifted', () => {
    const swung = taps(['hooked', 0], ['lifted', 40], ['released', 48]);
    expect(clockOf(swung, 99_000)).toMatchObject({ fightMs: 40_000, airTotalMs: 8000, phase: 'over' });
    expect(clockOf(taps(['lifted', 3]), 9000)).toMatchObject({ fightMs: null, airNowMs: 6000 });
  });

  it('never runs backwards when the device’s clock is set back', () => {
    const set = tapped(taps(['hooked', 100]), 'netted', 40_000);
    expect(set.ok && set.events.at(-1)?.atMs).toBe(100_000);
    expect(clockOf(taps(['hooked', 100]), 40_000)).toMatchObject({ totalMs: 0, fightMs: 0 });
  });
});

describe('a tap', () => {
  it('in the wrong order is refused by name, and changes nothing', () => {
    for (const step of ['returned', 'released'] as const)
      expect(tapped([], step, 0)).toEqual({ ok: false, code: 'wrong-order' });
    expect(tapped(CATCH, 'lifted', 0)).toEqual({ ok: false, code: 'wrong-order' });
  });

  it('twice in a row is refused: a double tap starts no second lift', () => {
    for (const step of WATER_STEPS) {
      const before = tapped(taps(['hooked', 0]), step, 1000);
      if (before.ok) expect(tapped(before.events, step, 1200)).toEqual({ ok: false, code: 'wrong-order' });
    }
  });

  it('can be undone', () => {
    expect(untapped(CATCH.slice(0, 3))).toEqual(CATCH.slice(0, 2));
    expect(untapped([])).toEqual([]);
  });

  it('ends a catch that got away', () => {
    expect(nextSteps(taps(['hooked', 0], ['lost', 9]))).toEqual([]);
  });
});

describe('the order of the work', () => {
  it('is hook-up, net, lift, water, release, and nothing after that', () => {
    const order: WaterStep[] = [];
    for (let events: WaterEvent[] = []; ;) {
      const step = mainStep(events);
      if (!step) break;
      order.push(step);
      events = [...events, { step, atMs: 1000 * order.length }];
    }
    expect(order).toEqual(['hooked', 'netted', 'lifted', 'returned', 'released']);
    expect(mainStep(taps(['hooked', 0], ['lost', 5]))).toBeNull();
  });

  it('never proposes a step that a tap would refuse', () => {
    for (const step of WATER_STEPS) {
      const events = taps([step, 0]);
      const main = mainStep(events);
      if (main) expect(nextSteps(events)).toContain(main);
    }
  });
});

describe('a lift whose end nobody tapped', () => {
  const lifted = taps(['hooked', 0], ['lifted', 100]);

  it('is ended at its limit, marked, with the moment at which it was noticed', () => {
    const events = returnedInTime(lifted, 300_000, 6);
    expect(events.at(-1)).toEqual({ step: 'returned', atMs: 106_000, tappedAtMs: 300_000 });
    expect(clockOf(events, 400_000)).toMatchObject({ phase: 'net', airTotalMs: 6000, isMended: true });
  });

  it('is never ended later than it was noticed', () => {
    expect(returnedInTime(lifted, 103_000, 6).at(-1)?.atMs).toBe(103_000);
    expect(returnedInTime(lifted, 50_000, 6).at(-1)?.atMs).toBe(100_000);
  });

  it('is asked for only while a lift lasts', () => {
    expect(() => returnedInTime(CATCH, 0, 6)).toThrow(RangeError);
  });
});

describe('a time mended afterwards', () => {
  it('is marked, keeps what the tap gave, and stays between its neighbours', () => {
    const forgotten = taps(['lifted', 0], ['returned', 300]);
    const set = mended(forgotten, 1, 8000);
    if (!set.ok) throw new Error(set.code);
    expect(clockOf(set.events, 400_000)).toMatchObject({ airTotalMs: 8000, isMended: true });
    expect(set.events[1]).toEqual({ step: 'returned', atMs: 8000, tappedAtMs: 300_000 });
    const again = mended(set.events, 1, 9000);
    expect(again.ok && again.events[1]?.tappedAtMs).toBe(300_000);
    expect(mended(CATCH, 2, 94_000)).toEqual({ ok: false, code: 'out-of-order' });
    expect(mended(CATCH, 2, 95_000).ok && mended(CATCH, 2, 146_000).ok).toBe(true);
    expect(() => mended(CATCH, 7, 0)).toThrow(RangeError);
  });
});

describe('a step filled in afterwards', () => {
  const skipped: WaterEvent[] = [
    { step: 'hooked', atMs: 0 },
    { step: 'lifted', atMs: 90_000 },
    { step: 'returned', atMs: 95_000 },
  ];

  it('lies between the others by its time, and tells when it was filled in', () => {
    const found = filledIn(skipped, 'netted', 60_000, 120_000);
    expect(found.ok && found.events.map(({ step }) => step)).toEqual([
      'hooked',
      'netted',
      'lifted',
      'returned',
    ]);
    expect(found.ok && found.events[1]).toEqual({ step: 'netted', atMs: 60_000, tappedAtMs: 120_000 });
    expect(found.ok && clockOf(found.events, 120_000)).toMatchObject({ fightMs: 60_000, isMended: true });
  });

  it.each([
    ['net', 'netted', 92_000],
    ['second hook-up', 'hooked', 97_000],
    ['release before the lift', 'released', 50_000],
  ] as const)('is refused where a %s can’t be', (_, step, atMs) => {
    expect(filledIn(skipped, step, atMs, 120_000)).toEqual({ ok: false, code: 'wrong-order' });
  });

  it('is refused for what has not happened yet', () => {
    expect(filledIn(skipped, 'released', 130_000, 120_000)).toEqual({ ok: false, code: 'not-yet' });
  });
});
