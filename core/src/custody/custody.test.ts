import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import {
  custodyFindings,
  firstFormer,
  keyIdOf,
  nextStatement,
  statementHash,
  type CaptureStatement,
  type CustodyCheck,
  type CustodyFacts,
  type DeviceKey,
  type ToldCapture,
} from './index.ts';

const EVENT = '0190c1d2-0000-7000-8000-000000000001';
const RUN = '0190c1d2-0000-7000-8000-0000000000aa';
const KEY = 'a'.repeat(64);
const OTHER_KEY = 'b'.repeat(64);
const NOON_MS = Date.parse('2026-06-14T10:00:00Z');
const MINUTE_MS = 60_000;
const sumOf = (n: number): string => n.toString(16).padStart(64, '0');
const catchOf = (n: number): string => `0190c1d2-0000-7000-8000-0000000001${n.toString().padStart(2, '0')}`;
const MERE = { latitude: 51.052, longitude: 19.018, accuracyM: 8 };

/** Captures 0, 1, 2 … of one phone, ten minutes apart, each of its own catch. */
function day(count = 3, change: (statement: CaptureStatement, i: number) => CaptureStatement = (one) => one) {
  const told: ToldCapture[] = [];
  for (let i = 0; i < count; i++) {
    const before = told.at(-1);
    const atMs = NOON_MS + i * 10 * MINUTE_MS;
    const statement = change(
      nextStatement(before ? { seq: before.statement.seq, hash: before.hash } : null, {
        captureId: catchOf(i + 50),
        eventId: EVENT,
        entrantId: catchOf(99),
        catchId: catchOf(i),
        keyId: KEY,
        kind: 'frame',
        photographSha256: sumOf(i),
        at: new Date(atMs).toISOString(),
        runId: RUN,
        monotonicMs: 5000 + i * 10 * MINUTE_MS,
        clockOffsetMs: 120,
        position: { ...MERE, at: new Date(atMs).toISOString() },
        identifierCode: 'K7M2',
      }),
      i,
    );
    told.push({ statement, hash: statementHash(statement), isSigned: true, heardAtMs: atMs + 20_000 });
  }
  return told;
}

const OWN_KEY: DeviceKey = {
  keyId: KEY,
  isOwn: true,
  isPartner: false,
  registeredAtMs: NOON_MS - 240 * MINUTE_MS,
  revokedAtMs: null,
  revokedWhy: null,
};

/** The facts of the third catch of a day without fault. */
function facts(change: Partial<CustodyFacts> = {}): CustodyFacts {
  return {
    eventId: EVENT,
    catchId: catchOf(2),
    photographs: [{ sha256: sumOf(2), isFromOutside: false }],
    identifierCode: 'K7M2',
    captures: day(),
    keys: [OWN_KEY],
    sessions: [{ fromMs: NOON_MS - 60 * MINUTE_MS, toMs: NOON_MS + 60 * MINUTE_MS }],
    placeOn: ({ latitude }) =>
      latitude > 51 && latitude < 51.1
        ? { where: 'open', name: 'the mere', awayM: 0 }
        : { where: 'outside', name: null, awayM: 5000 },
    heardAtMs: NOON_MS + 21 * MINUTE_MS,
    arrivedAtMs: NOON_MS + 25 * MINUTE_MS,
    announcedOtherwise: [],
    sameFileIn: 0,
    ...change,
  };
}
const named = (found: CustodyFacts): string[] =>
  custodyFindings(found)
    .filter(({ tone }) => tone !== 'clear')
    .map(({ check, tone }) => `${check} ${tone}`);

describe('the way of a photograph without fault', () => {
  it('is clear in every check that can be answered, and says when the server first heard of it', () => {
    const found = custodyFindings(facts());
    expect(found.filter(({ tone }) => tone !== 'clear')).toEqual([]);
    expect(found.map(({ check }) => check)).toEqual([
      'photograph-altered',
      'chain-broken',
      'clock-set-back',
      'device-clock-off',
      'device-time-outside',
      'identifier-otherwise',
      'device-place-missing',
      'device-place-outside',
      'device-too-far-too-soon',
      'first-heard',
    ]);
    expect(found.at(-1)?.reason).toMatchObject({ code: 'first-heard', afterCaptureMs: 20_120 });
  });

  it('begins a chain with the event and the key', () => {
    expect(named(facts({ catchId: catchOf(0), photographs: [{ sha256: sumOf(0), isFromOutside: false }] }))).toEqual([]); // prettier-ignore
    expect(firstFormer(KEY, EVENT)).not.toBe(firstFormer(OTHER_KEY, EVENT));
  });

  it('holds for each frame of a burst, whichever is claimed', () => {
    const sameCatch = day(12, (statement) => ({ ...statement, catchId: catchOf(2), at: new Date(NOON_MS + statement.seq * 100).toISOString(), monotonicMs: 5000 + statement.seq * 100 })); // prettier-ignore
    expect(named(facts({ captures: sameCatch, photographs: [{ sha256: sumOf(7), isFromOutside: false }] }))).toEqual([]); // prettier-ignore
  });
});

/** What was done to the day, and how it must be called. */
const TAMPERINGS: [string, () => CustodyFacts, CustodyCheck, 'look' | 'fault'][] = [
  ['the photograph altered', () => facts({ photographs: [{ sha256: sumOf(77), isFromOutside: false }] }), 'photograph-altered', 'fault'],
  ['a statement changed after it was signed', () => facts({ captures: day().map((one, i) => (i === 2 ? { ...one, isSigned: false } : one)) }), 'signature-broken', 'fault'],
  ['a capture removed', () => facts({ captures: day().filter((_, i) => i !== 1) }), 'capture-missing', 'fault'],
  ['the order changed', () => facts({ captures: reordered() }), 'chain-broken', 'fault'],
  ['two captures in one place', () => facts({ captures: [...day(), twin()] }), 'chain-broken', 'fault'],
  ['a capture before it rewritten', () => facts({ captures: day().map((one, i) => (i === 1 ? { ...one, hash: sumOf(9) } : one)) }), 'chain-broken', 'fault'],
  ['a chain that does not begin with the event', () => facts({ catchId: catchOf(0), photographs: [{ sha256: sumOf(0), isFromOutside: false }], captures: day(1, (one) => ({ ...one, former: sumOf(3) })) }), 'chain-broken', 'fault'],
  ['the clock set back', () => facts({ captures: day(3, (one, i) => (i === 2 ? { ...one, at: new Date(NOON_MS - 40 * MINUTE_MS).toISOString() } : one)) }), 'clock-set-back', 'fault'],
  ['the clock set forward', () => facts({ captures: day(3, (one, i) => (i === 2 ? { ...one, at: new Date(NOON_MS + 31 * MINUTE_MS).toISOString() } : one)), heardAtMs: NOON_MS + 50 * MINUTE_MS }), 'clock-set-back', 'fault'],
  ['the clock set back over a restart', () => facts({ captures: day(3, (one, i) => (i === 2 ? { ...one, runId: catchOf(1), at: new Date(NOON_MS - 40 * MINUTE_MS).toISOString() } : one)) }), 'clock-set-back', 'fault'],
  ['a restart over which the clock was not compared', () => facts({ captures: day(3, (one, i) => (i === 2 ? { ...one, runId: catchOf(1), clockOffsetMs: null } : one)) }), 'clock-restarted', 'look'],
  ['a clock two hours ahead', () => facts({ captures: ahead(120 * MINUTE_MS) }), 'device-clock-off', 'look'],
  ['a time after the server heard of it', () => facts({ captures: day(3, (one, i) => (i === 2 ? { ...one, at: new Date(NOON_MS + 55 * MINUTE_MS).toISOString() } : one)) }), 'device-clock-off', 'fault'],
  ['a time outside of the session', () => facts({ sessions: [{ fromMs: NOON_MS - 60 * MINUTE_MS, toMs: NOON_MS + 15 * MINUTE_MS }] }), 'device-time-outside', 'fault'],
  ['no position', () => facts({ captures: day(3, (one) => ({ ...one, position: null })) }), 'device-place-missing', 'look'],
  ['a position on another water', () => facts({ captures: day(3, (one, i) => (i === 2 ? { ...one, position: { ...MERE, latitude: 50.9, at: one.at } } : one)) }), 'device-place-outside', 'fault'],
  ['a position that cannot be reached', () => facts({ captures: day(3, (one, i) => (i === 2 ? { ...one, position: { ...MERE, latitude: 51.9, at: one.at } } : one)) }), 'device-too-far-too-soon', 'fault'],
  ['another code claimed', () => facts({ identifierCode: 'ZZ99' }), 'identifier-otherwise', 'fault'],
  ['a key that nobody registered', () => facts({ keys: [] }), 'key-unknown', 'fault'],
  ['another’s device', () => facts({ keys: [{ ...OWN_KEY, isOwn: false }] }), 'key-of-another', 'fault'],
  ['a device that was struck off', () => facts({ keys: [{ ...OWN_KEY, revokedAtMs: NOON_MS, revokedWhy: 'lost' }] }), 'key-revoked', 'fault'],
  ['a device registered afterwards', () => facts({ keys: [{ ...OWN_KEY, registeredAtMs: NOON_MS + 40 * MINUTE_MS }] }), 'key-late', 'look'],
  ['a second phone', () => facts({ captures: [...onSecond()], keys: [OWN_KEY, { ...OWN_KEY, keyId: OTHER_KEY }] }), 'second-phone', 'look'],
  ['a phone after one that was lost', () => facts({ captures: [...onSecond()], keys: [{ ...OWN_KEY, revokedAtMs: NOON_MS + 12 * MINUTE_MS, revokedWhy: 'lost' }, { ...OWN_KEY, keyId: OTHER_KEY }] }), 'key-lost', 'look'],
  ['a file that nobody signed', () => facts({ captures: [] }), 'unsigned', 'look'],
  ['a file that was signed when it was chosen', () => facts({ captures: day(3, (one, i) => (i === 2 ? { ...one, kind: 'file' } : one)) }), 'chosen-file', 'look'],
  ['a claim other than its announcement', () => facts({ announcedOtherwise: ['length'] }), 'claimed-otherwise', 'fault'],
  ['a file of another catch', () => facts({ sameFileIn: 1 }), 'claimed-twice', 'fault'],
]; // prettier-ignore

/** The last two captures changed places in time: their numbers did not. */
function reordered(): ToldCapture[] {
  const [first, second, third] = day() as [ToldCapture, ToldCapture, ToldCapture];
  return [first, { ...second, statement: { ...second.statement, seq: 3 } }, { ...third, statement: { ...third.statement, seq: 2 } }]; // prettier-ignore
}
function twin(): ToldCapture {
  const [, , third] = day() as [ToldCapture, ToldCapture, ToldCapture];
  const statement = { ...third.statement, catchId: catchOf(7), photographSha256: sumOf(55) };
  return { ...third, statement, hash: statementHash(statement) };
}
function ahead(offsetMs: number): ToldCapture[] {
  return day(3, (one) => ({
    ...one,
    at: new Date(Date.parse(one.at) + offsetMs).toISOString(),
    clockOffsetMs: offsetMs,
  }));
}
/** Two captures of the first phone, and the third with another. */
function onSecond(): ToldCapture[] {
  const [first, second, third] = day() as [ToldCapture, ToldCapture, ToldCapture];
  const statement = nextStatement(null, { ...third.statement, keyId: OTHER_KEY });
  return [first, second, { ...third, statement, hash: statementHash(statement) }];
}

describe('what was done to a capture is found and named', () => {
  it.each(TAMPERINGS)('%s', (_, tampered, check, tone) => {
    expect(named(tampered())).toContain(`${check} ${tone}`);
  });

  it('and a clock that is wrong but steady is called wrong, not set back, and its times are set right by it', () => {
    const found = named(facts({ captures: ahead(120 * MINUTE_MS) }));
    expect(found).toEqual(['device-clock-off look']);
  });

  it('and near to the bounds of the waters nobody can say', () => {
    const near = facts({ placeOn: () => ({ where: 'outside', name: null, awayM: 6 }) });
    expect(named(near)).toEqual(['device-place-outside look']);
  });
});

describe('names and sums', () => {
  it('of a key are its RFC 7638 thumbprint: SHA-256 of its required members in order, without spaces', () => {
    const key = { kty: 'EC', crv: 'P-256', x: 'eHg', y: 'eXk' } as const;
    const text = '{"crv":"P-256","kty":"EC","x":"eHg","y":"eXk"}';
    expect(keyIdOf(key)).toBe(createHash('sha256').update(text).digest('hex'));
  });
});
