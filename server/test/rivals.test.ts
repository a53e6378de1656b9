import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import type { CatchView, CommandBody, CustodyView, StandingsView } from '@lauta/contract';
import { openDevice, register } from './device.ts';
import { HANDLING, NOBODY, NOON, SHEET, claim, claimBody, declare, done, holdEvent, jpeg, judge, openWorld, send, sendCommand, takePart, upload, type Person, type TestEvent, type World } from './world.ts'; // prettier-ignore

let world: World;
let event: TestEvent;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
});
afterAll(() => world.close());

const view = async (catchId: string, who = event.judge) =>
  (await send(world, who, 'get', `/api/catches/${catchId}`)).body as CatchView;
const announcement = (
  catchId: string,
  entrantId: string,
  claimedSteps = 62,
): CommandBody<'catch.announce'> => ({
  catchId,
  entrantId,
  speciesId: 'bass',
  capturedAt: NOON,
  claimedSteps,
  identifierCode: null,
  photographs: [{ photographId: uuidv7(), sha256: 'a'.repeat(64), byteLength: 9 }],
});

describe('a catch that is still on its way', () => {
  const tellings = {
    'captures.tell': async (who: Person, entrantId: string, catchId: string) => {
      const capture = await (await openDevice({ eventId: event.eventId, entrantId })).capture({ catchId, photographSha256: 'a'.repeat(64) }); // prettier-ignore
      return sendCommand(world, who, 'captures.tell', event.eventId, { entrantId, captures: [capture] });
    },
    'catch.announce': (who: Person, entrantId: string, catchId: string) =>
      sendCommand(world, who, 'catch.announce', event.eventId, announcement(catchId, entrantId, 1)),
    'catch.time': (who: Person, entrantId: string, catchId: string) =>
      sendCommand(world, who, 'catch.time', event.eventId, { catchId, entrantId, handling: HANDLING as never, clockOffsetMs: null }), // prettier-ignore
    'catch.claim': async (who: Person, entrantId: string, catchId: string) =>
      sendCommand(world, who, 'catch.claim', event.eventId, { ...(await claimBody(world, who, event.eventId, entrantId)), catchId }), // prettier-ignore
  };
  const kinds = Object.keys(tellings) as (keyof typeof tellings)[];

  it.each(kinds.flatMap((first) => kinds.map((second) => [first, second] as const)))(
    'of which %s was heard is not taken by a rival’s %s',
    async (first, second) => {
      const catchId = uuidv7();
      expect((await tellings[first](event.angler, event.entrantId, catchId)).status).toBe(200);
      const theirs = await tellings[second](event.rival, event.rivalEntrantId, catchId);
      expect(theirs.body).toMatchObject({ type: 'catch-of-another' });
      // What it is for its owner it stays.
      const left = kinds.filter((kind) => kind !== first && kind !== 'catch.announce');
      for (const kind of left)
        if (first !== 'catch.claim' || kind !== 'catch.announce')
          expect((await tellings[kind](event.angler, event.entrantId, catchId)).status, kind).toBe(200);
    },
  );

  it('is told to nobody by the open record: neither its id, nor its kind, nor its length', async () => {
    const catchId = uuidv7();
    for (const kind of ['captures.tell', 'catch.announce', 'catch.time'] as const)
      await done(Promise.resolve(tellings[kind](event.angler, event.entrantId, catchId)) as never);
    const { text } = await send(world, NOBODY, 'get', `/api/events/${event.eventId}/ledger.jsonl`);
    expect(text).not.toContain(catchId);
    expect(text.split('\n').filter((line) => line.includes('catch.announce')).join('')).not.toMatch(/bass|claimedSteps/); // prettier-ignore
    await done(Promise.resolve(tellings['catch.claim'](event.angler, event.entrantId, catchId)) as never);
    expect((await send(world, NOBODY, 'get', `/api/events/${event.eventId}/ledger.jsonl`)).text).toContain(catchId); // prettier-ignore
  });

  it('is judged by what its own entrant announced, whatever stands under its id', async () => {
    const catchId = await claim(world, event);
    // As a version before took it.
    await world.lauta.storage.read.custody.announce({ catchId, eventId: event.eventId, entrantId: event.rivalEntrantId, body: announcement(catchId, event.rivalEntrantId, 1), heardAt: new Date('2026-06-14T06:00:00Z') }); // prettier-ignore
    const custody = (await send(world, event.judge, 'get', `/api/catches/${catchId}/custody`))
      .body as CustodyView;
    expect(custody.findings.find(({ check }) => check === 'claimed-otherwise')?.tone).not.toBe('fault');
    expect(custody.heardAt).toBe(NOON);
  });
});

describe('what a boat has aboard', () => {
  it('is not told by the open record, neither counts nor culls', async () => {
    const act = { kind: 'fish-in', fishId: uuidv7(), speciesId: 'bass', lengthMm: null, condition: 'lively', compartment: 1, tagId: null, tagPlace: 'on' } as const; // prettier-ignore
    await done(sendCommand(world, event.angler, 'well.enter', event.eventId, { entrantId: event.entrantId, dayId: event.dayId, entries: [{ entryId: uuidv7(), atMs: 1, act }] })); // prettier-ignore
    const { text } = await send(world, NOBODY, 'get', `/api/events/${event.eventId}/ledger.jsonl`);
    expect(text).toContain('well.enter');
    expect(text).not.toContain('fish-in');
  });
});

describe('a claim that nobody believes unseen', () => {
  it.each([
    ['far over its reading', { claimedSteps: 100 }, 'far-over-reading'],
    ['dated after the server heard of it', { captured: { at: '2026-06-14T11:25:00.000Z', source: 'typed' } }, 'captured-after-heard'], // prettier-ignore
  ] as const)('%s is kept, marked, and counts once a judge has accepted it', async (_what, wish, mark) => {
    const own = await holdEvent(world);
    const catchId = await claim(world, own, wish);
    const caught = (await send(world, own.judge, 'get', `/api/catches/${catchId}`)).body as CatchView;
    expect(caught.marks).toContain(mark);
    expect(caught.notCounting).toBe('needs-judge');
    const standings = async () =>
      (await send(world, own.judge, 'get', `/api/events/${own.eventId}/standings`)).body as StandingsView;
    expect((await standings()).standings[0]?.score.steps).toBe(0);
    await judge(world, own, catchId, { kind: 'accepted', steps: 62, infractions: [], note: '' });
    expect((await standings()).standings[0]?.score.steps).toBe(62);
  });

  it('a step or two over is a judge’s business, and no mark', async () => {
    expect((await view(await claim(world, event, { claimedSteps: 64 }))).marks).toEqual([]);
  });
});

describe('results that are official', () => {
  it('change by nothing: what would is refused, what comes late is kept and does not count', async () => {
    const own = await holdEvent(world);
    const catchId = await claim(world, own);
    await judge(world, own, catchId, { kind: 'accepted', steps: 62, infractions: [], note: '' });
    await done(sendCommand(world, own.director, 'results.declare', own.eventId, { isOfficial: true }));
    const withdraw = sendCommand(world, own.angler, 'catch.withdraw', own.eventId, { catchId });
    expect((await withdraw).body).toMatchObject({ type: 'results-official' });
    const publish = sendCommand(world, own.director, 'rules.publish', own.eventId, { sheet: { ...SHEET, bagLimit: 1 } }); // prettier-ignore
    expect((await publish).body).toMatchObject({ type: 'results-official' });
    const weigh = sendCommand(world, own.director, 'weigh-in.enter', own.eventId, { entries: [{ entryId: uuidv7(), atMs: 1, act: { kind: 'called', ticketId: uuidv7() } }] }); // prettier-ignore
    expect((await weigh).body).toMatchObject({ type: 'results-official' });
    world.setNow('2026-06-14T10:05:00Z');
    await claim(world, own, { lengthMm: 600, claimedSteps: 94 });
    world.setNow(NOON);
    const { body } = await send(world, own.judge, 'get', `/api/events/${own.eventId}/standings`);
    expect((body as StandingsView).standings[0]?.score.steps).toBe(62);
  });
});

describe('an official who fishes', () => {
  it('does not weigh the own bag; another one does', async () => {
    const { eventId, dayId } = event;
    const both = await takePart(world, event.director, eventId, 'Weighs and fishes', [
      'weigh-master',
      'angler',
    ]);
    const [own] = await world.lauta.storage.read.people.entrantsWith(both.accountId);
    const ticketId = uuidv7();
    const enter = (who: Person, act: unknown) =>
      sendCommand(world, who, 'weigh-in.enter', eventId, {
        entries: [{ entryId: uuidv7(), atMs: 1, act }],
      } as never);
    await done(enter(both, { kind: 'queued', ticketId, entrantId: own?.entrantId, dayId, number: 77 }));
    const weighed = { kind: 'weighed', ticketId, grossG: 9000, tareG: 0, how: 'typed', reason: null };
    expect((await enter(both, weighed)).body).toMatchObject({ type: 'own-bag' });
    expect((await enter(event.director, weighed)).status).toBe(200);
  });

  it('learns nothing of the own catch that an angler would not', async () => {
    const both = await takePart(world, event.director, event.eventId, 'Judges and fishes', [
      'judge',
      'angler',
    ]);
    const [own] = await world.lauta.storage.read.people.entrantsWith(both.accountId);
    const body = await claimBody(world, both, event.eventId, own?.entrantId ?? '');
    await done(sendCommand(world, both, 'catch.claim', event.eventId, body));
    const reading = await send(world, both, 'get', `/api/catches/${body.catchId}/bench-reading`);
    if (reading.status === 200) expect(reading.body).toMatchObject({ evidence: [], alike: [] });
    const others = await send(world, event.judge, 'get', `/api/catches/${body.catchId}/bench-reading`);
    expect((others.body as { evidence?: unknown[] }).evidence?.length).toBeGreaterThan(0);
  });
});

describe('one sender', () => {
  it('hides nobody’s announcements behind false ones', async () => {
    const own = await holdEvent(world);
    const answers = [];
    for (let i = 0; i < 62; i++)
      answers.push(await sendCommand(world, own.rival, 'catch.announce', own.eventId, announcement(uuidv7(), own.rivalEntrantId))); // prettier-ignore
    expect(answers.at(-1)?.body).toMatchObject({ type: 'too-many-tries' });
    const catchId = uuidv7();
    world.setNow('2026-06-14T10:05:00Z');
    await done(
      sendCommand(world, own.angler, 'catch.announce', own.eventId, announcement(catchId, own.entrantId)),
    );
    world.setNow(NOON);
    const seen = (await send(world, own.judge, 'get', `/api/events/${own.eventId}/announced`)).body as { catchId: string }[]; // prettier-ignore
    expect(seen[0]?.catchId).toBe(catchId);
  });

  it('of more than any hand sends is put off, may read on, and holds up nobody else', async () => {
    const small = await openWorld({ writesPerMinute: 20 });
    const own = await holdEvent(small);
    const declared = async () => (await declare(small, own.rival, own.eventId, await jpeg())).status;
    const statuses = [];
    for (let i = 0; i < 21; i++) statuses.push(await declared());
    expect(statuses).toEqual([...Array.from({ length: 20 }, () => 200), 429]);
    expect((await send(small, own.rival, 'get', `/api/events/${own.eventId}/rules`)).status).toBe(200);
    expect((await declare(small, own.angler, own.eventId, await jpeg())).status).toBe(200);
    await small.close();
  });

  it('on a partner’s phone uses up none of the account’s keys, and keeps no well', async () => {
    const offer = await send(world, event.angler, 'post', '/api/pairings').send({ pairingId: uuidv7(), eventId: event.eventId, entrantId: event.entrantId, job: 'timer' }); // prettier-ignore
    const token = (offer.body as { path: string }).path.replace('/pair/', '');
    const accepted = await send(world, NOBODY, 'post', '/api/pairings/accept').send({ token });
    const phone: Person = { ...event.angler, cookie: (accepted.headers['set-cookie'] as unknown as string[]).map((one) => one.split(';')[0]).join('; ') }; // prettier-ignore
    for (let i = 0; i < 20; i++)
      expect((await register(world, phone, await openDevice(event))).status).toBe(200);
    expect((await register(world, phone, await openDevice(event))).body).toMatchObject({
      type: 'too-many-keys',
    });
    expect((await register(world, event.angler, await openDevice(event))).status).toBe(200);
    const entry = { entryId: uuidv7(), atMs: 1, act: { kind: 'declared', count: 9 } } as const;
    const well = sendCommand(world, phone, 'well.enter', event.eventId, { entrantId: event.entrantId, dayId: event.dayId, entries: [entry] }); // prettier-ignore
    expect((await well).status).toBe(403);
  });
});

describe('ids and letters that do not fit', () => {
  it('an id that is taken is a refusal', async () => {
    const { eventId } = event;
    const taken = { accountId: event.rival.accountId, name: 'X', email: `${uuidv7()}@x.example`, roles: ['angler' as const] }; // prettier-ignore
    expect((await sendCommand(world, event.director, 'people.add', eventId, taken)).body).toMatchObject({ type: 'id-taken' }); // prettier-ignore
    const body = await claimBody(world, event.angler, eventId, event.entrantId);
    await done(sendCommand(world, event.angler, 'catch.claim', eventId, body));
    const photographId = uuidv7();
    await upload(world, event.angler, eventId, await jpeg(), photographId);
    const second = { ...body, catchId: uuidv7(), photographs: [{ photographId, role: 'board' as const }], measurement: { ...body.measurement, photographId } }; // prettier-ignore
    expect((await sendCommand(world, event.angler, 'catch.claim', eventId, second as never)).body).toMatchObject({ type: 'id-taken' }); // prettier-ignore
  });

  it.each(['half a letter \ud800', '\udc00'])('%j is refused anywhere', async (name) => {
    const sent = await sendCommand(world, event.director, 'people.add', event.eventId, { accountId: uuidv7(), name, email: 'a@b.example', roles: ['angler'] }); // prettier-ignore
    expect([sent.status, (sent.body as { type: string }).type]).toEqual([400, 'invalid-request']);
  });

  it.each(['a\u0000b', 'a\nb', 'a\u202eb', '\u200b\u200d'])('a name %j is none', async (name) => {
    const sent = await sendCommand(world, event.director, 'people.add', event.eventId, { accountId: uuidv7(), name, email: `${uuidv7()}@b.example`, roles: ['angler'] }); // prettier-ignore
    expect(sent.status).toBe(400);
  });

  it('a day that the event does not have has no standings', async () => {
    const asked = await send(
      world,
      NOBODY,
      'get',
      `/api/events/${event.eventId}/standings?dayId=${uuidv7()}`,
    );
    expect(asked.status).toBe(404);
  });

  it('a name of the server that is not its own is not answered to', async () => {
    const asked = await send(world, NOBODY, 'get', '/api/who').set('Host', 'evil.example:4310');
    expect([asked.status, (asked.body as { type: string }).type]).toEqual([421, 'wrong-host']);
    const declared = await declare(world, event.angler, event.eventId, await jpeg());
    expect(declared.headers['permissions-policy']).toContain('camera=(self)');
  });
});

describe('two directors', () => {
  it('do not publish rules over each other unseen', async () => {
    const own = await holdEvent(world);
    const publish = (bagLimit: number, replaces: number) =>
      sendCommand(world, own.director, 'rules.publish', own.eventId, {
        sheet: { ...SHEET, bagLimit },
        replaces,
      });
    expect((await publish(3, 1)).status).toBe(200);
    expect((await publish(4, 1)).body).toMatchObject({ type: 'sheet-moved-on', fields: { current: 2 } });
    expect((await publish(4, 2)).status).toBe(200);
  });
});
