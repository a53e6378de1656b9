import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import type { CatchView, CustodyView, PairedJob, PairingView, Who } from '@lauta/contract';
import { clockOf } from '@lauta/core/care';
import { openDevice, register } from './device.ts';
import {
  HANDLING,
  NOBODY,
  claimBody,
  done,
  holdEvent,
  openWorld,
  send,
  sendCommand,
  takePart,
  type Person,
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

const offer = (who: Person, job: PairedJob = 'timer', entrantId = event.entrantId, pairingId = uuidv7()) =>
  send(world, who, 'post', '/api/pairings').send({ pairingId, eventId: event.eventId, entrantId, job });
const accept = (token: string) => send(world, NOBODY, 'post', '/api/pairings/accept').send({ token });

/** A phone that has read the code of `who`. */
async function paired(
  who = event.angler,
  job: PairedJob = 'timer',
): Promise<{ phone: Person; token: string; pairingId: string }> {
  // prettier-ignore
  const pairingId = uuidv7();
  const offered = await offer(who, job, event.entrantId, pairingId);
  expect(offered.status, offered.text).toBe(200);
  const token = (offered.body as { path: string }).path.replace('/pair/', '');
  const answer = await accept(token);
  expect(answer.status, answer.text).toBe(200);
  const cookie = String(answer.headers['set-cookie']).split(';')[0] ?? '';
  return { phone: { accountId: who.accountId, cookie }, token, pairingId };
}
const whoIs = async (person: Person): Promise<Who> =>
  (await send(world, person, 'get', '/api/who')).body as Who;

describe('a partner’s phone', () => {
  it('is paired by its entrant with a code that works once, and acts for that entrant alone', async () => {
    expect((await offer(event.rival)).status).toBe(403);
    const { phone, token, pairingId } = await paired();
    expect((await accept(token)).body).toMatchObject({ type: 'pairing-used' });
    expect((await accept('x'.repeat(43))).status).toBe(410);
    expect((await whoIs(phone)).account).toMatchObject({
      founder: false,
      roles: [{ eventId: event.eventId, role: 'angler' }],
      entrants: [{ eventId: event.eventId, entrantId: event.entrantId }],
      pairing: { pairingId, job: 'timer' },
    });
    expect((await whoIs(event.angler)).account?.pairing).toBeNull();
  });

  it('claims and times, and neither withdraws, answers, judges, pairs another, nor signs others out', async () => {
    const both = await takePart(world, event.director, event.eventId, 'Both', ['judge', 'angler']);
    const own = (await world.lauta.storage.read.people.entrantsWith(both.accountId))[0]?.entrantId ?? '';
    const offered = await offer(both, 'camera', own);
    const token = (offered.body as { path: string }).path.replace('/pair/', '');
    const answer = await accept(token);
    const phone = {
      accountId: both.accountId,
      cookie: String(answer.headers['set-cookie']).split(';')[0] ?? '',
    };
    const body = await claimBody(world, phone, event.eventId, own);
    await done(sendCommand(world, phone, 'catch.claim', event.eventId, body));
    const { catchId } = body;
    expect((await sendCommand(world, phone, 'catch.withdraw', event.eventId, { catchId })).status).toBe(403);
    const rivals = await claimBody(world, event.rival, event.eventId, event.rivalEntrantId);
    await done(sendCommand(world, event.rival, 'catch.claim', event.eventId, rivals));
    // The account is a judge; this phone is none.
    const verdict = { catchId: rivals.catchId, verdictId: uuidv7(), replaces: null, decision: { kind: 'refused', infractions: [], reason: 'No.' } } as const; // prettier-ignore
    expect((await sendCommand(world, phone, 'catch.judge', event.eventId, { ...verdict, decision: { ...verdict.decision, infractions: [] } })).status).toBe(403); // prettier-ignore
    expect((await send(world, phone, 'get', `/api/events/${event.eventId}/queue`)).status).toBe(403);
    expect((await offer(phone, 'timer', own)).status).toBe(403);
    expect((await send(world, phone, 'post', '/api/sign-out-everywhere').send({})).status).toBe(403);
    expect((await sendCommand(world, phone, 'catch.claim', event.eventId, await claimBody(world, phone, event.eventId, event.entrantId))).status).toBe(403); // prettier-ignore
  });

  it('is out as soon as the pairing is ended, by its entrant or by itself, and by nobody else', async () => {
    const { phone, pairingId } = await paired();
    const other = await paired();
    const pairings = async (): Promise<string[]> =>
      ((await send(world, event.angler, 'get', `/api/events/${event.eventId}/own-pairings`)).body as PairingView[]).map((one) => one.pairingId); // prettier-ignore
    expect(await pairings()).toEqual(expect.arrayContaining([pairingId, other.pairingId]));
    const end = (who: Person, id: string) => send(world, who, 'post', `/api/own-pairings/${id}/end`).send({});
    expect((await end(event.rival, pairingId)).status).toBe(404);
    expect((await end(phone, other.pairingId)).status).toBe(403);
    expect((await end(event.angler, pairingId)).status).toBe(200);
    expect((await whoIs(phone)).account).toBeNull();
    expect((await end(other.phone, other.pairingId)).status).toBe(200);
    expect((await whoIs(other.phone)).account).toBeNull();
    expect(await pairings()).not.toContain(pairingId);
  });

  it('signs with a key of its own, and what it took is said to be a partner’s', async () => {
    const { phone } = await paired(event.angler, 'camera');
    const [mine, theirs] = [await openDevice(event), await openDevice(event)];
    await register(world, event.angler, mine);
    await register(world, phone, theirs);
    const body = await claimBody(world, phone, event.eventId, event.entrantId);
    const { catchId } = body;
    const photograph = await world.lauta.storage.read.photographs.find(
      body.photographs[0]?.photographId ?? '',
    );
    await mine.capture({ photographSha256: 'a'.repeat(64) });
    const captures = [await theirs.capture({ catchId, photographSha256: photograph?.sha256 ?? '' })];
    await done(
      sendCommand(world, phone, 'captures.tell', event.eventId, { entrantId: event.entrantId, captures }),
    );
    await done(sendCommand(world, phone, 'catch.claim', event.eventId, body));
    const custody = (await send(world, event.judge, 'get', `/api/catches/${catchId}/custody`))
      .body as CustodyView;
    const checks = new Map(custody.findings.map(({ check, tone }) => [check, tone]));
    expect(checks.get('partner-phone')).toBe('clear');
    expect(checks.has('second-phone')).toBe(false);
    expect((await send(world, phone, 'post', `/api/own-keys/${mine.keyId}/revoke`).send({ why: 'lost' })).status).toBe(403); // prettier-ignore
  });
});

describe('one catch on two phones', () => {
  const timed = (catchId: string, who: Person, shiftMs = 0) => ({
    command: {
      catchId,
      entrantId: event.entrantId,
      handling: {
        ...HANDLING,
        events: HANDLING.events.map((one) => ({ ...one, atMs: one.atMs + shiftMs })),
        signs: { ...HANDLING.signs },
      },
      clockOffsetMs: 0,
    },
    who,
  });
  const viewOf = async (catchId: string): Promise<CatchView> =>
    (await send(world, event.angler, 'get', `/api/catches/${catchId}`)).body as CatchView;

  it.each(['the time first', 'the claim first'])(
    'is put together by its id, %s: a lift stays one lift',
    async (order) => {
      const { phone } = await paired();
      const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
      const { command } = timed(body.catchId, phone, 700);
      const sendings = [
        () => sendCommand(world, phone, 'catch.time', event.eventId, command),
        () => sendCommand(world, event.angler, 'catch.claim', event.eventId, { ...body, handling: { ...HANDLING, events: [...HANDLING.events], signs: { ...HANDLING.signs } } }), // prettier-ignore
      ];
      for (const sending of order === 'the time first' ? sendings : sendings.reverse()) await done(sending());
      const { handling } = await viewOf(body.catchId);
      const clock = clockOf(handling?.events ?? [], 0);
      expect(clock.lifts).toHaveLength(1);
      // 6 s by either phone; seen from the first lift to the last return it is 0.7 s more.
      expect(clock.airTotalMs).toBe(6700);
    },
  );

  it('is timed once by each phone, and not for another entrant’s catch', async () => {
    const { phone } = await paired();
    const catchId = uuidv7();
    const told = {
      v: 1,
      commandId: uuidv7(),
      eventId: event.eventId,
      madeAt: '2026-06-14T10:00:00.000Z',
      deviceId: uuidv7(),
      kind: 'catch.time',
      body: timed(catchId, phone).command,
    };
    const tell = (command: object, key: string) =>
      send(world, phone, 'post', '/api/commands').set('Idempotency-Key', key).send(command);
    expect((await tell(told, told.commandId)).status).toBe(200);
    const again = { ...told, commandId: uuidv7() };
    expect((await tell(again, again.commandId)).body).toMatchObject({ type: 'handling-told' });
    const theirs = { ...timed(catchId, event.rival).command, entrantId: event.rivalEntrantId };
    expect((await sendCommand(world, event.rival, 'catch.time', event.eventId, theirs)).body).toMatchObject({
      type: 'catch-of-another',
    });
  });
});
