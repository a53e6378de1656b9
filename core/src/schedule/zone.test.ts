import { describe, expect, it } from 'vitest';
import { isKnownZone, placeInSchedule, resolveWallTime, wallTimeOf } from './index.ts';

const utc = (text: string) => Date.parse(text);
const resolved = (local: string, zone: string) => {
  const result = resolveWallTime(local, zone);
  return result.ok ? new Date(result.instantMs).toISOString() : result.code;
};

// Rules of summer time: IANA tz database, as ICU and Node carry it (EU: last Sundays of March and October, 01:00 UTC).
describe('a wall time in a zone', () => {
  it.each([
    ['2026-06-14T06:00', 'Europe/Warsaw', '2026-06-14T04:00:00.000Z'],
    ['2026-01-14T06:00', 'Europe/Warsaw', '2026-01-14T05:00:00.000Z'],
    ['2026-06-14T06:00', 'Australia/Lord_Howe', '2026-06-13T19:30:00.000Z'],
    ['2026-03-29T01:59', 'Europe/Warsaw', '2026-03-29T00:59:00.000Z'],
    ['2026-03-29T03:00', 'Europe/Warsaw', '2026-03-29T01:00:00.000Z'],
    ['2026-03-08T03:00', 'America/Chicago', '2026-03-08T08:00:00.000Z'],
  ])('%s in %s is %s', (local, zone, instant) => {
    expect(resolved(local, zone)).toBe(instant);
  });

  it('that the spring change skips is refused', () => {
    expect(resolved('2026-03-29T02:30', 'Europe/Warsaw')).toBe('wall-time-skipped');
    expect(resolved('2026-03-08T02:00', 'America/Chicago')).toBe('wall-time-skipped');
  });

  it('that the autumn change shows twice is the first of the two, and said to be', () => {
    const result = resolveWallTime('2026-10-25T02:30', 'Europe/Warsaw');
    expect(result).toEqual({ ok: true, instantMs: utc('2026-10-25T00:30:00Z'), repeated: true });
    expect(resolveWallTime('2026-10-25T03:00', 'Europe/Warsaw')).toMatchObject({ repeated: false });
  });

  it.each([
    ['2026-06-14T06:00', 'Mars/Olympus', 'unknown-zone'],
    ['2026-02-30T06:00', 'Europe/Warsaw', 'not-a-wall-time'],
    ['2026-06-14 06:00', 'Europe/Warsaw', 'not-a-wall-time'],
    ['2026-06-14T24:00', 'Europe/Warsaw', 'not-a-wall-time'],
  ])('%s in %s is refused: %s', (local, zone, code) => {
    expect(resolved(local, zone)).toBe(code);
  });

  it('comes back from its instant, with the offset of that night', () => {
    expect(wallTimeOf(utc('2026-10-25T00:30:00Z'), 'Europe/Warsaw')).toEqual({
      local: '2026-10-25T02:30:00',
      offset: '+02:00',
    });
    expect(wallTimeOf(utc('2026-10-25T01:30:00Z'), 'Europe/Warsaw')).toEqual({
      local: '2026-10-25T02:30:00',
      offset: '+01:00',
    });
    expect(wallTimeOf(utc('2026-06-14T04:00:00Z'), 'America/St_Johns')).toEqual({
      local: '2026-06-14T01:30:00',
      offset: '-02:30',
    });
  });

  it('knows zones by their IANA names', () => {
    expect(isKnownZone('Europe/Warsaw')).toBe(true);
    expect(isKnownZone('Nowhere/Else')).toBe(false);
  });
});

describe('a session over midnight and over a clock change', () => {
  const at = (local: string): number => {
    const result = resolveWallTime(local, 'Europe/Warsaw');
    if (!result.ok) throw new Error(result.code);
    return result.instantMs;
  };
  const night = {
    sessionId: 'night',
    dayId: 'saturday',
    linesInMs: at('2026-10-24T22:00'),
    linesOutMs: at('2026-10-25T04:00'),
  };

  it('lasts an hour longer than the clock on the wall shows', () => {
    expect(night.linesOutMs - night.linesInMs).toBe(7 * 3_600_000);
  });

  it('holds both of the half past twos, and belongs to the day on which it began', () => {
    for (const instant of ['2026-10-25T00:30:00Z', '2026-10-25T01:30:00Z']) {
      expect(placeInSchedule([night], utc(instant))).toEqual({
        kind: 'in-session',
        sessionId: 'night',
        dayId: 'saturday',
      });
    }
  });
});
