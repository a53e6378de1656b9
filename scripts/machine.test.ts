import { createHash, randomBytes } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { request } from 'node:https';
import { gzipSync } from 'node:zlib';
import { join } from 'node:path';
import mysql from 'mysql2/promise';
import { generate } from 'selfsigned';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startDatabase, type Database } from './machine/database.mjs';
import { ROOT } from './machine/installation.mjs';
import { freePort, isRunning, run } from './machine/processes.mjs';
import { startServer } from './machine/server.mjs';
import { Client, FOUNDER, Start, newEvent, pidIn, scratch, until } from './machine/wholeMachine.ts';

describe('a server whose database goes away', () => {
  const dir = scratch();
  let database: Database;
  let server: Awaited<ReturnType<typeof startServer>>;
  let client: Client;
  const eventId = crypto.randomUUID();

  beforeAll(async () => {
    database = await startDatabase({ dir, durable: true });
    server = await startServer({
      pidFile: join(dir, 'server.pid'),
      print: () => undefined,
      env: {
        LAUTA_DB: database.uri(),
        LAUTA_DEMO: 'none',
        LAUTA_LOG: 'silent',
        PORT: String(await freePort()),
      },
    });
    client = new Client(server.address);
    await client.ask('POST', '/api/set-up', FOUNDER);
    expect((await client.command('event.create', eventId, newEvent(eventId))).status).toBe(200);
  });
  afterAll(async () => {
    await server.stop();
    await database.stop();
  });

  it('answers 503 with a clear problem meanwhile, and goes on when it is back', async () => {
    expect((await client.ask('GET', '/readyz')).status).toBe(200);
    await database.stop();
    const away = await client.ask('GET', '/api/events');
    expect(away.status).toBe(503);
    expect(away.headers.get('content-type')).toContain('application/problem+json');
    expect(away.headers.get('retry-after')).toBe('2');
    expect(away.json()).toMatchObject({ type: 'database-away' });
    expect((await client.ask('GET', '/readyz')).status).toBe(503);
    expect((await client.ask('GET', '/healthz')).status).toBe(200);
    database = await startDatabase({ dir, durable: true, port: database.port });
    await until(async () => (await client.ask('GET', '/readyz')).status === 200);
    const events = await client.ask('GET', '/api/events');
    expect(events.json()).toMatchObject([{ name: 'Here to stay' }]);
  });

  it('keeps what it acknowledged when mariadbd is killed the moment after', async () => {
    const commandId = crypto.randomUUID();
    const person = { accountId: crypto.randomUUID(), name: 'Angler', email: 'angler@lake.example', roles: ['angler'] }; // prettier-ignore
    const receipt = await client.command('people.add', eventId, person, commandId);
    expect(receipt.status).toBe(200);
    await database.kill();
    database = await startDatabase({ dir, durable: true, port: database.port });
    await until(async () => (await client.ask('GET', '/readyz')).status === 200);
    const people = (await client.ask('GET', `/api/events/${eventId}/people`)).json() as { name: string }[];
    expect(people.map((one) => one.name)).toContain('Angler');
    const ledger = (await client.ask('GET', `/api/events/${eventId}/ledger/check`)).json();
    expect(ledger).toMatchObject({ ok: true, entries: (receipt.json() as { seq: number }).seq });
  });
});

describe('an upload in faulty times', () => {
  const dir = scratch();
  let database: Database;
  let server: Awaited<ReturnType<typeof startServer>>;
  let client: Client;
  let port: number;
  const eventId = crypto.randomUUID();
  const serve = () =>
    startServer({
      pidFile: join(dir, 'server.pid'),
      print: () => undefined,
      env: { LAUTA_DB: database.uri(), LAUTA_DEMO: 'none', LAUTA_LOG: 'silent', PORT: String(port) },
    });

  beforeAll(async () => {
    port = await freePort();
    database = await startDatabase({ dir, durable: true });
    server = await serve();
    client = new Client(server.address);
    await client.ask('POST', '/api/set-up', FOUNDER);
    expect((await client.command('event.create', eventId, newEvent(eventId))).status).toBe(200);
  });
  afterAll(async () => {
    await server.stop();
    await database.stop();
  });

  it('goes on where it was when the database is restarted in its middle', async () => {
    const noise = randomBytes(1600 * 1200 * 3);
    const photo = await sharp(noise, { raw: { width: 1600, height: 1200, channels: 3 } })
      .jpeg({ quality: 95 })
      .toBuffer();
    const photographId = crypto.randomUUID();
    const path = `/api/photographs/${photographId}`;
    const sha256 = createHash('sha256').update(photo).digest('hex');
    const declare = () =>
      client.ask('PUT', path, { photographId, eventId, byteLength: photo.length, sha256 });
    const { chunkBytes } = (await declare()).json() as { chunkBytes: number };
    expect(photo.length).toBeGreaterThan(2 * chunkBytes);
    const chunk = (seq: number) =>
      client.bytes(`${path}/chunks/${seq}`, photo.subarray(seq * chunkBytes, (seq + 1) * chunkBytes));
    expect((await chunk(0)).status).toBe(200);
    await database.stop();
    const away = await chunk(1);
    expect(away.status).toBe(503);
    expect(away.json()).toMatchObject({ type: 'database-away' });
    database = await startDatabase({ dir, durable: true, port: database.port });
    await until(async () => (await client.ask('GET', '/readyz')).status === 200);
    expect((await declare()).json()).toMatchObject({ state: 'receiving', received: [0] });
    for (let seq = 1; seq * chunkBytes < photo.length; seq++) expect((await chunk(seq)).status).toBe(200);
    expect((await client.ask('POST', `${path}/complete`, {})).json()).toMatchObject({ state: 'complete' });
    const etag = (await client.ask('GET', `${path}/original`)).headers.get('etag');
    expect(etag).toBe(`"${sha256}"`);
  });

  it('whose server is killed between storing a command and answering it gets its one receipt afterwards', async () => {
    const stored = await mysql.createConnection(database.uri());
    const countOf = async (commandId: string): Promise<number> => {
      const [rows] = await stored.query<mysql.RowDataPacket[]>('SELECT COUNT(*) AS n FROM receipts WHERE idempotency_key = ?', [commandId]); // prettier-ignore
      return Number(rows[0]?.['n']);
    };
    const commandId = crypto.randomUUID();
    const person = {
      accountId: crypto.randomUUID(),
      name: 'Once',
      email: 'once@lake.example',
      roles: ['judge'],
    };
    const command = { v: 1, commandId, eventId, madeAt: new Date().toISOString(), deviceId: crypto.randomUUID(), kind: 'people.add', body: person }; // prettier-ignore
    const send = () => client.ask('POST', '/api/commands', command, { 'idempotency-key': commandId });
    // Whatever it answers is not heard.
    const unheard = send().catch(() => null);
    await until(async () => (await countOf(commandId)) === 1, 10_000);
    process.kill(pidIn(join(dir, 'server.pid')), 'SIGKILL');
    await unheard;
    await server.ended;
    await expect(send()).rejects.toThrow();
    server = await serve();
    const receipt = await send();
    expect(receipt.status).toBe(200);
    expect(await countOf(commandId)).toBe(1);
    const people = (await client.ask('GET', `/api/events/${eventId}/people`)).json() as { name: string }[];
    expect(people.filter(({ name }) => name === 'Once')).toHaveLength(1);
    const { seq } = receipt.json() as { seq: number };
    expect((await client.ask('GET', `/api/events/${eventId}/ledger/check`)).json()).toMatchObject({ ok: true, entries: seq }); // prettier-ignore
    await stored.end();
  });
});

describe('HTTPS by certificate files', () => {
  it('serves the pages and a cookie that only HTTPS carries, and refuses a certificate without its key', async () => {
    const dir = scratch();
    const made = await generate([{ name: 'commonName', value: 'lauta.test' }], { keySize: 2048 });
    const [certFile, keyFile] = [join(dir, 'cert.pem'), join(dir, 'key.pem')];
    writeFileSync(certFile, made.cert);
    writeFileSync(keyFile, made.private);
    const database = await startDatabase({ dir: join(dir, 'database'), durable: true });
    const env = { LAUTA_DB: database.uri(), LAUTA_DEMO: 'none', LAUTA_LOG: 'silent', LAUTA_TLS_CERT: certFile, PORT: String(await freePort()) }; // prettier-ignore
    const start = (more: Record<string, string>) =>
      startServer({ pidFile: join(dir, 'server.pid'), print: () => undefined, env: { ...env, ...more } });
    await expect(start({})).rejects.toThrow(/before it served/);
    const server = await start({ LAUTA_TLS_KEY: keyFile });
    expect(server.address).toMatch(/^https:/);
    const answer = await new Promise<{ status?: number; cookie: string }>((resolve, reject) => {
      const body = JSON.stringify(FOUNDER);
      const asked = request(
        `${server.address}/api/set-up`,
        {
          method: 'POST',
          ca: made.cert,
          checkServerIdentity: () => undefined,
          headers: { origin: server.address, 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) }, // prettier-ignore
        },
        ({ statusCode, headers }) => resolve({ ...(statusCode ? { status: statusCode } : {}), cookie: String(headers['set-cookie']) }), // prettier-ignore
      );
      asked.on('error', reject).end(body);
    });
    expect(answer.status).toBe(200);
    expect(answer.cookie).toMatch(/; Secure/);
    await server.stop();
    await database.stop();
  });
});

describe('npm start', () => {
  const dir = scratch();
  let port: number;
  beforeAll(async () => {
    port = await freePort();
  });

  it('serves the demo, says where, and stops cleanly with its data kept', async () => {
    const start = new Start(dir, port);
    await start.up();
    expect(start.output).toContain(`Lauta is at http://127.0.0.1:${port}`);
    expect(start.output).toContain('make and start the database:');
    expect(start.output).toMatch(/a button for each role/);
    const client = new Client(`http://127.0.0.1:${port}`);
    const page = await client.ask('GET', '/');
    expect(page.text).toContain('<div id="root">');
    expect((await client.ask('POST', '/api/sign-in/demo', { role: 'judge' })).status).toBe(200);
    const mariadbd = pidIn(join(dir, 'database/mariadbd.pid'));
    start.child.kill('SIGTERM');
    expect(await start.ended).toBe(143);
    expect(isRunning(mariadbd)).toBe(false);
  });

  it('is up again within ten seconds, with the same data and its clock gone on', async () => {
    const from = performance.now();
    const start = new Start(dir, port);
    await start.up();
    expect(performance.now() - from).toBeLessThan(10_000);
    const client = new Client(`http://127.0.0.1:${port}`);
    const [event] = (await client.ask('GET', '/api/events')).json() as { catches: number }[];
    expect(event?.catches).toBe(1);
    // Killed as hard as can be: its server and its database are left behind.
    start.child.kill('SIGKILL');
    await start.ended;
    expect(isRunning(pidIn(join(dir, 'server.pid')))).toBe(true);
  });

  it('finds and clears what a killed run left behind', async () => {
    const [server, mariadbd] = [pidIn(join(dir, 'server.pid')), pidIn(join(dir, 'database/mariadbd.pid'))];
    const start = new Start(dir, port);
    await start.up();
    expect(start.output).toContain('left behind was stopped');
    expect(isRunning(server)).toBe(false);
    expect(isRunning(mariadbd)).toBe(false);
    start.child.kill('SIGINT');
    expect(await start.ended).toBe(130);
  });

  it('starts a server and a database again that ended by themselves, and says so', async () => {
    const start = new Start(dir, port);
    await start.up();
    const client = new Client(`http://127.0.0.1:${port}`);
    const answers = () => client.ask('GET', '/readyz').then(({ status }) => status === 200, () => false); // prettier-ignore
    const database = pidIn(join(dir, 'database/mariadbd.pid'));
    process.kill(database, 'SIGKILL');
    await until(async () => !isRunning(database));
    await until(answers, 60_000);
    expect(start.output).toContain('The database has ended by itself');
    const server = pidIn(join(dir, 'server.pid'));
    process.kill(server, 'SIGKILL');
    await until(async () => start.output.includes('The server runs again.'), 60_000);
    await until(answers, 60_000);

    // Another one in the wrong terminal ends nothing.
    const second = new Start(dir, await freePort());
    expect(await second.ended).toBe(1);
    expect(second.output).toContain('--take-over');
    expect(await answers()).toBe(true);
    const third = new Start(dir, port, ['--take-over']);
    await third.up();
    expect(await start.ended).toBe(143);
    third.child.kill('SIGTERM');
    await third.ended;
  });

  it('gives the server’s own account no right to rewrite what is added to, nor to change a table', async () => {
    const database = await startDatabase({ dir: join(dir, 'database'), durable: true });
    const connection = await mysql.createConnection(database.runUri());
    for (const statement of [
      'UPDATE ledger_entries SET seq = seq + 1',
      'DELETE FROM ledger_entries',
      'UPDATE verdicts SET seq = 9',
      'DELETE FROM catches',
      'DROP TABLE flanks',
      'DROP TRIGGER ledger_entries_no_update',
      'CREATE TABLE mine (a int)',
      'GRANT ALL ON *.* TO lauta_run',
    ])
      await expect(connection.query(statement), statement).rejects.toThrow(/denied/);
    await connection.query('SELECT COUNT(*) FROM catches');
    await connection.end();
    await database.stop();
  });

  it('refuses a flag that it does not know, and says which it does', async () => {
    const start = new Start(dir, port, ['--fast']);
    expect(await start.ended).toBe(1);
    expect(start.output).toContain('--fresh');
  });

  const eventId = crypto.randomUUID();

  it('--empty --fresh begins a real installation without a demo', async () => {
    const start = new Start(dir, port, ['--empty', '--fresh']);
    await start.up();
    const client = new Client(`http://127.0.0.1:${port}`);
    expect((await client.ask('GET', '/api/who')).json()).toMatchObject({ isSetUp: false, isDemo: false });
    expect((await client.ask('POST', '/api/sign-in/demo', { role: 'director' })).status).toBe(404);
    await client.ask('POST', '/api/set-up', FOUNDER);
    expect((await client.command('event.create', eventId, newEvent(eventId))).status).toBe(200);
    start.child.kill('SIGTERM');
    await start.ended;
  });

  it('--fresh leaves a real installation alone unless one of its events is named, and keeps it all the same', async () => {
    for (const flag of ['--fresh', '--fresh=Another one']) {
      const refused = new Start(dir, port, [flag]);
      expect(await refused.ended).toBe(1);
      expect(refused.output).toContain('There is a real installation here');
    }
    const start = new Start(dir, port, ['--fresh=Here to stay']);
    await start.up();
    const client = new Client(`http://127.0.0.1:${port}`);
    // No demo, which has no passwords, where a real one was.
    expect((await client.ask('GET', '/api/who')).json()).toMatchObject({ isSetUp: false, isDemo: false });
    start.child.kill('SIGTERM');
    await start.ended;
    expect(readdirSync(dir).some((name) => name.startsWith('database.before-'))).toBe(true);
    const plain = new Start(dir, port);
    await plain.up();
    expect((await client.ask('GET', '/api/who')).json()).toMatchObject({ isDemo: false });
    plain.child.kill('SIGTERM');
    await plain.ended;
  });

  it('says loudly that a demo is served to others', async () => {
    const start = new Start(scratch(), await freePort(), [], { LAUTA_HOST: '0.0.0.0' });
    await start.up();
    expect(start.output).toContain('THIS IS A DEMO');
    start.child.kill('SIGTERM');
    await start.ended;
  });
});

describe('a backup', () => {
  const here = scratch();
  const elsewhere = scratch();
  const file = join(scratch(), 'lauta.sql.gz');
  const script = (name: string, dir: string, ...args: string[]) =>
    run(process.execPath, [`scripts/${name}.mjs`, ...args], {
      cwd: ROOT,
      env: { ...process.env, LAUTA_DIR: dir },
    });

  async function stateOf(start: Start, port: number) {
    await start.up();
    const client = new Client(`http://127.0.0.1:${port}`);
    await client.ask('POST', '/api/sign-in/demo', { role: 'judge' });
    const [event] = (await client.ask('GET', '/api/events')).json() as { eventId: string }[];
    const standings = (await client.ask('GET', `/api/events/${event?.eventId}/standings`)).json() as {
      standings: { score: { steps: number }; bag: { counting: { catchId: string }[] } }[];
    };
    const ledger = (await client.ask('GET', `/api/events/${event?.eventId}/ledger/check`)).json() as object;
    const queue = (await client.ask('GET', `/api/events/${event?.eventId}/queue?decided=true`)).json() as { items: { thumbId: string }[] }; // prettier-ignore
    const thumbId = queue.items[0]?.thumbId ?? '';
    const response = await client.ask('GET', `/api/photographs/${thumbId}/original`);
    return {
      standings: standings.standings,
      ledger: { ...ledger, tookMs: 0 },
      tag: response.headers.get('etag'),
    };
  }

  it('taken while serving and restored elsewhere gives the same standings, photographs and ledger head', async () => {
    const port = await freePort();
    const first = new Start(here, port);
    const before = await stateOf(first, port);
    await script('backup', here, file);
    first.child.kill('SIGTERM');
    await first.ended;
    await script('restore', elsewhere, file);
    const second = new Start(elsewhere, port);
    const after = await stateOf(second, port);
    second.child.kill('SIGTERM');
    await second.ended;
    expect(before.standings[0]?.score.steps).toBeGreaterThan(0);
    expect(before.tag).toMatch(/^"[0-9a-f]{64}"$/);
    expect(after).toEqual(before);
  });

  it('is not put over data without being told to, nor when it was altered', async () => {
    await expect(script('restore', elsewhere, file)).rejects.toThrow(/--replace/);
    const altered = `${file}.altered`;
    writeFileSync(altered, Buffer.concat([readFileSync(file), Buffer.from([0])]));
    writeFileSync(`${altered}.sha256`, readFileSync(`${file}.sha256`));
    await expect(script('restore', scratch(), altered)).rejects.toThrow(/SHA-256/);
    const tables = () => readdirSync(join(elsewhere, 'database/data/lauta')).length;
    const before = tables();
    expect(before).toBeGreaterThan(20);
    const broken = (name: string, bytes: Uint8Array): string => {
      const path = join(scratch(), name);
      writeFileSync(path, bytes);
      return path;
    };
    const cut = broken('cut.gz', readFileSync(file).subarray(0, 20_000));
    const text = broken('plain.gz', Buffer.from('no backup at all'));
    const short = broken('short.gz', gzipSync('CREATE TABLE a (b int);\n'));
    // Whatever is wrong with it, what was there stays there.
    await expect(script('restore', elsewhere, altered, '--replace')).rejects.toThrow(/SHA-256/);
    await expect(script('restore', elsewhere, cut, '--replace')).rejects.toThrow(/sha256 is missing/);
    for (const path of [cut, text]) await expect(script('restore', elsewhere, path, '--replace', '--without-sum')).rejects.toThrow(/cannot be read to its end/); // prettier-ignore
    await expect(script('restore', elsewhere, short, '--replace', '--without-sum')).rejects.toThrow(
      /breaks off/,
    );
    expect(tables()).toBe(before);
    await expect(script('restore', scratch(), '/nowhere/at/all')).rejects.toThrow(/no file/);
  });

  it('is the continuation of what was exported before, and says where another history parts', async () => {
    const port = await freePort();
    const start = new Start(elsewhere, port);
    await start.up();
    const client = new Client(`http://127.0.0.1:${port}`);
    const events = (await client.ask('GET', '/api/events')).json() as { eventId: string; name: string }[];
    const event = events.find(({ name }) => name === 'Kestrel Mere Board Open');
    const { text } = await client.ask('GET', `/api/events/${event?.eventId}/ledger.jsonl`);
    start.child.kill('SIGTERM');
    await start.ended;
    const kept = join(scratch(), 'ledger.jsonl');
    writeFileSync(kept, text.split('\n').slice(0, 20).join('\n'));
    expect(await script('verify-ledger', elsewhere, '--against', kept)).toContain(
      'its 20 entries are the beginning',
    );
    writeFileSync(kept, text.split('\n').slice(0, 20).join('\n').replace('rules.publish', 'rules.pvblish'));
    await expect(script('verify-ledger', elsewhere, '--against', kept)).rejects.toThrow(
      /they part at entry 2/,
    );
  });

  it('is checked by verify-ledger, which finds an alteration and ends with 1', async () => {
    expect(await script('verify-ledger', elsewhere)).toMatch(/Kestrel Mere Board Open .* fits: \d+ entries/);
    const database = await startDatabase({ dir: join(elsewhere, 'database'), durable: true });
    const sql = 'UPDATE lauta.catches SET claimed_steps = claimed_steps + 4';
    await run('mariadb', ['--no-defaults', '--protocol=tcp', '--host=127.0.0.1', `--port=${database.port}`, '--user=lauta', '-e', sql], { env: { ...process.env, MYSQL_PWD: database.password } }); // prettier-ignore
    await database.stop();
    await expect(script('verify-ledger', elsewhere)).rejects.toThrow(/ended with 1/);
  });

  it('whose record does not fit is not put in place of one that does, unless that is asked for', async () => {
    const altered = join(scratch(), 'altered.sql.gz');
    await script('backup', elsewhere, altered);
    await expect(script('restore', here, altered, '--replace')).rejects.toThrow(/record does not fit/);
    expect(await script('verify-ledger', here)).toMatch(/fits/);
    await script('restore', here, altered, '--replace', '--without-check');
    expect(readdirSync(here).some((name) => name.startsWith('database.before-'))).toBe(true);
    await expect(script('verify-ledger', here)).rejects.toThrow(/ended with 1/);
  });

  it('holds no key of the ledger unless that is asked for; a key is put in place of another by hand', async () => {
    expect(existsSync(`${file}.ledger-key.json`)).toBe(false);
    const before = await script('ledger-key', here);
    expect(before).toMatch(/^([0-9a-f]{4} ){8} signs now\n$/);
    const after = await script('ledger-key', here, '--rotate');
    expect(after.split('\n')).toHaveLength(3);
    expect(after).toContain(before.slice(0, 39));
    const withKey = join(scratch(), 'with-key.sql.gz');
    await script('backup', here, withKey, '--with-key');
    expect(existsSync(`${withKey}.ledger-key.json`)).toBe(true);
  });
});
