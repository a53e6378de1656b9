// Things that come at the same moment: each is done once, one way, and the record fits afterwards.
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import type { BagsView, CatchView, CommandBody, StandingsView } from '@lauta/contract';
import type { WeighInAct } from '@lauta/core/weigh-in';
import { BOAT_CUP_SHEET } from '@lauta/sim/demo';
import { checkInstallation, checkLedger } from '../src/verify/checkLedger.ts';
import { openDevice, register } from './device.ts';
import { NOBODY, NOON, SHEET, claim, claimBody, commandOf, declare, done, holdEvent, jpeg, judge, openWorld, send, sendCommand, takePart, upload, type Person, type TestEvent, type World } from './world.ts'; // prettier-ignore

let world: World;
let event: TestEvent;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
});
afterAll(() => world.close());

/** Of this moment's answers how many came of each kind; a fault of the server is none that may come. */
function tally(answers: readonly { status: number; body: unknown; text: string }[]): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const { status, body, text } of answers) {
    expect(status, text).not.toBe(500);
    const kind = status === 200 ? 'done' : String((body as { type?: string }).type);
    counts[kind] = (counts[kind] ?? 0) + 1;
  }
  return counts;
}
const atOnce = async <T extends { status: number; body: unknown; text: string }>(
  n: number,
  ask: (i: number) => PromiseLike<T>,
) => Promise.all(Array.from({ length: n }, (_, i) => Promise.resolve(ask(i))));
const post = (person: Person, path: string, body: object) => send(world, person, 'post', path).send(body);
const view = async (catchId: string) => (await send(world, event.judge, 'get', `/api/catches/${catchId}`)).body as CatchView; // prettier-ignore
const entriesOf = async (eventId = event.eventId) =>
  (await world.lauta.storage.read.ledger.entries(eventId, 0, 1000)).map(({ bytes }) => Buffer.from(bytes).toString()); // prettier-ignore
const ACCEPTED: CommandBody<'catch.judge'>['decision'] = {
  kind: 'accepted',
  steps: 62,
  infractions: [],
  note: '',
};

afterEach(async () => {
  expect((await checkLedger(world.lauta.storage.read, event.eventId)).faults).toEqual([]);
  expect((await checkInstallation(world.lauta.storage.read)).faults).toEqual([]);
});

describe('at the same moment', () => {
  it('twenty times the same command is done once, with one receipt', async () => {
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const command = commandOf('catch.claim', event.eventId, body);
    const answers = await atOnce(20, () => post(event.angler, '/api/commands', command).set('Idempotency-Key', command.commandId)); // prettier-ignore
    expect(tally(answers)).toEqual({ done: 20 });
    expect(new Set(answers.map(({ body }) => (body as { seq: number }).seq)).size).toBe(1);
    expect((await entriesOf()).filter((entry) => entry.includes(body.catchId))).toHaveLength(1);
  });

  it('ten bodies under one key: one is done, the others are told', async () => {
    const commandId = uuidv7();
    const answers = await atOnce(10, (i) =>
      post(event.director, '/api/commands', {
        ...commandOf('people.add', event.eventId, { accountId: uuidv7(), name: `Ten ${i}`, email: `ten-${i}-${commandId.slice(-6)}@lake.example`, roles: ['judge'] }), // prettier-ignore
        commandId,
      }).set('Idempotency-Key', commandId),
    );
    const { done: one, ...others } = tally(answers);
    expect([one, Object.values(others)]).toEqual([1, [9]]);
  });

  it('twenty events of one id: one is made', async () => {
    const eventId = uuidv7();
    const day = { date: '2026-06-14', sessions: [{ linesInLocal: '2026-06-14T06:00', linesOutLocal: '2026-06-14T15:00' }] }; // prettier-ignore
    const answers = await atOnce(
      20,
      (i) =>
      sendCommand(world, event.director, 'event.create', eventId, { eventId, name: `Event ${i}`, zone: 'Europe/Warsaw', isPublic: true, days: [day] }), // prettier-ignore
    );
    expect(tally(answers)['done']).toBe(1);
    expect((await world.lauta.storage.read.events.days(eventId)).length).toBe(1);
    expect((await checkLedger(world.lauta.storage.read, eventId)).faults).toEqual([]);
  });

  it('ten first directors: one comes in', async () => {
    const empty = await openWorld();
    const answers = await atOnce(
      10,
      (i) =>
      send(empty, NOBODY, 'post', '/api/set-up').send({ name: 'First', email: `first${i}@lake.example`, password: 'a long enough one' }), // prettier-ignore
    );
    expect(tally(answers)).toEqual({ done: 1, 'already-set-up': 9 });
    await empty.close();
  });

  it('an invitation’s link ten times, then a renewal’s: each lets one in', async () => {
    const accountId = uuidv7();
    await done(sendCommand(world, event.director, 'people.add', event.eventId, { accountId, name: 'Once', email: `once-${accountId.slice(-8)}@lake.example`, roles: ['judge'] })); // prettier-ignore
    for (const [kind, path] of [
      ['invitation', '/api/invitations/accept'],
      ['renewal', '/api/renewals/accept'],
    ] as const) {
      // prettier-ignore
      const link = await post(event.director, `/api/events/${event.eventId}/people/${accountId}/${kind}`, {});
      const token = (link.body as { path: string }).path.split('/').at(-1);
      const counts = tally(await atOnce(10, () => post(NOBODY, path, { token, password: 'quartz lantern willow oar' }))); // prettier-ignore
      expect(counts['done'], kind).toBe(1);
      expect(Object.values(counts).reduce((a, b) => a + b)).toBe(10);
    }
    expect((await world.lauta.storage.read.people.signInsOf(accountId, new Date(NOON))).length).toBe(1);
  });

  it('a partner’s code twenty times: one phone is paired', async () => {
    const offered = await post(event.angler, '/api/pairings', { pairingId: uuidv7(), eventId: event.eventId, entrantId: event.entrantId, job: 'timer' }); // prettier-ignore
    const token = (offered.body as { path: string }).path.replace('/pair/', '');
    const counts = tally(await atOnce(20, () => post(NOBODY, '/api/pairings/accept', { token })));
    expect(counts).toEqual({ done: 1, 'pairing-used': 19 });
  });

  it('two judges decide otherwise: one verdict stands, the other judge is told', async () => {
    const second = await takePart(world, event.director, event.eventId, 'Second', ['judge']);
    for (let round = 0; round < 3; round++) {
      const catchId = await claim(world, event);
      const answers = await Promise.all([
        sendCommand(world, event.judge, 'catch.judge', event.eventId, { catchId, verdictId: uuidv7(), replaces: null, decision: ACCEPTED }), // prettier-ignore
        sendCommand(world, second, 'catch.judge', event.eventId, { catchId, verdictId: uuidv7(), replaces: null, decision: { kind: 'rejected', infractions: ['identifier-missing'], note: 'None seen.' } as never }), // prettier-ignore
      ]);
      expect(tally(answers)['done']).toBe(1);
      expect((await view(catchId)).verdicts).toHaveLength(1);
    }
  });

  it('one photograph in ten claims: one has it', async () => {
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const answers = await atOnce(
      10,
      () =>
      sendCommand(world, event.angler, 'catch.claim', event.eventId, { ...body, catchId: uuidv7(), measurement: { ...body.measurement, measurementId: uuidv7() } as never }), // prettier-ignore
    );
    expect(tally(answers)['done']).toBe(1);
  });

  it('two entrants claim one id: one has it, and the other keeps the photograph', async () => {
    const catchId = uuidv7();
    const mine = { ...(await claimBody(world, event.angler, event.eventId, event.entrantId)), catchId };
    const theirs = { ...(await claimBody(world, event.rival, event.eventId, event.rivalEntrantId)), catchId };
    const answers = await atOnce(6, (i) =>
      i % 2
        ? sendCommand(world, event.rival, 'catch.claim', event.eventId, theirs)
        : sendCommand(world, event.angler, 'catch.claim', event.eventId, mine),
    );
    const counts = tally(answers);
    expect(counts['done']).toBe(1);
    const loser = (await view(catchId)).entrant.entrantId === event.entrantId ? event.rival : event.angler;
    const [left, entrantId] = loser === event.rival ? [theirs, event.rivalEntrantId] : [mine, event.entrantId]; // prettier-ignore
    await done(sendCommand(world, loser, 'catch.claim', event.eventId, { ...left, entrantId, catchId: uuidv7() })); // prettier-ignore
  });

  it('one photograph is declared by two accounts: it is one’s', async () => {
    const [bytes, photographId] = [await jpeg(), uuidv7()];
    const answers = await atOnce(8, (i) => declare(world, i % 2 ? event.rival : event.angler, event.eventId, bytes, photographId)); // prettier-ignore
    expect(tally(answers)).toEqual({ done: 4, 'photograph-declared-otherwise': 4 });
  });

  it('a hundred files where there is room for five: five are taken', async () => {
    const hoarder = await takePart(world, event.director, event.eventId, 'Hoarder', ['angler']);
    for (let i = 0; i < 195; i++)
      await world.pool.query('INSERT INTO photographs (photograph_id, event_id, account_id, sha256, byte_length, chunk_bytes, declared_at) VALUES (UUID(), ?, ?, UNHEX(SHA2(1, 256)), 1, 524288, NOW())', [event.eventId, hoarder.accountId]); // prettier-ignore
    const bytes = await jpeg();
    const counts = tally(await atOnce(100, () => declare(world, hoarder, event.eventId, bytes)));
    expect(counts).toEqual({ done: 5, 'too-many-files': 95 });
  });

  it('thirty keys of a partner’s phone: as many as it may have', async () => {
    const offered = await post(event.rival, '/api/pairings', { pairingId: uuidv7(), eventId: event.eventId, entrantId: event.rivalEntrantId, job: 'timer' }); // prettier-ignore
    const token = (offered.body as { path: string }).path.replace('/pair/', '');
    const accepted = await post(NOBODY, '/api/pairings/accept', { token });
    const cookie = String(accepted.headers['set-cookie']).split(';')[0] ?? '';
    const phone = { accountId: event.rival.accountId, cookie };
    const devices = await Promise.all(Array.from({ length: 30 }, () => openDevice({ eventId: event.eventId, entrantId: event.rivalEntrantId }))); // prettier-ignore
    const answers = await Promise.all(devices.map((device) => register(world, phone, device)));
    expect(tally(answers)).toEqual({ done: 20, 'too-many-keys': 10 });
  });

  it('one key is registered by two accounts, each with its own proof: it is one’s', async () => {
    const device = await openDevice({ eventId: event.eventId, entrantId: event.entrantId });
    const answers = await Promise.all([event.angler, event.rival, event.angler, event.rival].map((who) => register(world, who, device))); // prettier-ignore
    expect(tally(answers)).toEqual({ done: 2, 'key-registered': 2 });
  });

  it('a fish is withdrawn while it is judged: whichever comes first, standings and record agree', async () => {
    for (let round = 0; round < 3; round++) {
      const catchId = await claim(world, event);
      const answers = await Promise.all([
        sendCommand(world, event.angler, 'catch.withdraw', event.eventId, { catchId }),
        sendCommand(world, event.judge, 'catch.judge', event.eventId, { catchId, verdictId: uuidv7(), replaces: null, decision: ACCEPTED }), // prettier-ignore
      ]);
      tally(answers);
      const now = await view(catchId);
      expect(now.verdicts).toHaveLength(answers[1].status === 200 ? 1 : 0);
      expect(now.state !== 'withdrawn').toBe(answers[0].status !== 200);
      const { body } = await send(world, event.judge, 'get', `/api/events/${event.eventId}/standings`);
      const own = (body as StandingsView).standings.find(({ entrantId }) => entrantId === event.entrantId);
      const counting = own?.kind === 'catches' ? own.bag.counting.map((one) => one.catchId) : null;
      expect(counting?.includes(catchId)).toBe(answers[0].status !== 200);
      if (answers[0].status !== 200) await done(sendCommand(world, event.angler, 'catch.withdraw', event.eventId, { catchId })); // prettier-ignore
    }
  });

  it('results become official while fish are withdrawn: nothing that came after counts', async () => {
    const own = await holdEvent(world);
    const ids = await Promise.all(Array.from({ length: 6 }, () => claim(world, own)));
    for (const catchId of ids) await judge(world, own, catchId, ACCEPTED);
    const [declared, ...withdrawn] = await Promise.all([
      sendCommand(world, own.director, 'results.declare', own.eventId, { isOfficial: true }),
      ...ids.map((catchId) => sendCommand(world, own.angler, 'catch.withdraw', own.eventId, { catchId })),
    ]);
    tally([declared, ...withdrawn]);
    const { seq } = declared.body as { seq: number };
    for (const answer of withdrawn)
      if (answer.status === 200) expect((answer.body as { seq: number }).seq).toBeLessThan(seq);
      else expect(answer.body).toMatchObject({ type: 'results-official' });
    expect((await checkLedger(world.lauta.storage.read, own.eventId)).faults).toEqual([]);
  });

  it('ten sheets in place of one version: one is published', async () => {
    const own = await holdEvent(world);
    const answers = await atOnce(
      10,
      (i) =>
      sendCommand(world, own.director, 'rules.publish', own.eventId, { sheet: { ...SHEET, bagLimit: i + 3 }, replaces: 1 }), // prettier-ignore
    );
    expect(tally(answers)).toEqual({ done: 1, 'sheet-moved-on': 9 });
    const { body } = await send(world, own.director, 'get', `/api/events/${own.eventId}/rules`);
    expect(body as object[]).toHaveLength(2);
  });

  it('two directors take each other’s role: one is left', async () => {
    const own = await holdEvent(world);
    const other = await takePart(world, own.director, own.eventId, 'Other', ['director']);
    const answers = await Promise.all([
      sendCommand(world, own.director, 'people.remove', own.eventId, { accountId: other.accountId, roles: ['director'], why: 'Quarrel.' }), // prettier-ignore
      sendCommand(world, other, 'people.remove', own.eventId, { accountId: own.director.accountId, roles: ['director'], why: 'Quarrel.' }), // prettier-ignore
    ]);
    expect(tally(answers)['done']).toBe(1);
    const seen = await Promise.all([own.director, other].map((who) => send(world, who, 'get', `/api/events/${own.eventId}/people`))); // prettier-ignore
    expect(seen.map(({ status }) => status).sort()).toEqual([200, 403]);
  });

  it('one address is invited to two events: it is one account', async () => {
    const events = await Promise.all([holdEvent(world), holdEvent(world)]);
    const email = `both-${uuidv7().slice(-8)}@lake.example`;
    const answers = await Promise.all(
      events.map(
        ({ director, eventId }) =>
        sendCommand(world, director, 'people.add', eventId, { accountId: uuidv7(), name: 'Both', email, roles: ['judge'] }), // prettier-ignore
      ),
    );
    tally(answers);
    // Whoever was told that it is there asks again.
    for (const [i, answer] of answers.entries()) {
      const { director, eventId } = events[i] as TestEvent;
      if (answer.status !== 200) await done(sendCommand(world, director, 'people.add', eventId, { accountId: uuidv7(), name: 'Both', email, roles: ['judge'] })); // prettier-ignore
      expect((await checkLedger(world.lauta.storage.read, eventId)).faults).toEqual([]);
    }
    const [rows] = await world.pool.query('SELECT COUNT(*) AS n FROM accounts WHERE email = ?', [email]);
    expect((rows as { n: number }[])[0]?.n).toBe(1);
  });

  it('what a device tells of its well and of the weigh-in, ten times each: one entry each', async () => {
    const own = await holdEvent(world, { sheet: BOAT_CUP_SHEET });
    const master = await takePart(world, own.director, own.eventId, 'Weigher', ['weigh-master']);
    const fish = { entryId: uuidv7(), atMs: 1, act: { kind: 'fish-in', fishId: uuidv7(), speciesId: 'largemouth', lengthMm: null, condition: 'lively', compartment: 1, tagId: null, tagPlace: 'on' } as const }; // prettier-ignore
    const well = await atOnce(10, () => sendCommand(world, own.angler, 'well.enter', own.eventId, { entrantId: own.entrantId, dayId: own.dayId, entries: [fish] })); // prettier-ignore
    expect(tally(well)).toEqual({ done: 1, 'entry-exists': 9 });
    const act: WeighInAct = { kind: 'queued', ticketId: uuidv7(), entrantId: own.entrantId, dayId: own.dayId, number: 1 }; // prettier-ignore
    const queued = { entryId: uuidv7(), atMs: Date.parse('2026-06-14T12:30:00Z'), act };
    const weighed = await atOnce(10, () => sendCommand(world, master, 'weigh-in.enter', own.eventId, { entries: [queued] })); // prettier-ignore
    expect(tally(weighed)).toEqual({ done: 1, 'entry-exists': 9 });
    const { body } = await send(world, master, 'get', `/api/events/${own.eventId}/bags`);
    expect((body as BagsView).bags).toHaveLength(1);
    const [[one]] = (await world.pool.query('SELECT COUNT(*) AS n FROM well_entries WHERE event_id = ?', [own.eventId])) as unknown as [[{ n: number }]]; // prettier-ignore
    expect(one.n).toBe(1);
    expect((await checkLedger(world.lauta.storage.read, own.eventId)).faults).toEqual([]);
  });

  it('an account is closed while it sends: what was answered before stands, nothing after', async () => {
    const leaver = await takePart(world, event.director, event.eventId, 'Leaver', ['angler']);
    const [own] = await world.lauta.storage.read.people.entrantsWith(leaver.accountId);
    const bodies = await Promise.all(Array.from({ length: 6 }, () => claimBody(world, leaver, event.eventId, own?.entrantId ?? ''))); // prettier-ignore
    const [removed, ...claimed] = await Promise.all([
      sendCommand(world, event.director, 'people.remove', event.eventId, { accountId: leaver.accountId, roles: ['angler'], why: 'Left.' }), // prettier-ignore
      ...bodies.map((body) => sendCommand(world, leaver, 'catch.claim', event.eventId, body)),
    ]);
    tally([removed, ...claimed]);
    expect(removed.status, removed.text).toBe(200);
    for (const [i, answer] of claimed.entries()) {
      const there = await world.lauta.storage.read.catches.find(bodies[i]?.catchId ?? '');
      expect(there === null).toBe(answer.status !== 200);
    }
    const late = await sendCommand(world, leaver, 'catch.claim', event.eventId, { ...(bodies[0] as never as object), catchId: uuidv7() } as never); // prettier-ignore
    expect(late.status).toBe(403);
    expect((await upload(world, leaver, event.eventId, await jpeg())).status).toBe(403);
  });
});
