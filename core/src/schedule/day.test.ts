import { describe, expect, it } from 'vitest';
import { dayAt, linesOutOfDay, resolveWallTime } from './index.ts';

const at = (local: string): number => {
  const resolved = resolveWallTime(local, 'Europe/Warsaw');
  if (!resolved.ok) throw new Error(resolved.code);
  return resolved.instantMs;
};
const session = (dayId: string, from: string, to: string) => ({
  sessionId: `${dayId} ${from}`,
  dayId,
  linesInMs: at(from),
  linesOutMs: at(to),
});

/** Two nights, each over midnight; in the first the clocks go back (29 October 2023, at 03:00). */
const NIGHTS = [
  session('first', '2023-10-28T20:00', '2023-10-29T05:00'),
  session('second', '2023-10-29T20:00', '2023-10-30T05:00'),
];
/** Two days with two sessions each. */
const DAYS = [
  session('first', '2026-06-13T06:00', '2026-06-13T10:00'),
  session('first', '2026-06-13T13:00', '2026-06-13T17:00'),
  session('second', '2026-06-14T06:00', '2026-06-14T10:00'),
];

describe('the day of an instant', () => {
  it.each([
    ['in the first night before midnight', NIGHTS, '2023-10-28T23:59', 'first'],
    ['at one in the first night, though the date is the second’s', NIGHTS, '2023-10-29T01:00', 'first'],
    ['at its lines-out', NIGHTS, '2023-10-29T05:00', 'first'],
    ['in the morning after it, at the weigh-in', NIGHTS, '2023-10-29T08:00', 'first'],
    ['in the afternoon before the second', NIGHTS, '2023-10-29T16:00', 'second'],
    ['at one in the second night', NIGHTS, '2023-10-30T01:00', 'second'],
    ['between two sessions of a day', DAYS, '2026-06-13T11:00', 'first'],
    ['in the evening', DAYS, '2026-06-13T20:00', 'first'],
    ['early in the morning', DAYS, '2026-06-14T04:00', 'second'],
    ['before all', DAYS, '2026-06-01T12:00', 'first'],
    ['after all', DAYS, '2026-07-01T12:00', 'second'],
  ] as const)('%s', (_what, sessions, local, day) => {
    expect(dayAt(sessions, at(local))).toBe(day);
  });

  it('is none where there are no sessions', () => {
    expect(dayAt([], 0)).toBeNull();
  });
});

describe('lines-out of a day', () => {
  it('is the end of its last session', () => {
    expect(linesOutOfDay(DAYS, 'first')).toBe(at('2026-06-13T17:00'));
  });

  it('never comes on a day without sessions', () => {
    expect(linesOutOfDay(DAYS, 'third')).toBe(Infinity);
  });
});
