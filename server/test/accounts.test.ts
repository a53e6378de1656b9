import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import type { PersonView, SignInView, Who } from '@lauta/contract';
import { checkInstallation, checkLedger } from '../src/verify/checkLedger.ts';
import { hashPassword } from '../src/access/passwords.ts';
import { offerOperatorRenewal } from '../src/access/signIn.ts';
import { openDevice, register } from './device.ts';
import { done, holdEvent, openWorld, send, sendCommand, takePart, type Person, type TestEvent, type World } from './world.ts'; // prettier-ignore

const PASSWORD = 'heron amber tiller moss';
const NEXT = 'quartz lantern willow oar';

let world: World;
let event: TestEvent;
beforeAll(async () => {
  world = await openWorld({ triesPerAccount: 3, triesPerAddress: 1000 });
  event = await holdEvent(world);
});
afterAll(() => world.close());

const post = (person: Person, path: string, body: object) => send(world, person, 'post', path).send(body);
const whoIs = async (person: Person) => (await send(world, person, 'get', '/api/who')).body as Who;
const personOf = (response: { headers: Record<string, unknown> }, accountId = ''): Person => {
  const cookies = response.headers['set-cookie'] as string[];
  return { accountId, cookie: cookies.map((one) => one.split(';')[0]).join('; ') };
};

/** Somebody whom the event invited, with a password. */
async function opened(roles: ('judge' | 'angler')[] = ['judge']): Promise<Person & { email: string }> {
  const accountId = uuidv7();
  const email = `person-${accountId.slice(-8)}@lake.example`;
  await done(sendCommand(world, event.director, 'people.add', event.eventId, { accountId, name: 'Person', email, roles })); // prettier-ignore
  const link = await post(event.director, `/api/events/${event.eventId}/people/${accountId}/invitation`, {});
  const token = (link.body as { path: string }).path.replace('/invitation/', '');
  const accepted = await post({ accountId, cookie: null }, '/api/invitations/accept', { token, password: PASSWORD }); // prettier-ignore
  expect(accepted.status, accepted.text).toBe(200);
  return { ...personOf(accepted, accountId), email };
}

const signIn = (email: string, password: string, cookie: string | null = null) =>
  post({ accountId: '', cookie }, '/api/sign-in', { email, password });

describe('a role that is taken away', () => {
  it('is gone at once, with by whom and why in the record', async () => {
    const judge = await opened();
    const queue = `/api/events/${event.eventId}/queue`;
    expect((await send(world, judge, 'get', queue)).status).toBe(200);
    await done(sendCommand(world, event.director, 'people.remove', event.eventId, { accountId: judge.accountId, roles: ['judge'], why: 'Phone stolen.' })); // prettier-ignore
    expect((await send(world, judge, 'get', queue)).status).toBe(403);
    const entries = await world.lauta.storage.read.ledger.entries(event.eventId, 0, 500);
    const last = Buffer.from(entries.at(-1)?.bytes ?? []).toString();
    expect(last).toContain('"kind":"people.remove"');
    expect(last).not.toContain('stolen');
    expect(await checkLedger(world.lauta.storage.read, event.eventId)).toMatchObject({ ok: true });
  });

  it('ends the person’s open streams and partner’s phones', async () => {
    const angler = await takePart(world, event.director, event.eventId, 'Leaving', ['angler']);
    let ends = 0;
    const off = world.lauta.hub.onDrop(angler.accountId, () => (ends += 1));
    const [own] = await world.lauta.storage.read.people.entrantsWith(angler.accountId);
    const offer = await post(angler, '/api/pairings', { pairingId: uuidv7(), eventId: event.eventId, entrantId: own?.entrantId, job: 'timer' }); // prettier-ignore
    const token = (offer.body as { path: string }).path.replace('/pair/', '');
    await done(sendCommand(world, event.director, 'people.remove', event.eventId, { accountId: angler.accountId, roles: ['angler'], why: '' })); // prettier-ignore
    expect(ends).toBe(1);
    off();
    expect((await post({ accountId: '', cookie: null }, '/api/pairings/accept', { token })).status).toBe(410);
  });

  it('is never the last director’s', async () => {
    const last = await sendCommand(world, event.director, 'people.remove', event.eventId, { accountId: event.director.accountId, roles: ['director'], why: '' }); // prettier-ignore
    expect(last.body).toMatchObject({ type: 'last-director' });
  });
});

describe('an account', () => {
  it('that is closed is signed in nowhere, until it is opened again', async () => {
    const judge = await opened();
    const path = `/api/events/${event.eventId}/people/${judge.accountId}/suspension`;
    expect((await post(event.judge, path, { isSuspended: true, why: '' })).status).toBe(403);
    expect((await post(event.director, path, { isSuspended: true, why: 'Lost.' })).status).toBe(200);
    expect((await whoIs(judge)).account).toBeNull();
    expect((await signIn(judge.email, PASSWORD)).body).toMatchObject({ type: 'account-suspended' });
    expect((await signIn(judge.email, 'wrong one here')).body).toMatchObject({ type: 'sign-in-failed' });
    await post(event.director, path, { isSuspended: false, why: 'Found.' });
    expect((await signIn(judge.email, PASSWORD)).status).toBe(200);
    expect(await checkInstallation(world.lauta.storage.read)).toMatchObject({ ok: true });
  });

  it('is closed by the director who invited, or the founder, and by nobody else; the founder’s by nobody', async () => {
    const other = await holdEvent(world);
    const judge = await opened();
    // Not a founder, and of another event.
    const director = await takePart(world, other.director, other.eventId, 'Second director', ['director']);
    await done(sendCommand(world, director, 'people.add', other.eventId, { accountId: uuidv7(), name: 'X', email: judge.email, roles: ['judge'] })); // prettier-ignore
    const theirs = await post(director, `/api/events/${other.eventId}/people/${judge.accountId}/suspension`, { isSuspended: true, why: '' }); // prettier-ignore
    expect(theirs.status).toBe(404);
    const founders = await post(event.director, `/api/events/${event.eventId}/people/${event.director.accountId}/suspension`, { isSuspended: true, why: '' }); // prettier-ignore
    expect(founders.status).toBe(403);
  });
});

describe('a password', () => {
  it('is changed by its owner, and every other sign-in ends', async () => {
    const judge = await opened();
    const phone = personOf(await signIn(judge.email, PASSWORD));
    expect((await post(judge, '/api/own-password', { current: 'wrong one here', next: NEXT })).status).toBe(401); // prettier-ignore
    expect((await post(judge, '/api/own-password', { current: PASSWORD, next: NEXT })).status).toBe(200);
    expect((await whoIs(phone)).account).toBeNull();
    expect((await whoIs(judge)).account).not.toBeNull();
    expect((await signIn(judge.email, PASSWORD)).status).toBe(401);
    expect((await signIn(judge.email, NEXT)).status).toBe(200);
  });

  it('is renewed by a code of the director who invited, once; roles elsewhere must be taken up anew', async () => {
    const judge = await opened();
    const other = await holdEvent(world);
    await done(sendCommand(world, other.director, 'people.add', other.eventId, { accountId: uuidv7(), name: 'X', email: judge.email, roles: ['judge'] })); // prettier-ignore
    const theirs = await post(other.director, `/api/events/${other.eventId}/people/${judge.accountId}/invitation`, {}); // prettier-ignore
    const taken = (theirs.body as { path: string }).path.replace('/invitation/', '');
    await done(sendCommand(world, judge, 'people.accept', other.eventId, { token: taken }));
    expect((await send(world, judge, 'get', `/api/events/${other.eventId}/queue`)).status).toBe(200);

    expect((await post(other.director, `/api/events/${other.eventId}/people/${judge.accountId}/renewal`, {})).status).toBe(404); // prettier-ignore
    const offered = await post(event.director, `/api/events/${event.eventId}/people/${judge.accountId}/renewal`, {}); // prettier-ignore
    const token = (offered.body as { path: string }).path.replace('/renewal/', '');
    const renew = () =>
      post({ accountId: '', cookie: null }, '/api/renewals/accept', { token, password: NEXT });
    const renewed = await renew();
    expect(renewed.status).toBe(200);
    expect((await renew()).status).toBe(410);
    expect((await whoIs(judge)).account).toBeNull();
    const after = personOf(renewed, judge.accountId);
    expect((await send(world, after, 'get', `/api/events/${event.eventId}/queue`)).status).toBe(200);
    expect((await send(world, after, 'get', `/api/events/${other.eventId}/queue`)).status).toBe(403);
    const { body: seen } = await send(world, other.director, 'get', `/api/events/${other.eventId}/people`);
    expect((seen as PersonView[]).find(({ accountId }) => accountId === judge.accountId)).toMatchObject({ isAccepted: false }); // prettier-ignore
    expect(await checkLedger(world.lauta.storage.read, other.eventId)).toMatchObject({ ok: true });
  });

  it('of a founder, whom no director renews, is renewed by whoever runs the machine; roles stay', async () => {
    const email = (await world.lauta.storage.read.people.findAccount(event.director.accountId))?.email ?? '';
    // One who came by a sign-in of the test has no password yet: there is nothing to renew.
    expect(await offerOperatorRenewal(world.lauta, email)).toBeNull();
    expect(await offerOperatorRenewal(world.lauta, 'nobody@lake.example')).toBeNull();
    await world.lauta.storage.read.people.setPassword(event.director.accountId, await hashPassword(PASSWORD));
    const before = event.director;
    const offered = await offerOperatorRenewal(world.lauta, ` ${email.toUpperCase()}`);
    const renew = () => post({ accountId: '', cookie: null }, '/api/renewals/accept', { token: offered?.token, password: NEXT }); // prettier-ignore
    const renewed = await renew();
    expect(renewed.status, renewed.text).toBe(200);
    expect((await renew()).status).toBe(410);
    expect((await whoIs(before)).account).toBeNull();
    event.director = personOf(renewed, before.accountId);
    expect((await send(world, event.director, 'get', `/api/events/${event.eventId}/people`)).status).toBe(
      200,
    );
    expect(await checkInstallation(world.lauta.storage.read)).toMatchObject({ ok: true });
  });

  it.each(['1234567890', '          ', 'password12', 'qwertyuiop', 'aaaaaaaaaaaa'])('%j is refused', async (next) => {
    const judge = await opened();
    expect((await post(judge, '/api/own-password', { current: PASSWORD, next })).body).toMatchObject({ type: 'password-weak' }); // prettier-ignore
  }); // prettier-ignore

  it('is one by its letters, however a keyboard composes them (RFC 8265)', async () => {
    const judge = await opened();
    await post(judge, '/api/own-password', {
      current: PASSWORD,
      next: 'łódź czapla é osiem'.normalize('NFD'),
    });
    expect((await signIn(judge.email, 'łódź czapla é osiem'.normalize('NFC'))).status).toBe(200);
  });
});

describe('sign-ins', () => {
  it('are listed to their owner, and ended one by one', async () => {
    const judge = await opened();
    const phone = personOf(await send(world, { accountId: '', cookie: null }, 'post', '/api/sign-in').set('User-Agent', 'Mozilla/5.0 (iPhone) Safari/605').send({ email: judge.email, password: PASSWORD })); // prettier-ignore
    const { body } = await send(world, judge, 'get', '/api/own-sign-ins');
    const list = body as SignInView[];
    expect(list.map(({ isThis, browser }) => [isThis, browser])).toEqual([[true, ''], [false, 'Safari on iPhone']]); // prettier-ignore
    const end = (person: Person) => post(person, `/api/own-sign-ins/${list[1]?.signInId ?? ''}/end`, {});
    expect((await end(event.rival)).status).toBe(404);
    expect((await end(judge)).status).toBe(200);
    expect((await whoIs(phone)).account).toBeNull();
  });

  it('over a sign-in end that one; signing out everywhere ends codes that were offered too', async () => {
    const judge = await opened();
    const again = personOf(await signIn(judge.email, PASSWORD, judge.cookie));
    expect((await whoIs(judge)).account).toBeNull();
    expect((await whoIs(again)).account).not.toBeNull();
    const { angler, entrantId, eventId } = event;
    const phone = await world.signInAgain(angler);
    const offer = await post(phone, '/api/pairings', {
      pairingId: uuidv7(),
      eventId,
      entrantId,
      job: 'camera',
    });
    await post(phone, '/api/sign-out-everywhere', {});
    const token = (offer.body as { path: string }).path.replace('/pair/', '');
    expect((await post({ accountId: '', cookie: null }, '/api/pairings/accept', { token })).status).toBe(410);
    event = { ...event, angler: await world.signInAgain(angler) };
  });
});

describe('tries of an account', () => {
  it('count under one spelling: no other letters name it', async () => {
    const { people } = world.lauta.storage.read;
    await people.addAccount({ accountId: uuidv7(), name: 'Real', email: 'real@lake.example', passwordHash: await hashPassword(PASSWORD), founder: false, invitedByEventId: null }, new Date()); // prettier-ignore
    for (const spelling of ['réal@lake.example', 'rea\u0301l@lake.example', 'ⓡeⓐl@lake.examplé'])
      expect((await signIn(spelling, PASSWORD)).status, spelling).toBe(401);
    // What looks just like it is it, and is counted with it.
    for (let i = 0; i < 3; i++) await signIn(['real@lake.example', 're\u200dal@lake.example', 'ｒｅａｌ@lake.example'][i] ?? '', 'not the right one'); // prettier-ignore
    for (const spelling of ['real@lake.example', 'REAL@lake.example', 're\u200d\u200dal@lake.example'])
      expect((await signIn(spelling, PASSWORD)).status, spelling).toBe(429);
  });

  it('by strangers keep its owner out of no browser that signed in before', async () => {
    const judge = await opened();
    const known = personOf(await signIn(judge.email, PASSWORD));
    expect(known.cookie).toContain('lauta_known=');
    for (let i = 0; i < 4; i++) await signIn(judge.email, 'not the right one');
    expect((await signIn(judge.email, PASSWORD)).status).toBe(429);
    expect((await signIn(judge.email, PASSWORD, known.cookie)).status).toBe(200);
  });
});

describe('what is done otherwise than by a command', () => {
  it('stands in the record at the very instant that is stored with it, however the clock runs on meanwhile', async () => {
    const { clock } = world.lauta;
    const { now } = clock;
    let ticks = 0;
    clock.now = () => new Date(now.call(clock).getTime() + 7 * ticks++);
    try {
      const judge = await opened();
      const path = `/api/events/${event.eventId}/people/${judge.accountId}/suspension`;
      await register(world, judge, await openDevice({ eventId: event.eventId, entrantId: event.entrantId }));
      const own = await openDevice({ eventId: event.eventId, entrantId: event.entrantId });
      await register(world, judge, own);
      await post(judge, `/api/own-keys/${own.keyId}/revoke`, { why: 'lost' });
      await post(event.director, path, { isSuspended: true, why: 'Lost.' });
    } finally {
      clock.now = now;
    }
    expect(await checkInstallation(world.lauta.storage.read)).toMatchObject({ ok: true, faults: [] });
    expect(await checkLedger(world.lauta.storage.read, event.eventId)).toMatchObject({
      ok: true,
      faults: [],
    });
  });
});

describe('a cookie', () => {
  it('of which two disagree is nobody’s: one of them was planted', async () => {
    const judge = await opened();
    const planted = { ...judge, cookie: `${judge.cookie ?? ''}; lauta_sign_in=planted` };
    expect((await whoIs(planted)).account).toBeNull();
  });
});
