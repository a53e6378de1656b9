import { describe, expect, it } from 'vitest';
import { instantOn } from './MendTimes.tsx';

const at = (iso: string): number => Date.parse(iso);

describe('a time that is typed to mend a tap', () => {
  it('lies on the date of the tap in the event’s zone, with or without seconds', () => {
    const tap = at('2026-06-14T10:41:07Z');
    // Summer time: two hours ahead of UTC.
    expect(instantOn(tap, '12:40:30', 'Europe/Warsaw')).toBe(at('2026-06-14T10:40:30Z'));
    expect(instantOn(tap, '12:40', 'Europe/Warsaw')).toBe(at('2026-06-14T10:40:00Z'));
  });

  it('goes by the local date where that is another than in UTC', () => {
    const tap = at('2026-06-14T22:30:00Z');
    expect(instantOn(tap, '00:10:00', 'Europe/Warsaw')).toBe(at('2026-06-14T22:10:00Z'));
  });

  it('that the clock change leaves out is no time', () => {
    // On 29 March 2026 clocks go from 02:00 to 03:00 in this zone (IANA tz database).
    expect(instantOn(at('2026-03-29T09:00:00Z'), '02:30:00', 'Europe/Warsaw')).toBeNull();
  });

  it.each(['', 'noon', '25:00:00'])('“%s” is no time', (typed) => {
    expect(instantOn(at('2026-06-14T10:00:00Z'), typed, 'Europe/Warsaw')).toBeNull();
  });
});
