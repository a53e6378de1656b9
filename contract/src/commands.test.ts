import { NO_EXIF } from '@lauta/core/file-evidence';
import { describe, expect, it } from 'vitest';
import { commandSchema, exifView, setUpSchema } from './index.ts';

const id = (n: number): string => `0190c1d2-0000-7000-8000-${String(n).padStart(12, '0')}`;
const envelope = {
  v: 1,
  commandId: id(1),
  eventId: id(2),
  madeAt: '2026-06-14T10:00:00.000Z',
  deviceId: id(3),
};
const claim = {
  catchId: id(4),
  entrantId: id(5),
  speciesId: 'bass',
  captured: { at: '2026-06-14T09:30:00.000Z', source: 'photograph' },
  photographs: [{ photographId: id(6), role: 'board' }],
  measurement: {
    kind: 'board',
    measurementId: id(7),
    photographId: id(6),
    boardId: 'birch-30in',
    marks: { corners: [[1, 2], [3, 4], [5, 6], [7, 8]], nose: [1, 1], tail: [2, 2] }, // prettier-ignore
  },
  claimedSteps: 62,
  identifierCode: ' t4kx ',
};
const parse = (kind: string, body: unknown) => commandSchema.safeParse({ ...envelope, kind, body });
const paths = (kind: string, body: unknown) =>
  parse(kind, body).error?.issues.map((issue) => issue.path.join('.'));

describe('a claim', () => {
  it('is understood, its code in capitals', () => {
    expect(parse('catch.claim', claim).data).toMatchObject({ body: { identifierCode: 'T4KX' } });
  });

  it.each<[string, object, string]>([
    ['without a photograph', { photographs: [] }, 'body.photographs'],
    ['measured on a photograph that is not its own', { photographs: [{ photographId: id(9), role: 'board' }] }, 'body.measurement.photographId'],
    ['of less than nothing', { claimedSteps: -1 }, 'body.claimedSteps'],
    ['of half a step', { claimedSteps: 61.5 }, 'body.claimedSteps'],
    ['caught at no time', { captured: { at: 'at noon', source: 'typed' } }, 'body.captured.at'],
    ['measured by eye', { measurement: { kind: 'eye' } }, 'body.measurement.kind'],
    ['with three corners', { measurement: { ...claim.measurement, marks: { ...claim.measurement.marks, corners: [[1, 2], [3, 4], [5, 6]] } } }, 'body.measurement.marks.corners'],
    ['with a corner at infinity', { measurement: { ...claim.measurement, marks: { ...claim.measurement.marks, nose: [Infinity, 0] } } }, 'body.measurement.marks.nose.0'],
  ])('%s is refused by the field', (_what, change, path) => {
    expect(paths('catch.claim', { ...claim, ...change })).toContain(path);
  }); // prettier-ignore
});

describe('a claim’s handling', () => {
  const handling = {
    events: [
      { step: 'hooked', atMs: 1000 },
      { step: 'lifted', atMs: 1000 },
      { step: 'returned', atMs: 7000, tappedAtMs: 90_000 },
    ],
    airLimitSeconds: 6,
    guessedMassG: null,
    waterCelsius: -0.5,
    airCelsius: null,
    hookPlace: null,
    bleeds: false,
    signs: {},
  };
  const refused = (change: object): string[] | undefined =>
    paths('catch.claim', { ...claim, handling: { ...handling, ...change } });

  it('may be missing, or told with two taps at one moment', () => {
    expect(paths('catch.claim', claim)).toBeUndefined();
    expect(refused({})).toBeUndefined();
    expect(refused({ events: [] })).toBeUndefined();
  });

  it.each<[string, object, string]>([
    ['times that run backwards', { events: [...handling.events].reverse() }, 'body.handling.events'],
    ['half a millisecond', { events: [{ step: 'hooked', atMs: 0.5 }] }, 'body.handling.events.0.atMs'],
    ['eighty-one taps', { events: Array.from({ length: 81 }, () => handling.events[0]) }, 'body.handling.events'],
    ['a limit of no length', { airLimitSeconds: -1 }, 'body.handling.airLimitSeconds'],
    ['a fish of no mass', { guessedMassG: 0 }, 'body.handling.guessedMassG'],
    ['water that boils', { waterCelsius: 100 }, 'body.handling.waterCelsius'],
    ['a hook in the fin’s shadow', { hookPlace: 'shadow' }, 'body.handling.hookPlace'],
    ['a field that nobody knows', { mood: 'good' }, 'body.handling'],
  ])('with %s is refused by the field', (_what, change, path) => {
    expect(refused(change)).toContain(path);
  }); // prettier-ignore
});

describe('a decision', () => {
  const decide = (decision: unknown) =>
    parse('catch.judge', { catchId: id(4), verdictId: id(8), replaces: null, decision });

  it.each([
    { kind: 'accepted', steps: 62, infractions: ['mouth-open'], note: '' },
    { kind: 'refused', infractions: [], reason: 'No card.' },
    { kind: 'sent-back', request: 'Another frame.' },
    { kind: 'reopened' },
  ])('%j is understood', (decision) => {
    expect(decide(decision).success).toBe(true);
  });

  it.each([
    ['a refusal without a reason', { kind: 'refused', infractions: [], reason: '  ' }],
    ['a request for nothing', { kind: 'sent-back', request: '' }],
    ['an infraction outside of the catalogue', { kind: 'accepted', steps: 1, infractions: ['bad-luck'], note: '' }],
    ['words without end', { kind: 'refused', infractions: [], reason: 'x'.repeat(501) }],
  ])('%s is refused', (_what, decision) => {
    expect(decide(decision).success).toBe(false);
  }); // prettier-ignore
});

describe('a new event', () => {
  const day = { date: '2026-06-14', sessions: [{ linesInLocal: '2026-06-14T06:00', linesOutLocal: '2026-06-14T15:00' }] }; // prettier-ignore
  const event = { eventId: id(2), name: 'Event', zone: 'Europe/Warsaw', isPublic: true, days: [day] };

  it.each<[string, object, string]>([
    ['without a day', { days: [] }, 'body.days'],
    ['on a day that is none', { days: [{ ...day, date: '2026-02-30' }] }, 'body.days.0.date'],
    ['whose lines are out before they are in', { days: [{ ...day, sessions: [{ linesInLocal: '2026-06-14T15:00', linesOutLocal: '2026-06-14T06:00' }] }] }, 'body.days.0.sessions.0.linesOutLocal'],
    ['without a name', { name: '   ' }, 'body.name'],
  ])('%s is refused by the field', (_what, change, path) => {
    expect(paths('event.create', { ...event, ...change })).toContain(path);
  }); // prettier-ignore
});

describe('people', () => {
  it('have their address in small letters', () => {
    const added = parse('people.add', { accountId: id(4), name: 'A', email: 'Some.One@Lake.example', roles: ['judge'] }); // prettier-ignore
    expect(added.data).toMatchObject({ body: { email: 'some.one@lake.example' } });
  });

  it('who set an installation up choose a password that is not short', () => {
    expect(setUpSchema.safeParse({ name: 'A', email: 'a@b.example', password: '123456789' }).success).toBe(
      false,
    );
    expect(setUpSchema.safeParse({ name: 'A', email: 'a@b.example', password: '1234567890' }).success).toBe(
      true,
    );
  });
});

describe('what is shown of a file’s own word', () => {
  it('says that there is a place, and never which', () => {
    const shown = exifView({ ...NO_EXIF, position: { latitude: 51.0521, longitude: 19.0184 } });
    expect(shown.hasPosition).toBe(true);
    expect(JSON.stringify(shown)).not.toContain('51.05');
    expect(exifView(NO_EXIF).hasPosition).toBe(false);
  });
});
