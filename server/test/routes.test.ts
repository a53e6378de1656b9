import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import type { CommandKind } from '@lauta/contract';
import { SHIPPED_BOARDS } from '@lauta/vision';
import { openDevice } from './device.ts';
import {
  HANDLING,
  NOBODY,
  NOON,
  claim,
  claimBody,
  commandOf,
  done,
  holdEvent,
  judge,
  openWorld,
  send,
  sendCommand,
  specimenBody,
  takePart,
  upload,
  uploadClip,
  jpeg,
  SHEET,
  type Person,
  type TestEvent,
  type World,
} from './world.ts';

const WHO = ['nobody', 'stranger', 'director', 'judge', 'weigh-master', 'angler', 'rival'] as const;
type Who = (typeof WHO)[number];

const ALL = [...WHO];
const PEOPLE = ['director', 'judge', 'weigh-master', 'angler', 'rival'] as const;
const SIGNED_IN: Who[] = ['stranger', ...PEOPLE];

/**
 * Who may call what: line for line the routes of the server, on an event that is not public.
 * Whoever is not listed is turned away with 401 or 403, or told that there is nothing (404).
 */
const ROUTES: { route: string; may: readonly Who[]; call: (place: Place) => string; body?: unknown }[] = [
  { route: 'get /api/time', may: ALL, call: () => '/api/time' },
  { route: 'get /api/who', may: ALL, call: () => '/api/who' },
  { route: 'post /api/sign-in', may: [], call: () => '/api/sign-in', body: { email: 'a@b.example', password: 'wrong password' } },
  { route: 'post /api/sign-in/demo', may: [], call: () => '/api/sign-in/demo', body: { role: 'judge' } },
  { route: 'post /api/set-up', may: [], call: () => '/api/set-up', body: { name: 'X', email: 'x@y.example', password: 'long enough' } },
  { route: 'post /api/invitations/accept', may: [], call: () => '/api/invitations/accept', body: { token: 'x'.repeat(43), password: 'long enough' } },
  { route: 'post /api/links/look', may: [], call: () => '/api/links/look', body: { token: 'x'.repeat(43) } },
  { route: 'post /api/renewals/accept', may: [], call: () => '/api/renewals/accept', body: { token: 'x'.repeat(43), password: 'long enough' } },
  { route: 'post /api/own-password', may: [], call: () => '/api/own-password', body: { current: 'wrong', next: 'quite another one' } },
  { route: 'get /api/own-sign-ins', may: SIGNED_IN, call: () => '/api/own-sign-ins' },
  { route: 'post /api/own-sign-ins/:signInId/end', may: [], call: () => `/api/own-sign-ins/${uuidv7()}/end`, body: {} },
  { route: 'post /api/events/:eventId/people/:accountId/renewal', may: ['director'], call: ({ event, openedId }) => `/api/events/${event.eventId}/people/${openedId}/renewal`, body: {} },
  { route: 'post /api/events/:eventId/people/:accountId/suspension', may: ['director'], call: ({ event, openedId }) => `/api/events/${event.eventId}/people/${openedId}/suspension`, body: { isSuspended: false, why: 'Test.' } },
  { route: 'get /api/ledger-keys', may: ALL, call: () => '/api/ledger-keys' },
  { route: 'get /api/events/:eventId/ledger/entries/:seq/hash', may: PEOPLE, call: ({ event }) => `/api/events/${event.eventId}/ledger/entries/1/hash` },
  { route: 'get /api/events', may: ALL, call: () => '/api/events' },
  { route: 'get /api/events/:eventId', may: PEOPLE, call: ({ event }) => `/api/events/${event.eventId}` },
  { route: 'get /api/events/:eventId/rules', may: PEOPLE, call: ({ event }) => `/api/events/${event.eventId}/rules` },
  { route: 'get /api/events/:eventId/boards', may: PEOPLE, call: ({ event }) => `/api/events/${event.eventId}/boards` },
  { route: 'get /api/events/:eventId/people', may: ['director', 'judge'], call: ({ event }) => `/api/events/${event.eventId}/people` },
  { route: 'get /api/events/:eventId/people.csv', may: ['director', 'judge'], call: ({ event }) => `/api/events/${event.eventId}/people.csv` },
  { route: 'post /api/events/:eventId/people/:accountId/invitation', may: ['director'], call: ({ event, invitedId }) => `/api/events/${event.eventId}/people/${invitedId}/invitation`, body: {} },
  { route: 'get /api/events/:eventId/entrants/:entrantId/identifiers', may: ['director', 'judge', 'angler'], call: ({ event }) => `/api/events/${event.eventId}/entrants/${event.entrantId}/identifiers` },
  { route: 'get /api/events/:eventId/entrants/:entrantId/identifiers.pdf', may: ['director', 'judge', 'angler'], call: ({ event }) => `/api/events/${event.eventId}/entrants/${event.entrantId}/identifiers.pdf` },
  { route: 'get /api/events/:eventId/days/:dayId/identifiers.pdf', may: ['director'], call: ({ event }) => `/api/events/${event.eventId}/days/${event.dayId}/identifiers.pdf` },
  { route: 'get /api/events/:eventId/standings', may: PEOPLE, call: ({ event }) => `/api/events/${event.eventId}/standings` },
  { route: 'get /api/events/:eventId/standings.csv', may: PEOPLE, call: ({ event }) => `/api/events/${event.eventId}/standings.csv` },
  { route: 'get /api/events/:eventId/own-catches', may: SIGNED_IN, call: ({ event }) => `/api/events/${event.eventId}/own-catches` },
  { route: 'get /api/events/:eventId/queue', may: ['judge'], call: ({ event }) => `/api/events/${event.eventId}/queue` },
  { route: 'get /api/events/:eventId/catches.csv', may: ['judge'], call: ({ event }) => `/api/events/${event.eventId}/catches.csv` },
  { route: 'get /api/events/:eventId/own-catches.csv', may: SIGNED_IN, call: ({ event }) => `/api/events/${event.eventId}/own-catches.csv` },
  { route: 'get /api/catches/:catchId', may: ['director', 'judge', 'angler'], call: ({ catchId }) => `/api/catches/${catchId}` },
  { route: 'get /api/catches/:catchId/bench-reading', may: ['judge', 'angler'], call: ({ catchId }) => `/api/catches/${catchId}/bench-reading` },
  { route: 'get /api/catches/:catchId/custody', may: ['judge'], call: ({ catchId }) => `/api/catches/${catchId}/custody` },
  { route: 'get /api/events/:eventId/announced', may: ['judge'], call: ({ event }) => `/api/events/${event.eventId}/announced` },
  { route: 'get /api/events/:eventId/asked-frames', may: SIGNED_IN, call: ({ event }) => `/api/events/${event.eventId}/asked-frames` },
  { route: 'get /api/events/:eventId/waters', may: PEOPLE, call: ({ event }) => `/api/events/${event.eventId}/waters` },
  { route: 'get /api/events/:eventId/entrants/:entrantId/well', may: ['angler'], call: ({ event }) => `/api/events/${event.eventId}/entrants/${event.entrantId}/well` },
  { route: 'get /api/events/:eventId/weigh-in', may: ['director', 'judge', 'weigh-master'], call: ({ event }) => `/api/events/${event.eventId}/weigh-in` },
  { route: 'get /api/events/:eventId/bags', may: PEOPLE, call: ({ event }) => `/api/events/${event.eventId}/bags` },
  { route: 'get /api/events/:eventId/specimens', may: ['director', 'judge'], call: ({ event }) => `/api/events/${event.eventId}/specimens` },
  { route: 'get /api/events/:eventId/own-specimens', may: SIGNED_IN, call: ({ event }) => `/api/events/${event.eventId}/own-specimens` },
  // A ticket needs an event by weight: who may see one is tested with the weigh-in.
  { route: 'get /api/events/:eventId/tickets/:ticketId/ticket.pdf', may: [], call: ({ event }) => `/api/events/${event.eventId}/tickets/${uuidv7()}/ticket.pdf` },
  { route: 'post /api/pairings', may: ['angler'], call: () => '/api/pairings', body: ({ event }: Place) => ({ pairingId: uuidv7(), eventId: event.eventId, entrantId: event.entrantId, job: 'timer' }) },
  { route: 'post /api/pairings/accept', may: [], call: () => '/api/pairings/accept', body: { token: 'x'.repeat(43) } },
  { route: 'get /api/events/:eventId/own-pairings', may: SIGNED_IN, call: ({ event }) => `/api/events/${event.eventId}/own-pairings` },
  { route: 'post /api/own-pairings/:pairingId/end', may: [], call: () => `/api/own-pairings/${uuidv7()}/end`, body: {} },
  { route: 'get /api/own-keys', may: SIGNED_IN, call: () => '/api/own-keys' },
  // Who may register and strike off what is tested with real keys.
  { route: 'post /api/own-keys', may: [], call: () => '/api/own-keys', body: {} },
  { route: 'post /api/own-keys/:keyId/revoke', may: [], call: () => `/api/own-keys/${'a'.repeat(64)}/revoke`, body: { why: 'lost' } },
  { route: 'put /api/photographs/:photographId', may: [], call: ({ photographId }) => `/api/photographs/${photographId}`, body: {} },
  { route: 'put /api/photographs/:photographId/chunks/:seq', may: ['angler'], call: ({ photographId }) => `/api/photographs/${photographId}/chunks/0` },
  { route: 'post /api/photographs/:photographId/complete', may: ['angler'], call: ({ photographId }) => `/api/photographs/${photographId}/complete`, body: {} },
  { route: 'get /api/photographs/:photographId/original', may: ['judge', 'angler'], call: ({ photographId }) => `/api/photographs/${photographId}/original` },
  { route: 'get /api/photographs/:photographId/screen', may: ['director', 'judge', 'angler'], call: ({ photographId }) => `/api/photographs/${photographId}/screen` },
  { route: 'get /api/photographs/:photographId/thumb', may: ['director', 'judge', 'angler'], call: ({ photographId }) => `/api/photographs/${photographId}/thumb` },
  { route: 'get /api/events/:eventId/ledger', may: PEOPLE, call: ({ event }) => `/api/events/${event.eventId}/ledger` },
  { route: 'get /api/events/:eventId/ledger/check', may: PEOPLE, call: ({ event }) => `/api/events/${event.eventId}/ledger/check` },
  { route: 'get /api/events/:eventId/ledger.jsonl', may: PEOPLE, call: ({ event }) => `/api/events/${event.eventId}/ledger.jsonl` },
  // The stream never ends: who is let in is tested with the stream itself.
  { route: 'get /api/events/:eventId/stream', may: [], call: () => `/api/events/${uuidv7()}/stream` },
  { route: 'post /api/commands', may: [], call: () => '/api/commands', body: {} },
  { route: 'post /api/sign-out', may: SIGNED_IN, call: () => '/api/sign-out', body: {} },
  { route: 'post /api/sign-out-everywhere', may: SIGNED_IN, call: () => '/api/sign-out-everywhere', body: {} },
]; // prettier-ignore

interface Place {
  event: TestEvent;
  catchId: string;
  photographId: string;
  invitedId: string;
  /** Of somebody whom the event invited, and who has a password. */
  openedId: string;
}

let world: World;
let place: Place;
let people: Record<Who, Person>;

async function prepare(): Promise<void> {
  world = await openWorld();
  const event = await holdEvent(world, { isPublic: false });
  const weighMaster = await takePart(world, event.director, event.eventId, 'Weigh master', ['weigh-master']);
  const catchId = await claim(world, event);
  const [photograph] = await world.lauta.storage.read.catches.photographsOf(catchId);
  const invitedId = uuidv7();
  const invited = commandOf('people.add', event.eventId, {
    accountId: invitedId,
    name: 'Invited',
    email: 'invited@test.example',
    roles: ['judge'],
  });
  await send(world, event.director, 'post', '/api/commands').set('Idempotency-Key', invited.commandId).send(invited); // prettier-ignore
  const openedId = uuidv7();
  const opened = {
    accountId: openedId,
    name: 'Opened',
    email: 'opened@test.example',
    roles: ['judge' as const],
  };
  await done(sendCommand(world, event.director, 'people.add', event.eventId, opened));
  await world.lauta.storage.read.people.setPassword(openedId, 'of no use');
  place = { event, catchId, photographId: photograph?.photographId ?? '', invitedId, openedId };
  people = {
    nobody: NOBODY,
    stranger: await world.person('Stranger'),
    director: event.director,
    judge: event.judge,
    'weigh-master': weighMaster,
    angler: event.angler,
    rival: event.rival,
  };
}

describe('every route', () => {
  beforeAll(prepare);
  afterAll(() => world.close());

  it('stands in the table of this test', () => {
    const served = world.routes.map(({ method, path }) => `${method} ${path}`).sort();
    expect(ROUTES.map((one) => one.route).sort()).toEqual(served);
  });

  it.each(ROUTES.flatMap((line) => WHO.map((who) => [line.route, who, line] as const)))(
    '%s for %s',
    async (_route, who, line) => {
      const [method] = line.route.split(' ') as ['get' | 'post' | 'put'];
      const person = line.route.includes('sign-out') ? await world.signInAgain(people[who]) : people[who];
      const test = send(world, person, method, line.call(place));
      const body: unknown =
        typeof line.body === 'function' ? (line.body as (at: Place) => unknown)(place) : line.body;
      const response = await (body === undefined ? test : test.send(body as object));
      const isIn = line.may.includes(who);
      // A chunk without bytes is refused for its size, after its sender was let in.
      const inStatus = line.route.includes('/chunks/') ? 422 : 200;
      if (isIn) expect(response.status, response.text).toBe(inStatus);
      else expect([400, 401, 403, 404, 409, 410], `${response.status}`).toContain(response.status);
      expect(response.headers['content-security-policy']).toContain("default-src 'self'");
      expect(response.headers['x-content-type-options']).toBe('nosniff');
    },
  );
});

describe('every command', () => {
  beforeAll(prepare);
  afterAll(() => world.close());

  const COMMANDS: Record<CommandKind, readonly Who[]> = {
    'event.create': ['director'],
    'rules.publish': ['director'],
    'board.add': ['director'],
    'people.add': ['director'],
    'people.accept': [],
    'people.remove': ['director'],
    'waters.publish': ['director'],
    'captures.tell': ['angler'],
    'catch.announce': ['angler'],
    'frames.ask': ['judge'],
    'frame.send': ['angler'],
    'catch.claim': ['angler'],
    'catch.judge': ['judge'],
    'catch.answer': ['angler'],
    'catch.handle': ['angler'],
    'catch.time': ['angler'],
    'catch.clip': ['angler'],
    'well.enter': ['angler'],
    'weigh-in.enter': ['director', 'weigh-master'],
    'specimen.record': ['angler'],
    'results.declare': ['director'],
    'codes.reveal': ['director'],
    'catch.withdraw': ['angler'],
    'catch.restore': ['angler'],
  };

  /** A catch with a frame that its device signed and kept. */
  async function framesAsked(): Promise<{ catchId: string; captureIds: string[] }> {
    const { event } = place;
    const catchId = await claim(world, event);
    const capture = await (await openDevice(event)).capture({ catchId, photographSha256: 'a'.repeat(64) });
    await done(sendCommand(world, event.angler, 'captures.tell', event.eventId, { entrantId: event.entrantId, captures: [capture] })); // prettier-ignore
    return { catchId, captureIds: [capture.statement.captureId] };
  }

  async function bodyOf(kind: CommandKind, eventId: string): Promise<unknown> {
    const { event } = place;
    switch (kind) {
      case 'event.create':
        return { eventId, name: 'Another', zone: 'Europe/Warsaw', isPublic: false, days: [{ date: '2026-07-01', sessions: [{ linesInLocal: '2026-07-01T06:00', linesOutLocal: '2026-07-01T15:00' }] }] }; // prettier-ignore
      case 'rules.publish':
        return { sheet: SHEET };
      case 'board.add':
        return { board: { ...SHIPPED_BOARDS[0], id: `kind-${uuidv7().slice(-8)}` } };
      case 'people.add':
        return { accountId: uuidv7(), name: 'New', email: `${uuidv7()}@test.example`, roles: ['angler'] };
      case 'people.accept':
        // Whoever has the link of the own roles: tested with links.
        return { token: 'x'.repeat(43) };
      case 'people.remove': {
        const { accountId } = await takePart(world, event.director, event.eventId, 'Leaves', ['angler']);
        return { accountId, roles: ['angler'], why: 'Left.' };
      }
      case 'catch.claim':
        return claimBody(world, event.angler, event.eventId, event.entrantId);
      case 'waters.publish':
        return { waters: { type: 'FeatureCollection', features: [{ type: 'Feature', properties: { name: 'mere' }, geometry: { type: 'Polygon', coordinates: [[[19, 51], [20, 51], [20, 52], [19, 51]]] } }] } }; // prettier-ignore
      case 'captures.tell':
        return { entrantId: event.entrantId, captures: [await (await openDevice(event)).capture({ photographSha256: 'a'.repeat(64) })] }; // prettier-ignore
      case 'catch.announce':
        return { catchId: uuidv7(), entrantId: event.entrantId, speciesId: 'bass', capturedAt: NOON, claimedSteps: 60, identifierCode: null, photographs: [{ photographId: uuidv7(), sha256: 'a'.repeat(64), byteLength: 9 }] }; // prettier-ignore
      case 'frames.ask':
        return framesAsked();
      case 'frame.send': {
        const asked = await framesAsked();
        await done(sendCommand(world, event.judge, 'frames.ask', event.eventId, asked));
        return { catchId: asked.catchId, captureId: asked.captureIds[0], photographId: null };
      }
      case 'catch.judge':
        return { catchId: await claim(world, event), verdictId: uuidv7(), replaces: null, decision: { kind: 'refused', infractions: [], reason: 'Test.' } }; // prettier-ignore
      case 'catch.answer': {
        const catchId = await claim(world, event);
        const verdictId = await judge(world, event, catchId, {
          kind: 'sent-back',
          request: 'Another frame.',
        });
        return { catchId, answerId: uuidv7(), verdictId, words: 'Here.', photographId: null };
      }
      case 'catch.handle':
        return { catchId: await claim(world, event), handling: HANDLING };
      case 'catch.time':
        return { catchId: uuidv7(), entrantId: event.entrantId, handling: HANDLING, clockOffsetMs: null };
      case 'catch.clip':
        return {
          catchId: await claim(world, event),
          clipId: await uploadClip(world, event.angler, event.eventId),
        };
      case 'weigh-in.enter':
        return { entries: [{ entryId: uuidv7(), atMs: 1, act: { kind: 'queued', ticketId: uuidv7(), entrantId: event.entrantId, dayId: event.dayId, number: 1 } }] }; // prettier-ignore
      case 'specimen.record':
        return specimenBody(event.entrantId);
      case 'well.enter':
        return { entrantId: event.entrantId, dayId: event.dayId, entries: [{ entryId: uuidv7(), atMs: 1, act: { kind: 'declared', count: 0 } }] }; // prettier-ignore
      case 'results.declare':
        return { isOfficial: false };
      case 'codes.reveal':
        return { dayId: event.dayId, from: null };
      case 'catch.withdraw':
        return { catchId: await claim(world, event) };
      case 'catch.restore': {
        const catchId = await claim(world, event);
        const withdraw = commandOf('catch.withdraw', event.eventId, { catchId });
        await send(world, event.angler, 'post', '/api/commands').set('Idempotency-Key', withdraw.commandId).send(withdraw); // prettier-ignore
        return { catchId };
      }
    }
  }

  it.each(
    Object.entries(COMMANDS).flatMap(([kind, may]) =>
      WHO.map((who) => [kind as CommandKind, who, may] as const),
    ),
  )('%s from %s', async (kind, who, may) => {
    const eventId = kind === 'event.create' ? uuidv7() : place.event.eventId;
    const body = await bodyOf(kind, eventId);
    const command = commandOf(kind, eventId, body as never);
    const before = await world.lauta.storage.read.ledger.head(place.event.eventId);
    const response = await send(world, people[who], 'post', '/api/commands')
      .set('Idempotency-Key', command.commandId)
      .send(command);
    const after = await world.lauta.storage.read.ledger.head(place.event.eventId);
    if (may.includes(who)) expect(response.status, response.text).toBe(200);
    else {
      const strangers = kind !== 'event.create' && who === 'stranger' ? 404 : 403;
      expect(response.status).toBe(who === 'nobody' ? 401 : kind === 'people.accept' ? 410 : strangers);
      expect(after).toEqual(before);
    }
  });

  it('judge of an own catch is refused to a judge who fishes', async () => {
    const { event } = place;
    const both = await takePart(world, event.director, event.eventId, 'Both', ['judge', 'angler']);
    const own = await world.lauta.storage.read.people.entrantsWith(both.accountId);
    const body = await claimBody(world, both, event.eventId, own[0]?.entrantId ?? '');
    const command = commandOf('catch.claim', event.eventId, body);
    await send(world, both, 'post', '/api/commands').set('Idempotency-Key', command.commandId).send(command);
    const verdict = commandOf('catch.judge', event.eventId, {
      catchId: body.catchId,
      verdictId: uuidv7(),
      replaces: null,
      decision: { kind: 'accepted', steps: 62, infractions: [], note: '' },
    });
    const response = await send(world, both, 'post', '/api/commands').set('Idempotency-Key', verdict.commandId).send(verdict); // prettier-ignore
    expect(response.status).toBe(403);
    expect(response.body).toMatchObject({ type: 'own-catch' });
  });
});

describe('a write from another origin', () => {
  beforeAll(prepare);
  afterAll(() => world.close());

  it.each([
    ['another site', { Origin: 'https://elsewhere.example' }],
    ['another port', { Origin: 'http://127.0.0.1:4311' }],
    ['no origin at all', {}],
    ['a browser that says cross-site', { Origin: 'http://127.0.0.1:4310', 'Sec-Fetch-Site': 'cross-site' }],
    ['a null origin', { Origin: 'null' }],
  ])('%s is refused', async (_name, headers) => {
    const response = await send(world, people.judge, 'post', '/api/sign-out')
      .unset('Origin')
      .set(headers)
      .send({});
    expect(response.status).toBe(403);
    expect(response.body).toMatchObject({ type: 'wrong-origin' });
  });

  it('the browser’s own word is enough', async () => {
    const response = await send(world, people.rival, 'post', '/api/sign-out')
      .unset('Origin')
      .set('Sec-Fetch-Site', 'same-origin')
      .send({});
    expect(response.status).toBe(200);
  });
});

describe('a path that can’t be read', () => {
  beforeAll(prepare);
  afterAll(() => world.close());

  it.each([
    ['/api/events/%E0%A4%A', 400],
    ['/api/nothing/here', 404],
    ['/api/events/not-an-id', 404],
  ])('%s is refused with %d, not a fault of the server', async (path, status) => {
    const response = await send(world, people.judge, 'get', path);
    expect(response.status).toBe(status);
    expect(response.headers['content-type']).toContain('application/problem+json');
  });
});

describe('photographs of others', () => {
  beforeAll(prepare);
  afterAll(() => world.close());

  it('before a claim are seen by their sender alone', async () => {
    const photographId = uuidv7();
    await upload(world, people.angler, place.event.eventId, await jpeg(), photographId);
    const see = (who: Who) => send(world, people[who], 'get', `/api/photographs/${photographId}/screen`);
    expect((await see('angler')).status).toBe(200);
    expect((await see('rival')).status).toBe(404);
    expect((await see('judge')).status).toBe(404);
  });
});
