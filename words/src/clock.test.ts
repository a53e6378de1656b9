import { describe, expect, it } from 'vitest';
import { clockTime, dayAndTime, dayWords, duration, spanWords } from './clock.ts';

describe('times of an event', () => {
  // Warsaw keeps UTC+2 in June and UTC+1 in December (IANA time zone database).
  it('are told in its zone, summer and winter', () => {
    expect(clockTime('2026-06-14T10:46:07Z', 'Europe/Warsaw')).toBe('12:46');
    expect(clockTime('2026-06-14T10:46:07Z', 'Europe/Warsaw', true)).toBe('12:46:07');
    expect(clockTime('2026-12-14T10:46:07Z', 'Europe/Warsaw')).toBe('11:46');
    expect(dayAndTime('2026-06-14T22:30:00Z', 'Europe/Warsaw')).toBe('15 June, 00:30');
  });

  it('write midnight as 00, never as 24', () => {
    expect(clockTime('2026-06-14T00:00:00Z', 'UTC', true)).toBe('00:00:00');
  });

  it('know the day of a date whatever the zone of the machine', () => {
    expect(dayWords('2026-06-01')).toBe('1 June');
    expect(dayWords('2026-12-31')).toBe('31 December');
    expect(dayWords('')).toBe('');
  });

  it.each([
    [59_999, 'under a minute'],
    [14 * 60_000, '14 min'],
    [134 * 60_000, '2 h 14 min'],
  ])('%i ms last %s', (ms, words) => {
    expect(duration(ms)).toBe(words);
  });

  it('tell a short span to the second', () => {
    expect([4000, 119_000, 600_000, 7_500_000].map(spanWords)).toEqual([
      '4 s',
      '119 s',
      '10 min',
      '2 h 5 min',
    ]);
  });
});
