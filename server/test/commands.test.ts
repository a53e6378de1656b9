import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { BOAT_CUP_SHEET } from '@lauta/sim/demo';
import {
  SHEET,
  claim,
  claimBody,
  commandOf,
  done,
  holdEvent,
  judge,
  openWorld,
  send,
  sendCommand,
  type TestEvent,
  type World,
} from './world.ts';

let world: World;
let event: TestEvent;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
});
afterAll(() => world.close());

const post = (key: string, command: object, person = event.angler) =>
  send(world, person, 'post', '/api/commands').set('Idempotency-Key', key).send(command);
const head = async () => (await world.lauta.storage.read.ledger.head(event.eventId))?.seq ?? 0;
const count = () => world.lauta.storage.read.catches.countIn(event.eventId);

describe('results that are official', () => {
  it('are decided no more until the director takes that back; what comes late is kept all the same', async () => {
    const catchId = await claim(world, event);
    const declare = (isOfficial: boolean, who = event.director) =>
      sendCommand(world, who, 'results.declare', event.eventId, { isOfficial });
    expect((await declare(true, event.judge)).status).toBe(403);
    await done(declare(true));
    const view = (await send(world, event.angler, 'get', `/api/events/${event.eventId}`)).body as { officialAt: string | null }; // prettier-ignore
    expect(view.officialAt).toBe('2026-06-14T10:00:00.000Z');
    const verdict = { catchId, verdictId: uuidv7(), replaces: null, decision: { kind: 'accepted' as const, steps: 60, infractions: [], note: '' } }; // prettier-ignore
    expect((await sendCommand(world, event.judge, 'catch.judge', event.eventId, verdict)).body).toMatchObject({ type: 'results-official' }); // prettier-ignore
    await claim(world, event);
    await done(declare(false));
    await done(sendCommand(world, event.judge, 'catch.judge', event.eventId, verdict));
  });
});

describe('a command sent twice', () => {
  it('is done once and gives the same receipt', async () => {
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const command = commandOf('catch.claim', event.eventId, body);
    const before = await count();
    const first = await post(command.commandId, command);
    const seq = await head();
    const second = await post(command.commandId, command);
    expect(first.status, first.text).toBe(200);
    expect(second.status).toBe(200);
    expect(second.body).toEqual(first.body);
    expect(await head()).toBe(seq);
    expect(await count()).toBe(before + 1);
  });

  it('at the same moment is done once as well', async () => {
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const command = commandOf('catch.claim', event.eventId, body);
    const before = await count();
    const answers = await Promise.all(Array.from({ length: 6 }, () => post(command.commandId, command)));
    for (const answer of answers) {
      expect(answer.status, answer.text).toBe(200);
      expect(answer.body).toEqual(answers[0]?.body);
    }
    expect(await count()).toBe(before + 1);
  });

  it('with another body under the same key is refused', async () => {
    const command = commandOf('catch.withdraw', event.eventId, { catchId: await claim(world, event) });
    expect((await post(command.commandId, command)).status).toBe(200);
    const other = await post(command.commandId, { ...command, madeAt: '2026-06-14T10:00:01.000Z' });
    expect(other.status).toBe(409);
    expect(other.body).toMatchObject({ type: 'idempotency-key-reused' });
  });

  it('under a key that another account used is not the other’s', async () => {
    const withdraw = commandOf('catch.withdraw', event.eventId, { catchId: await claim(world, event) });
    expect((await post(withdraw.commandId, withdraw)).status).toBe(200);
    expect((await post(withdraw.commandId, withdraw, event.rival)).status).toBe(403);
  });

  it('that was refused may be sent again when the reason is gone', async () => {
    const catchId = uuidv7();
    const command = commandOf('catch.withdraw', event.eventId, { catchId });
    expect((await post(command.commandId, command)).status).toBe(404);
    const body = { ...(await claimBody(world, event.angler, event.eventId, event.entrantId)), catchId };
    await done(sendCommand(world, event.angler, 'catch.claim', event.eventId, body));
    expect((await post(command.commandId, command)).status).toBe(200);
  });
});

describe('a command is refused', () => {
  it.each([
    ['without a key', undefined, 'idempotency-key-missing'],
    ['with a key of spaces', '        ', 'idempotency-key-missing'],
    ['with a key that is too long', 'k'.repeat(101), 'idempotency-key-missing'],
  ])('%s', async (_what, key, type) => {
    const command = commandOf('catch.withdraw', event.eventId, { catchId: uuidv7() });
    const test = send(world, event.angler, 'post', '/api/commands');
    if (key !== undefined) void test.set('Idempotency-Key', key);
    const response = await test.send(command);
    expect(response.status).toBe(400);
    expect(response.body).toMatchObject({ type });
  });

  it.each([
    ['of an unknown kind', { kind: 'catch.eat' }],
    ['of a version to come', { v: 2 }],
    ['with a field too many', { hurry: true }],
    ['without an event', { eventId: 'somewhere' }],
    ['made at no time', { madeAt: 'noon' }],
  ])('%s, with the field named', async (_what, change) => {
    const command = { ...commandOf('catch.withdraw', event.eventId, { catchId: uuidv7() }), ...change };
    const response = await post(uuidv7(), command);
    expect(response.status).toBe(400);
    expect(response.headers['content-type']).toContain('application/problem+json');
    expect((response.body as { issues: unknown[] }).issues.length).toBeGreaterThan(0);
  });

  it('that is no JSON', async () => {
    const response = await send(world, event.angler, 'post', '/api/commands')
      .set('Idempotency-Key', uuidv7())
      .set('Content-Type', 'application/json')
      .send('{"v":');
    expect(response.status).toBe(400);
  });

  it('that is larger than any command', async () => {
    const response = await post(uuidv7(), { v: 1, filler: 'x'.repeat(300_000) });
    expect(response.status).toBe(413);
    expect(response.body).toMatchObject({ type: 'body-too-large' });
  });
});

describe('an event', () => {
  const create = (change: object) =>
    sendCommand(world, event.director, 'event.create', uuidv7(), {
      eventId: uuidv7(),
      name: 'Other',
      zone: 'Europe/Warsaw',
      isPublic: true,
      days: [{ date: '2026-10-24', sessions: [{ linesInLocal: '2026-10-24T22:00', linesOutLocal: '2026-10-25T04:00' }] }], // prettier-ignore
      ...change,
    });
  const createRight = (eventId: string, change: object) =>
    sendCommand(world, event.director, 'event.create', eventId, {
      eventId,
      name: 'Other',
      zone: 'Europe/Warsaw',
      isPublic: true,
      days: [{ date: '2026-10-24', sessions: [{ linesInLocal: '2026-10-24T22:00', linesOutLocal: '2026-10-25T04:00' }] }], // prettier-ignore
      ...change,
    });

  it('must be the one that its command names', async () => {
    expect((await create({})).status).toBe(400);
  });

  it('keeps a night session over the change of the clocks as seven hours', async () => {
    const eventId = uuidv7();
    await done(createRight(eventId, {}));
    const [session] = await world.lauta.storage.read.events.sessions(eventId);
    expect(session?.linesInAt.toISOString()).toBe('2026-10-24T20:00:00.000Z');
    expect(session?.linesOutAt.toISOString()).toBe('2026-10-25T03:00:00.000Z');
  });

  it.each([
    ['a zone that is none', { zone: 'Lake/Kestrel' }, 'unknown-zone'],
    [
      'a time that the clocks skip',
      { days: [{ date: '2026-03-29', sessions: [{ linesInLocal: '2026-03-29T02:30', linesOutLocal: '2026-03-29T09:00' }] }] }, // prettier-ignore
      'wall-time-skipped',
    ],
    [
      'sessions that overlap',
      {
        days: [
          {
            date: '2026-06-20',
            sessions: [
              { linesInLocal: '2026-06-20T06:00', linesOutLocal: '2026-06-20T12:00' },
              { linesInLocal: '2026-06-20T11:59', linesOutLocal: '2026-06-20T15:00' },
            ],
          },
        ],
      },
      'sessions-overlap',
    ],
  ])('is refused with %s', async (_what, change, type) => {
    const response = await createRight(uuidv7(), change);
    expect(response.status).toBe(422);
    expect(response.body).toMatchObject({ type });
  });

  it('can’t be created over another', async () => {
    const response = await createRight(event.eventId, {});
    expect(response.status).toBe(409);
    expect(response.body).toMatchObject({ type: 'event-exists' });
  });
});

describe('a published rule sheet', () => {
  it('keeps its bytes, canonical and hashed, and gets a version', async () => {
    const own = await holdEvent(world);
    const receipt = await done(sendCommand(world, own.director, 'rules.publish', own.eventId, { sheet: { ...SHEET, bagLimit: 3 } })); // prettier-ignore
    expect(receipt.result['version']).toBe(2);
    const [first, second] = await world.lauta.storage.read.rules.versions(own.eventId);
    expect(Buffer.from(first?.bytes ?? []).toString()).toMatch(/^\{"bagLimit":2,/);
    expect(Buffer.from(second?.bytes ?? []).toString()).toMatch(/^\{"bagLimit":3,/);
    await expect(world.pool.query('UPDATE rule_sheets SET version = 7')).rejects.toThrow(/never changes/);
  });

  it('holds for fish caught after it: earlier ones keep theirs', async () => {
    const own = await holdEvent(world);
    await claim(world, own, { lengthMm: 270, claimedSteps: 42 });
    world.setNow('2026-06-14T10:30:00Z');
    const stricter = { ...SHEET, species: [{ id: 'bass', name: 'Bass', minimumSteps: 60, counts: true }] };
    await done(sendCommand(world, own.director, 'rules.publish', own.eventId, { sheet: stricter }));
    world.setNow('2026-06-14T10:50:00Z');
    await claim(world, own, { lengthMm: 270, claimedSteps: 42, takenLocal: '2026:06:14 12:45:00' });
    world.setNow('2026-06-14T10:00:00Z');
    const response = await send(world, own.judge, 'get', `/api/events/${own.eventId}/standings`);
    const { standings } = response.body as { standings: { bag: { counting: unknown[]; notCounting: { notCounting: string }[] } }[] }; // prettier-ignore
    expect(standings[0]?.bag.counting).toHaveLength(1);
    expect(standings[0]?.bag.notCounting).toMatchObject([{ notCounting: 'under-minimum' }]);
  });

  it('may not change what scores once a fish is claimed', async () => {
    const own = await holdEvent(world);
    const metric = { ...SHEET, measure: { kind: 'length' as const, step: 'millimetre' as const, rounding: 'down' as const } }; // prettier-ignore
    await done(sendCommand(world, own.director, 'rules.publish', own.eventId, { sheet: metric }));
    await claim(world, own, { claimedSteps: 400 });
    const response = await sendCommand(world, own.director, 'rules.publish', own.eventId, { sheet: SHEET });
    expect(response.status).toBe(409);
    expect(response.body).toMatchObject({ type: 'measure-fixed' });
  });

  it('is needed before a fish can be claimed', async () => {
    const bare = await holdEvent(world, { sheet: null });
    const body = await claimBody(world, bare.angler, bare.eventId, bare.entrantId);
    const response = await sendCommand(world, bare.angler, 'catch.claim', bare.eventId, body);
    expect(response.status).toBe(409);
    expect(response.body).toMatchObject({ type: 'no-rule-sheet' });
  });

  it.each([
    ['by length a length from which a fish is kept', { ...SHEET, species: [{ ...SHEET.species[0], minimumLength: { step: 'quarter-inch', steps: 40 } }] }],
    ['by weight a least weight of a species', { ...BOAT_CUP_SHEET, species: BOAT_CUP_SHEET.species.map((species) => ({ ...species, minimumSteps: 3 })) }],
    ['by weight one bag of the whole event', { ...BOAT_CUP_SHEET, bagPeriod: 'event' }],
  ])('holds no rule that nothing keeps: %s', async (_what, sheet) => {
    const own = await holdEvent(world, { sheet: null });
    const response = await sendCommand(world, own.director, 'rules.publish', own.eventId, { sheet: sheet as never });
    expect(response.body).toMatchObject({ type: 'rule-not-kept' });
  }); // prettier-ignore

  it('approves known boards only', async () => {
    const response = await sendCommand(world, event.director, 'rules.publish', event.eventId, { sheet: { ...SHEET, boards: ['kitchen-table'] } }); // prettier-ignore
    expect(response.status).toBe(422);
    expect(response.body).toMatchObject({ type: 'board-not-known' });
  });
});

describe('people', () => {
  it('who become anglers get a number and a code for each day, apart from all others', async () => {
    const own = await holdEvent(world);
    const [mine] = await world.lauta.storage.read.events.identifiersOf(own.entrantId);
    const [theirs] = await world.lauta.storage.read.events.identifiersOf(own.rivalEntrantId);
    expect(mine?.code).toMatch(/^[0-9A-HJ-NP-TV-Z]{4}$/);
    expect(mine?.code).not.toBe(theirs?.code);
    const numbers = (await world.lauta.storage.read.people.entrantsOf(own.eventId)).map((one) => one.number);
    expect(numbers).toEqual([1, 2]);
  });

  it('added twice stay one person and one entrant', async () => {
    const own = await holdEvent(world);
    const account = await world.lauta.storage.read.people.findAccount(own.angler.accountId);
    await done(
      sendCommand(world, own.director, 'people.add', own.eventId, {
        accountId: uuidv7(),
        name: 'Somebody else',
        email: account?.email ?? '',
        roles: ['angler', 'judge'],
      }),
    );
    expect(await world.lauta.storage.read.people.entrantsOf(own.eventId)).toHaveLength(2);
    const { people } = world.lauta.storage.read;
    // The second role counts once it was taken up.
    expect(await people.rolesIn(own.eventId, own.angler.accountId)).toEqual(['angler']);
    expect(await people.heldIn(own.eventId, own.angler.accountId)).toHaveLength(2);
  });

  it('leave no name and no address in the ledger', async () => {
    const own = await holdEvent(world);
    await judge(world, own, await claim(world, own), {
      kind: 'refused',
      infractions: [],
      reason: 'Secret words.',
    });
    const entries = await world.lauta.storage.read.ledger.entries(own.eventId, 0, 1000);
    const text = entries.map((entry) => Buffer.from(entry.bytes).toString()).join('\n');
    for (const secret of ['Angler', '@test.example', 'Secret words', 'Rival'])
      expect(text).not.toContain(secret);
  });
});
