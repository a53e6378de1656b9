import { expect, it } from 'vitest';
import { placeInSchedule, type SessionTimes } from './index.ts';

const SESSIONS: SessionTimes[] = [
  { sessionId: 's1', dayId: 'd1', linesInMs: 1000, linesOutMs: 2000 },
  { sessionId: 's2', dayId: 'd2', linesInMs: 5000, linesOutMs: 6000 },
];

it.each([
  [999, { kind: 'before-lines-in', dayId: 'd1', byMs: 1 }],
  [1000, { kind: 'in-session', sessionId: 's1', dayId: 'd1' }],
  [2000, { kind: 'in-session', sessionId: 's1', dayId: 'd1' }],
  [2001, { kind: 'after-lines-out', dayId: 'd1', byMs: 1 }],
  [4000, { kind: 'before-lines-in', dayId: 'd2', byMs: 1000 }],
  [6001, { kind: 'after-lines-out', dayId: 'd2', byMs: 1 }],
])('a capture at %d is placed', (instantMs, place) => {
  expect(placeInSchedule(SESSIONS, instantMs)).toEqual(place);
});

it('without sessions nothing is in session', () => {
  expect(placeInSchedule([], 5)).toEqual({ kind: 'no-sessions' });
});
