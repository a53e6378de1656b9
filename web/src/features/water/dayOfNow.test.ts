import { describe, expect, it } from 'vitest';
import type { EventView } from '@lauta/contract';
import { dayOfNow } from './dayOfNow.ts';

const event = {
  zone: 'Europe/Warsaw',
  days: [
    { dayId: 'first', seq: 1, date: '2026-06-13' },
    { dayId: 'second', seq: 2, date: '2026-06-14' },
  ],
} as unknown as EventView;
const on = (instant: string) => dayOfNow(event, Date.parse(instant))?.dayId;

describe('the day whose code is shown', () => {
  it('is today’s, by the clock of the event’s own zone', () => {
    expect(on('2026-06-13T21:59:00Z')).toBe('first');
    expect(on('2026-06-13T22:00:00Z')).toBe('second');
  });

  it('is the first before the event and the last after it', () => {
    expect(on('2026-06-01T00:00:00Z')).toBe('first');
    expect(on('2026-07-01T00:00:00Z')).toBe('second');
  });

  it('is none of an event without days', () => {
    expect(dayOfNow({ ...event, days: [] }, 0)).toBeNull();
  });
});
