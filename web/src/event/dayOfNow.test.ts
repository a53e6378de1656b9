import { describe, expect, it } from 'vitest';
import type { EventView } from '@lauta/contract';
import { areLinesOut } from '../features/well/troublesNow.ts';
import { dayOfNow } from './dayOfNow.ts';

/** Two nights over midnight. */
const event = {
  zone: 'Europe/Warsaw',
  days: [
    { dayId: 'first', seq: 1, date: '2026-06-13' },
    { dayId: 'second', seq: 2, date: '2026-06-14' },
    { dayId: 'third', seq: 3, date: '2026-06-15' },
  ],
  sessions: [
    { sessionId: 'a', dayId: 'first', linesInAt: '2026-06-13T18:00:00Z', linesOutAt: '2026-06-14T02:00:00Z' },
    {
      sessionId: 'b',
      dayId: 'second',
      linesInAt: '2026-06-14T18:00:00Z',
      linesOutAt: '2026-06-15T02:00:00Z',
    },
  ],
} as unknown as EventView;
const on = (instant: string) => dayOfNow(event, Date.parse(instant))?.dayId;

describe('the day whose code is shown', () => {
  it('is that of the session that runs, past midnight too', () => {
    expect(on('2026-06-13T20:00:00Z')).toBe('first');
    expect(on('2026-06-13T23:00:00Z')).toBe('first');
    expect(on('2026-06-14T23:00:00Z')).toBe('second');
  });

  it('is the first before the event and the last that is fished after it', () => {
    expect(on('2026-06-01T00:00:00Z')).toBe('first');
    expect(on('2026-07-01T00:00:00Z')).toBe('second');
  });

  it('is none of an event without days', () => {
    expect(dayOfNow({ ...event, days: [], sessions: [] }, 0)).toBeNull();
  });
});

describe('lines that are out', () => {
  it('are so after the day’s last session, and never on a day without one', () => {
    expect(areLinesOut(event, 'first', Date.parse('2026-06-14T02:00:00Z'))).toBe(false);
    expect(areLinesOut(event, 'first', Date.parse('2026-06-14T02:00:01Z'))).toBe(true);
    expect(areLinesOut(event, 'third', Date.parse('2027-01-01T00:00:00Z'))).toBe(false);
  });
});
