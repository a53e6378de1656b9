import { describe, expect, it } from 'vitest';
import type { EventView } from '@lauta/contract';
import { dayClock } from './dayClock.ts';

const session = (seq: number, date: string) => ({
  sessionId: `s${seq}`,
  dayId: `d${seq}`,
  seq: 1,
  linesInLocal: `${date}T06:00`,
  linesOutLocal: `${date}T15:00`,
  linesInAt: `${date}T04:00:00Z`,
  linesOutAt: `${date}T13:00:00Z`,
});
const event = {
  eventId: 'e',
  name: 'Event',
  zone: 'Europe/Warsaw',
  isPublic: true,
  eventCode: 'ABCD',
  days: [
    { dayId: 'd1', seq: 1, date: '2026-06-13', codesFrom: null },
    { dayId: 'd2', seq: 2, date: '2026-06-14', codesFrom: null },
  ],
  sessions: [session(1, '2026-06-13'), session(2, '2026-06-14')],
  officialAt: null,
  ruleVersion: 1,
  entrants: 0,
  catches: 0,
  undecided: 0,
} satisfies EventView;
const at = (instant: string) => dayClock(event, Date.parse(instant));

describe('the event’s clock', () => {
  it('runs towards lines-out within a session', () => {
    expect(at('2026-06-14T10:46:00Z')).toMatchObject({
      day: 'day 2 of 2',
      label: 'to lines-out',
      value: '2 h 14 min',
    });
    expect(at('2026-06-14T08:30:00Z').nowShare).toBeCloseTo(0.5, 9);
  });

  it('waits for the next session at night', () => {
    expect(at('2026-06-13T20:00:00Z')).toMatchObject({ day: 'day 2 of 2', label: 'to lines-in', value: '8 h 0 min', nowShare: 0 }); // prettier-ignore
  });

  it('stands at the end when all is over', () => {
    expect(at('2026-06-20T00:00:00Z')).toMatchObject({ label: 'lines are out', nowShare: 1 });
  });

  it('is ruled by the hours of the event’s own zone', () => {
    expect(at('2026-06-14T10:46:00Z').hours.map((mark) => mark.hour)).toEqual(
      '6 7 8 9 10 11 12 13 14 15'.split(' '),
    );
  });

  it('has nothing to show without a session', () => {
    expect(dayClock({ ...event, sessions: [] }, 0)).toMatchObject({ label: 'no session', nowShare: null });
  });
});
