import { describe, expect, it } from 'vitest';
import { clockOf, mergedHandling, type Handling, type WaterEvent, type WaterStep } from './index.ts';

const START = Date.parse('2026-06-14T08:00:00Z');
/** Taps at so many seconds after the start. */
const taps = (...list: [WaterStep, number][]): WaterEvent[] =>
  list.map(([step, seconds]) => ({ step, atMs: START + 1000 * seconds }));
const handling = (events: WaterEvent[], change: Partial<Handling> = {}): Handling => ({
  events,
  airLimitSeconds: 6,
  guessedMassG: null,
  waterCelsius: null,
  airCelsius: null,
  hookPlace: null,
  bleeds: false,
  signs: {},
  ...change,
});
const merged = (...all: Handling[]): Handling =>
  mergedHandling(all.map((one) => ({ handling: one, clockOffsetMs: 0 })));
const seconds = ({ events }: Handling): string[] =>
  events.map(({ step, atMs }) => `${step} ${(atMs - START) / 1000}`);

const TIMER = handling(taps(['hooked', 0], ['netted', 60], ['lifted', 90], ['returned', 97], ['released', 150])); // prettier-ignore

describe('one catch, timed by two phones', () => {
  it('has one lift where both saw one, from the first that saw it begin to the last that saw it end', () => {
    const camera = handling(taps(['lifted', 91], ['returned', 99]));
    const one = merged(TIMER, camera);
    expect(seconds(one)).toEqual(['hooked 0', 'netted 60', 'lifted 90', 'returned 99', 'released 150']);
    expect(clockOf(one.events, START).lifts).toHaveLength(1);
  });

  it('has two lifts where each saw another one', () => {
    const camera = handling(taps(['netted', 61], ['lifted', 120], ['returned', 126]));
    expect(seconds(merged(TIMER, camera))).toEqual([
      'hooked 0', 'netted 60', 'lifted 90', 'returned 97', 'lifted 120', 'returned 126', 'released 150',
    ]); // prettier-ignore
  });

  it('is the same whoever is told first', () => {
    const camera = handling(taps(['lifted', 91], ['returned', 99], ['released', 149]));
    expect(merged(camera, TIMER).events).toEqual(merged(TIMER, camera).events);
  });

  it('goes by the server’s time where a phone’s clock is two hours off', () => {
    const ahead = 2 * 3_600_000;
    const off = handling(
      taps(['lifted', 91], ['returned', 99]).map((one) => ({ ...one, atMs: one.atMs + ahead })),
    );
    const one = mergedHandling([
      { handling: TIMER, clockOffsetMs: 0 },
      { handling: off, clockOffsetMs: ahead },
    ]);
    expect(clockOf(one.events, START).lifts).toHaveLength(1);
    expect(clockOf(one.events, START).airTotalMs).toBe(9000);
  });

  it('ends a lift with the release where nobody tapped a return', () => {
    const camera = handling(taps(['lifted', 140], ['released', 150]));
    const one = merged(handling(taps(['hooked', 0], ['netted', 60])), camera);
    expect(seconds(one)).toEqual(['hooked 0', 'netted 60', 'lifted 140', 'released 150']);
    expect(clockOf(one.events, START).airTotalMs).toBe(10_000);
  });

  it('keeps what only one of them noted', () => {
    const one = merged(
      { ...TIMER, hookPlace: 'lip', signs: { upright: 'yes' } },
      handling([], { guessedMassG: 900, bleeds: true, leftWith: ['torn-jaw'], signs: { upright: 'doubtful', fins: 'yes' } }), // prettier-ignore
    );
    expect(one).toMatchObject({ hookPlace: 'lip', guessedMassG: 900, bleeds: true, leftWith: ['torn-jaw'] });
    expect(one.signs).toEqual({ upright: 'yes', fins: 'yes' });
  });

  it('is left as it is where only one phone told it', () => {
    expect(merged(TIMER)).toBe(TIMER);
    expect(() => mergedHandling([])).toThrow(RangeError);
  });
});
