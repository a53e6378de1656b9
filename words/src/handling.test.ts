import { describe, expect, it } from 'vitest';
import type { Handling, WaterStep } from '@lauta/core/care';
import { handlingWords } from './handling.ts';
import { stopwatch } from './care.ts';

const handling = (taps: [WaterStep, number][], change: Partial<Handling> = {}): Handling => ({
  events: taps.map(([step, seconds]) => ({ step, atMs: 1000 * seconds })),
  airLimitSeconds: 6,
  guessedMassG: null,
  waterCelsius: null,
  airCelsius: null,
  hookPlace: null,
  bleeds: false,
  signs: {},
  ...change,
});
const valueOf = (of: Handling, term: string): string | undefined =>
  handlingWords(of, 'Europe/Warsaw', 'centimetre').lines.find((line) => line.term === term)?.value;
const signalsOf = (of: Handling): string[] =>
  handlingWords(of, 'Europe/Warsaw', 'centimetre').signals.map(({ words }) => words);
const CATCH: [WaterStep, number][] = [['hooked', 0], ['netted', 95], ['lifted', 140], ['returned', 146], ['released', 200]]; // prettier-ignore

describe('the record of a fish’s treatment', () => {
  it('tells what was tapped, and nothing else', () => {
    expect(handlingWords(handling(CATCH), 'Europe/Warsaw', 'centimetre').lines).toEqual([
      { term: 'fight', value: '1:35' },
      { term: 'out of the water', value: '0:06' },
      { term: 'rest in the net', value: '1:39' },
      { term: 'from first tap to last', value: '3:20' },
      // 200 s after the epoch, an hour east of Greenwich.
      { term: 'released at', value: '01:03:20' },
    ]);
  });

  it('a lift at exactly the limit is not over it, a second more is', () => {
    expect(signalsOf(handling(CATCH))).toEqual(['no lift over 6 s']);
    const longer: [WaterStep, number][] = [['lifted', 0], ['returned', 7]]; // prettier-ignore
    expect(signalsOf(handling(longer))).toEqual(['a lift was over 6 s']);
  });

  it('a lift that nobody ended is never called short', () => {
    const open = handling([['hooked', 0], ['lifted', 30]]); // prettier-ignore
    expect(valueOf(open, 'out of the water')).toBe('not ended');
    expect(signalsOf(open)).toEqual(['the end of a lift was not tapped']);
  });

  it('a fish that never left the water says so', () => {
    const wet = handling([['hooked', 0], ['netted', 60], ['released', 90]]); // prettier-ignore
    expect(valueOf(wet, 'out of the water')).toBe('never');
    expect(signalsOf(wet)).toEqual([]);
  });

  it('counts lifts from the second on, and tells what it left with', () => {
    const twice: [WaterStep, number][] = [['netted', 0], ['lifted', 30], ['returned', 35], ['lifted', 70], ['returned', 74], ['released', 90]]; // prettier-ignore
    const told = handling(twice, { leftWith: ['hook', 'lost-scales'] });
    expect(valueOf(told, 'lifts')).toBe('2');
    expect(valueOf(told, 'rest in the net')).toBe('1:21');
    expect(valueOf(told, 'left with')).toBe('hook left in, lost scales');
    expect(valueOf(handling(twice), 'left with')).toBeUndefined();
  });

  it('hook, blood, temperatures and signs stand in it as they were seen', () => {
    const told = handling(CATCH, {
      hookPlace: 'deep',
      bleeds: true,
      waterCelsius: 0,
      airCelsius: -1.5,
      signs: { upright: 'no', gills: 'doubtful', fins: 'yes' },
    });
    expect(valueOf(told, 'hook')).toBe('deep');
    expect(valueOf(told, 'wound')).toBe('bleeding');
    // Nought is a temperature.
    expect(valueOf(told, 'water')).toBe('0.0 °C');
    expect(valueOf(told, 'air')).toBe('-1.5 °C');
    const us = handlingWords(told, 'Europe/Warsaw', 'quarter-inch').lines;
    expect(us.find(({ term }) => term === 'water')?.value).toBe('32 °F');
    expect(valueOf(told, 'Its gill covers beat evenly.')).toBe('unsure');
    expect(valueOf(told, 'It pulls or bites down.')).toBeUndefined();
    expect(signalsOf(told)).toContain('it left weak');
  });

  it('a mended time is marked', () => {
    const events = [
      { step: 'lifted', atMs: 0 },
      { step: 'returned', atMs: 6000, tappedAtMs: 300_000 },
    ] as const;
    expect(signalsOf(handling([], { events }))).toEqual(['no lift over 6 s', 'a time was mended by hand']);
  });
});

describe('a stopwatch', () => {
  it.each([[0, '0:00'], [999, '0:00'], [1000, '0:01'], [59_999, '0:59'], [60_000, '1:00'], [3_725_000, '62:05']])('shows %i ms as %s', (ms, words) => { expect(stopwatch(ms)).toBe(words); }); // prettier-ignore
});
