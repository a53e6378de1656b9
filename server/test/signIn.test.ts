import { checkLedger } from '../src/verify/checkLedger.ts';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { NOBODY, holdEvent, openWorld, send, sendCommand, done, type Person, type World } from './world.ts';

const FOUNDER = { name: 'First', email: 'First@Lake.example', password: 'a long enough one' };

let world: World;
beforeEach(async () => {
  world = await openWorld({ triesPerAccount: 5, triesPerAddress: 20 });
});
afterEach(() => world.close());

const post = (path: string, body: object, person: Person = NOBODY) =>
  send(world, person, 'post', path).send(body);

function personOf(response: { headers: Record<string, unknown> }): Person {
  const [cookie = ''] = response.headers['set-cookie'] as string[];
  return { accountId: '', cookie: cookie.split(';')[0] ?? '' };
}

async function who(person: Person) {
  const response = await send(world, person, 'get', '/api/who');
  return response.body as {
    isSetUp: boolean;
    account: { name: string; roles: { eventId: string }[] } | null;
  };
}

describe('a new installation', () => {
  it('asks for its first director, and only once', async () => {
    expect((await who(NOBODY)).isSetUp).toBe(false);
    const entered = await post('/api/set-up', FOUNDER);
    expect(entered.status).toBe(200);
    expect((await who(personOf(entered))).account?.name).toBe('First');
    const again = await post('/api/set-up', { ...FOUNDER, email: 'second@lake.example' });
    expect(again.status).toBe(409);
    expect(again.body).toMatchObject({ type: 'already-set-up' });
  });

  it('lets one of two in who come at the same moment', async () => {
    const come = (n: number) => post('/api/set-up', { ...FOUNDER, email: `first${n}@lake.example` });
    const statuses = (await Promise.all([come(1), come(2), come(3)])).map((response) => response.status);
    expect(statuses.sort()).toEqual([200, 409, 409]);
  });

  it('has no demo sign-in', async () => {
    await post('/api/set-up', FOUNDER);
    expect((await post('/api/sign-in/demo', { role: 'director' })).status).toBe(404);
  });

  it.each([
    ['a short password', { password: 'short' }],
    ['no name', { name: ' ' }],
    ['half an address', { email: 'first@' }],
    ['a surprise', { founder: true }],
  ])('refuses %s', async (_what, change) => {
    const response = await post('/api/set-up', { ...FOUNDER, ...change });
    expect(response.status).toBe(400);
    expect((await who(NOBODY)).isSetUp).toBe(false);
  });
});

describe('signing in', () => {
  beforeEach(async () => {
    await post('/api/set-up', FOUNDER);
  });
  const signIn = (email: string, password: string) => post('/api/sign-in', { email, password });

  it('takes the address in any case and sets a cookie that scripts can’t read', async () => {
    const response = await signIn(' first@lake.EXAMPLE', FOUNDER.password);
    expect(response.status).toBe(200);
    const [cookie] = response.headers['set-cookie'] as unknown as string[];
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Lax/);
  });

  it('answers the same for a wrong password as for an account that is not there', async () => {
    const wrong = await signIn(FOUNDER.email, 'not the password');
    const nobody = await signIn('nobody@lake.example', 'not the password');
    const strip = ({ body }: { body: Record<string, unknown> }) => ({ ...body, requestId: '' });
    expect(wrong.status).toBe(401);
    expect(nobody.status).toBe(401);
    expect(strip(nobody)).toEqual(strip(wrong));
  });

  it('shuts an account’s door after some failures, and leaves others’ open', async () => {
    for (let i = 0; i < 5; i++) expect((await signIn(FOUNDER.email, 'wrong wrong')).status).toBe(401);
    const shut = await signIn(FOUNDER.email, FOUNDER.password);
    expect(shut.status).toBe(429);
    expect(shut.body).toMatchObject({ type: 'too-many-tries' });
    expect((await signIn('other@lake.example', 'wrong wrong')).status).toBe(401);
  });

  it('does not count those who get in', async () => {
    for (let i = 0; i < 8; i++) expect((await signIn(FOUNDER.email, FOUNDER.password)).status).toBe(200);
  });

  it('keeps passwords as Argon2id only', async () => {
    const account = await world.lauta.storage.read.people.findAccountByEmail('first@lake.example');
    expect(account?.passwordHash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  });

  it('ends on signing out, and everywhere when that is asked', async () => {
    const phone = personOf(await signIn(FOUNDER.email, FOUNDER.password));
    const desk = personOf(await signIn(FOUNDER.email, FOUNDER.password));
    const tablet = personOf(await signIn(FOUNDER.email, FOUNDER.password));
    await post('/api/sign-out', {}, phone);
    expect((await who(phone)).account).toBeNull();
    expect((await who(desk)).account).not.toBeNull();
    await post('/api/sign-out-everywhere', {}, desk);
    expect((await who(desk)).account).toBeNull();
    expect((await who(tablet)).account).toBeNull();
  });

  it('runs out, and stores no token that could be used', async () => {
    const person = personOf(await signIn(FOUNDER.email, FOUNDER.password));
    const token = person.cookie?.split('=')[1] ?? '';
    const [rows] = await world.pool.query('SELECT HEX(token_sha256) AS hash FROM sign_ins');
    expect(JSON.stringify(rows).toLowerCase()).not.toContain(Buffer.from(token).toString('hex'));
    await world.pool.query("UPDATE sign_ins SET expires_at = '2020-01-01 00:00:00'");
    expect((await who(person)).account).toBeNull();
  });
});

describe('an invitation', () => {
  async function invited() {
    const { eventId, director } = await holdEvent(world);
    const accountId = uuidv7();
    const email = `new-${accountId.slice(-8)}@lake.example`;
    await done(
      sendCommand(world, director, 'people.add', eventId, {
        accountId,
        name: 'New',
        email,
        roles: ['judge'],
      }),
    );
    const ask = (person: Person = director, event = eventId) =>
      post(`/api/events/${event}/people/${accountId}/invitation`, {}, person);
    return { eventId, director, accountId, email, ask };
  }
  const tokenIn = (body: unknown) => (body as { path: string }).path.replace('/invitation/', '');
  const accept = (token: string) =>
    post('/api/invitations/accept', { token, password: 'chosen by me alone' });

  it('lets its person choose a password, once', async () => {
    const { ask, email } = await invited();
    const token = tokenIn((await ask()).body);
    const accepted = await accept(token);
    expect(accepted.status).toBe(200);
    expect((await who(personOf(accepted))).account?.name).toBe('New');
    expect((await accept(token)).status).toBe(410);
    expect((await post('/api/sign-in', { email, password: 'chosen by me alone' })).status).toBe(200);
  });

  it('is replaced by a newer one', async () => {
    const { ask } = await invited();
    const first = tokenIn((await ask()).body);
    const second = tokenIn((await ask()).body);
    expect((await accept(first)).status).toBe(410);
    expect((await accept(second)).status).toBe(200);
  });

  it('is not made anew once the roles were taken up', async () => {
    const { ask } = await invited();
    await accept(tokenIn((await ask()).body));
    expect((await ask()).status).toBe(410);
  });

  it('counts from when it was taken up, and not before', async () => {
    const { ask, eventId, accountId } = await invited();
    const { people } = world.lauta.storage.read;
    expect(await people.rolesIn(eventId, accountId)).toEqual([]);
    await accept(tokenIn((await ask()).body));
    expect(await people.rolesIn(eventId, accountId)).toEqual(['judge']);
    expect(await checkLedger(world.lauta.storage.read, eventId)).toMatchObject({ ok: true });
  });

  it('of another event opens that event alone: who occupies an address gets nobody else’s role', async () => {
    const first = await invited();
    const other = await holdEvent(world);
    const { email = '' } = (await world.lauta.storage.read.people.findAccount(first.accountId)) ?? {};
    await done(sendCommand(world, other.director, 'people.add', other.eventId, { accountId: uuidv7(), name: 'New', email, roles: ['angler'] })); // prettier-ignore
    const path = `/api/events/${other.eventId}/people/${first.accountId}/invitation`;
    expect((await post(path, {}, first.director)).status).toBe(403);
    // The other director opens the own link, and so the account.
    const occupant = personOf(await accept(tokenIn((await post(path, {}, other.director)).body)));
    expect((await who(occupant)).account?.roles.map((one) => one.eventId)).toEqual([other.eventId]);
    // The first event's link opens no account that is open already, and counts for its owner alone.
    const token = tokenIn((await first.ask()).body);
    expect((await accept(token)).body).toMatchObject({ type: 'account-opened' });
    const look = await post('/api/links/look', { token });
    expect(look.body).toMatchObject({ kind: 'invitation', hasPassword: true, eventName: 'Test event' });
    const stranger = await world.person('Stranger');
    const take = (person: Person) => sendCommand(world, person, 'people.accept', first.eventId, { token });
    expect((await take(stranger)).body).toMatchObject({ type: 'invitation-used' });
    expect((await take(occupant)).status).toBe(200);
    expect((await take(occupant)).status).toBe(410);
  });
});

describe('a demo', () => {
  it('signs in by role without a password', async () => {
    const demo = await openWorld({ isDemo: true });
    const accountId = uuidv7();
    await demo.lauta.storage.read.people.addAccount(
      { accountId, name: 'Demo judge', email: 'judge@kestrel-mere.example', passwordHash: null, founder: false, invitedByEventId: null }, // prettier-ignore
      new Date(),
    );
    expect((await send(demo, NOBODY, 'post', '/api/sign-in/demo').send({ role: 'judge' })).status).toBe(200);
    expect((await send(demo, NOBODY, 'post', '/api/sign-in/demo').send({ role: 'angler' })).status).toBe(404);
    expect((await send(demo, NOBODY, 'post', '/api/sign-in').send({ email: 'judge@kestrel-mere.example', password: 'nobody has this password' })).status).toBe(401); // prettier-ignore
    await demo.close();
  });
});
