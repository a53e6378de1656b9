// Faults of the machine while people write: nothing that was answered is lost, and all goes on by itself. Minutes long,
// and one needs the right to mount a small disk: part of `npm run attack`, not of every run of the tests.
import { spawnSync } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { closeSync, mkdirSync, openSync, rmSync, statfsSync, writeSync } from 'node:fs';
import { connect, type Socket } from 'node:net';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freePort, isRunning } from './machine/processes.mjs';
import { Client, FOUNDER, Start, newEvent, pidIn, scratch, until } from './machine/wholeMachine.ts';

const MIB = 1024 * 1024;
const DISK_BYTES = 900 * MIB;
const RESERVE_MIB = 160;

/** Writers that go on whatever happens, as an outbox does: each command until it is answered, under the same id. */
class Load {
  readonly taken = new Set<string>();
  readonly odd = new Set<string>();
  longestMs = 0;
  private isOver = false;
  private readonly writers: Promise<void>[];
  private readonly client: Client;
  private readonly eventId: string;
  constructor(client: Client, eventId: string, writers = 4) {
    this.client = client;
    this.eventId = eventId;
    this.writers = Array.from({ length: writers }, () => this.write());
  }
  private async write(): Promise<void> {
    while (!this.isOver) {
      const [accountId, commandId] = [crypto.randomUUID(), crypto.randomUUID()];
      const person = { accountId, name: 'Written', email: `${accountId}@lake.example`, roles: ['judge'] };
      const from = performance.now();
      while (!this.taken.has(accountId) && !this.isOver) {
        const answer = await this.client
          .command('people.add', this.eventId, person, commandId)
          .catch(() => null);
        if (answer?.status === 200) this.taken.add(accountId);
        else {
          if (answer && ![429, 503, 507].includes(answer.status)) this.odd.add(answer.text);
          await sleep(100);
        }
      }
      this.longestMs = Math.max(this.longestMs, performance.now() - from);
      await sleep(5);
    }
  }
  async goesOn(): Promise<void> {
    const before = this.taken.size;
    await until(async () => this.taken.size > before + 20, 90_000);
  }
  async end(): Promise<void> {
    this.isOver = true;
    await Promise.all(this.writers);
  }
}

describe('under load', () => {
  const dir = scratch();
  const disk = join(dir, 'disk');
  const ballast = join(disk, 'ballast');
  const eventId = crypto.randomUUID();
  let isMounted = false;
  let port: number;
  let start: Start;
  let client: Client;
  let load: Load;
  let written = 0;

  beforeAll(async () => {
    mkdirSync(disk);
    isMounted = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${DISK_BYTES}`, 'tmpfs', disk]).status === 0;
    port = await freePort();
    start = new Start(disk, port, ['--empty'], { LAUTA_DISK_RESERVE_MB: String(RESERVE_MIB) });
    await start.up();
    client = new Client(`http://127.0.0.1:${port}`);
    await client.ask('POST', '/api/set-up', FOUNDER);
    expect((await client.command('event.create', eventId, newEvent(eventId))).status).toBe(200);
  });
  afterAll(async () => {
    start.child.kill('SIGTERM');
    await start.ended;
    if (isMounted) spawnSync('umount', [disk]);
  });

  const status = (path: string) => client.ask('GET', path).then((answer) => answer.status, () => 0); // prettier-ignore
  /** Whatever was answered is there, and the record fits. */
  async function nothingIsLost(): Promise<void> {
    await load.end();
    expect([...load.odd]).toEqual([]);
    const people = (await client.ask('GET', `/api/events/${eventId}/people`)).json() as {
      accountId: string;
    }[];
    const there = new Set(people.map(({ accountId }) => accountId));
    expect([...load.taken].filter((accountId) => !there.has(accountId))).toEqual([]);
    written += load.taken.size;
    expect((await client.ask('GET', `/api/events/${eventId}/ledger/check`)).json()).toMatchObject({
      ok: true,
    });
  }
  const begin = async (): Promise<void> => {
    load = new Load(client, eventId);
    await load.goesOn();
  };
  const photograph = async () => {
    const jpeg = await sharp(randomBytes(900 * 900 * 3), { raw: { width: 900, height: 900, channels: 3 } })
      .jpeg({ quality: 95 })
      .toBuffer();
    const photographId = crypto.randomUUID();
    const sha256 = createHash('sha256').update(jpeg).digest('hex');
    const path = `/api/photographs/${photographId}`;
    const declared = () =>
      client.ask('PUT', path, { photographId, eventId, byteLength: jpeg.length, sha256 });
    return { jpeg, path, sha256, declared };
  };

  it('a database that is killed is up again, and what was answered is there', async () => {
    await begin();
    const database = pidIn(join(disk, 'database/mariadbd.pid'));
    process.kill(database, 'SIGKILL');
    await until(async () => !isRunning(database));
    expect([200, 0]).toContain(await status('/healthz'));
    await load.goesOn();
    await nothingIsLost();
  });

  it('a server that is killed in the middle of an upload is up again, and the upload goes on', async () => {
    await begin();
    const { jpeg, path, sha256, declared } = await photograph();
    const { chunkBytes } = (await declared()).json() as { chunkBytes: number };
    const chunk = (seq: number) => client.bytes(`${path}/chunks/${seq}`, jpeg.subarray(seq * chunkBytes, (seq + 1) * chunkBytes)); // prettier-ignore
    expect((await chunk(0)).status).toBe(200);
    process.kill(pidIn(join(disk, 'server.pid')), 'SIGKILL');
    await load.goesOn();
    expect((await declared()).json()).toMatchObject({ state: 'receiving', received: [0] });
    for (let seq = 1; seq * chunkBytes < jpeg.length; seq++) expect((await chunk(seq)).status).toBe(200);
    expect((await client.ask('POST', `${path}/complete`, {})).json()).toMatchObject({ state: 'complete' });
    expect((await client.ask('GET', `${path}/original`)).headers.get('etag')).toBe(`"${sha256}"`);
    await nothingIsLost();
  });

  it('a database that stands still for twenty seconds is said to be away, and all goes on after it', async () => {
    await begin();
    const database = pidIn(join(disk, 'database/mariadbd.pid'));
    expect(process.kill(database, 'SIGSTOP')).toBe(true);
    const from = performance.now();
    expect(await status(`/api/events/${eventId}/people`)).toBe(503);
    expect(performance.now() - from).toBeLessThan(25_000);
    expect(await status('/healthz')).toBe(200);
    await sleep(Math.max(0, 20_000 - (performance.now() - from)));
    process.kill(database, 'SIGCONT');
    await load.goesOn();
    await nothingIsLost();
  });

  it('three hundred streams and fifty that never read hear of it, or hold up nobody', async () => {
    const opened = new AbortController();
    let heard = 0;
    const streams = await Promise.all(
      Array.from({ length: 300 }, async () => {
        const response = await fetch(`http://127.0.0.1:${port}/api/events/${eventId}/stream`, { signal: opened.signal }); // prettier-ignore
        expect(response.status).toBe(200);
        return response.body?.getReader();
      }),
    );
    for (const reader of streams)
      void (async () => {
        for (let text = ''; ;) {
          const part = await reader?.read().catch(() => null);
          if (!part || part.done) return;
          text += Buffer.from(part.value as Uint8Array).toString();
          if (/"kind"|event: /.test(text)) {
            heard += 1;
            return;
          }
        }
      })();
    const deaf: Socket[] = Array.from({ length: 50 }, () => {
      const socket = connect(port, '127.0.0.1', () => socket.write(`GET /api/events/${eventId}/stream HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\n\r\n`)); // prettier-ignore
      socket.pause();
      return socket.on('error', () => undefined);
    });
    await sleep(500);
    await begin();
    await until(async () => heard === 300, 60_000);
    opened.abort();
    deaf.forEach((socket) => socket.destroy());
    await nothingIsLost();
  });

  it('four hundred that dribble their headers and two hundred their bodies are ended, and hold up nobody', async () => {
    const slow = Array.from({ length: 600 }, (_, i) => {
      const socket = connect(port, '127.0.0.1');
      const body = i % 3 === 0;
      socket.write(
        body
          ? `POST /api/sign-in HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nOrigin: http://127.0.0.1:${port}\r\nContent-Type: application/json\r\nContent-Length: 4000\r\n\r\n{`
          : 'GET /api/who HTTP/1.1\r\nX-A: ',
      );
      const drip = setInterval(() => socket.write('x'), 2000);
      socket.on('error', () => undefined).on('close', () => clearInterval(drip));
      socket.resume();
      return socket;
    });
    await sleep(1000);
    await begin();
    const times: number[] = [];
    for (let i = 0; i < 50; i++) {
      const from = performance.now();
      expect(await status('/api/who')).toBe(200);
      times.push(performance.now() - from);
    }
    times.sort((a, b) => a - b);
    expect(times[45]).toBeLessThan(2000);
    await until(async () => slow.every((socket) => socket.destroyed), 150_000);
    await nothingIsLost();
  });

  /** Another process writes until so much is left, so fast. */
  async function fillTo(freeMib: number, mibAtOnce = Infinity): Promise<void> {
    const file = openSync(ballast, 'a');
    const block = Buffer.alloc(MIB, 1);
    for (let written = 1; freeBytes() > freeMib * MIB; written++) {
      try {
        writeSync(file, block);
      } catch {
        break;
      }
      if (written % mibAtOnce === 0) await sleep(250);
    }
    closeSync(file);
  }
  const freeBytes = (): number => statfsSync(disk).bavail * statfsSync(disk).bsize;
  const mayDeclare = async () => (await (await photograph()).declared()).status === 200;
  const demandDisk = (): void => {
    if (!isMounted)
      throw new Error('expected the right to mount a disk of its own, got none: nothing was tried');
  };

  it('a disk that fills up stops what is large, then what is small, never reading, and goes on with room', async () => {
    demandDisk();
    await begin();
    expect(freeBytes()).toBeGreaterThan(RESERVE_MIB * MIB);
    expect(await mayDeclare()).toBe(true);
    await fillTo(RESERVE_MIB - 20);
    await until(async () => !((await client.ask('GET', '/readyz')).json() as { takesPhotographs: boolean }).takesPhotographs); // prettier-ignore
    expect((await (await photograph()).declared()).json()).toMatchObject({ type: 'storage-full' });
    await load.goesOn();

    // Forty megabytes a second, as by a copy.
    await fillTo(0, 10);
    const another = () => ({ accountId: crypto.randomUUID(), name: 'Late', email: `${crypto.randomUUID()}@lake.example`, roles: ['judge'] }); // prettier-ignore
    for (let i = 0; i < 10; i++) {
      expect((await client.command('people.add', eventId, another())).json()).toMatchObject({ type: 'storage-full' }); // prettier-ignore
      expect(await status(`/api/events/${eventId}/people`)).toBe(200);
      await sleep(500);
    }
    rmSync(ballast);
    await load.goesOn();
    await until(mayDeclare);
    await nothingIsLost();
  });

  it('a disk that is full between two looks takes nothing that was answered with it, and all goes on with room', async () => {
    demandDisk();
    await begin();
    await fillTo(0);
    await sleep(5000);
    rmSync(ballast);
    await load.goesOn();
    await until(mayDeclare);
    await nothingIsLost();
    process.stdout.write(`faults: ${written} acknowledged writes in all, none lost\n`);
  });
});
