import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { jpegStructure } from '@lauta/vision';
import { openDecoder } from '../src/photo/decoder.ts';
import { clearForsaken } from '../src/photo/clearForsaken.ts';
import { ENDLESS_DISK } from '../src/storage/diskWatch.ts';
import type { Stores } from '../src/storage/storage.ts';
import { NOON, claim, claimBody, declare, done, holdEvent, jpeg, openWorld, send, sendCommand, upload, type TestEvent, type World } from './world.ts'; // prettier-ignore

let world: World;
let event: TestEvent;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
});
afterAll(() => world.close());

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
const putChunk = (photographId: string, bytes: Uint8Array) =>
  send(world, event.angler, 'put', `/api/photographs/${photographId}/chunks/0`)
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from(bytes));
const complete = (photographId: string) =>
  send(world, event.angler, 'post', `/api/photographs/${photographId}/complete`).send({});
const original = async (photographId: string): Promise<Buffer> =>
  (await send(world, event.angler, 'get', `/api/photographs/${photographId}/original`)).body as Buffer;

describe('a chunk that is exchanged while the photograph is completed', () => {
  let photographId: string;
  let genuine: Buffer;
  let forged: Buffer;
  let restore: () => void = () => undefined;
  beforeEach(async () => {
    photographId = uuidv7();
    genuine = await jpeg();
    forged = Buffer.from(genuine);
    forged[forged.length - 30] = (forged[forged.length - 30] ?? 0) ^ 1;
    await declare(world, event.angler, event.eventId, genuine, photographId);
    await putChunk(photographId, genuine);
  });

  /** Runs something at a step of completing: each change that is begun, and each chunk that is read, is one. */
  function atStep(step: number, act: () => Promise<void>): void {
    const { storage: held } = world.lauta;
    const { change } = held;
    const { photographs } = held.read;
    const { chunk } = photographs;
    let at = 0;
    const next = async (): Promise<void> => {
      at += 1;
      if (at === step) {
        restore();
        await act();
      }
    };
    restore = () => {
      held.change = change;
      photographs.chunk = chunk;
    };
    held.change = (async (run: (stores: Stores) => Promise<unknown>) => {
      await next();
      return change.call(held, run as never);
    }) as typeof change;
    photographs.chunk = async (...args) => {
      await next();
      return chunk.apply(photographs, args);
    };
  }

  // Begun, read, and completed: what comes after the first is too late, what comes before it is no part of the file.
  it.each([1, 2, 3])('at step %i leaves the file that was announced, or none', async (step) => {
    let exchanged = '';
    atStep(step, async () => {
      exchanged = ((await putChunk(photographId, forged)).body as { type?: string }).type ?? 'taken';
    });
    const answer = await complete(photographId);
    restore();
    if (step === 1) {
      // It came before completing began: the sum is not the announced one, and it may be sent again.
      expect([exchanged, (answer.body as { type: string }).type]).toEqual(['taken', 'checksum-mismatch']);
      await putChunk(photographId, genuine);
      expect((await complete(photographId)).body).toMatchObject({ state: 'complete' });
    } else {
      expect(exchanged).toBe('photograph-sealed');
      expect(answer.body).toMatchObject({ state: 'complete' });
    }
    expect(sha256(await original(photographId))).toBe(sha256(genuine));
  });

  it('is refused afterwards; the same bytes sent again are not', async () => {
    await complete(photographId);
    expect((await putChunk(photographId, forged)).body).toMatchObject({ type: 'photograph-sealed' });
    expect((await putChunk(photographId, genuine)).status).toBe(200);
    expect(sha256(await original(photographId))).toBe(sha256(genuine));
  });

  it('past the server, in the database, is shown to nobody as the photograph', async () => {
    await complete(photographId);
    await world.pool.query('UPDATE photograph_chunks SET bytes = ? WHERE photograph_id = ?', [forged, photographId]); // prettier-ignore
    const asked = await send(world, event.angler, 'get', `/api/photographs/${photographId}/original`);
    expect(asked.body).toMatchObject({ type: 'photograph-altered' });
    await world.pool.query("UPDATE photograph_copies SET bytes = CONCAT(bytes, 'x') WHERE photograph_id = ?", [photographId]); // prettier-ignore
    const copy = await send(world, event.angler, 'get', `/api/photographs/${photographId}/screen`);
    expect(copy.body).toMatchObject({ type: 'photograph-altered' });
  });

  it('twenty times at once makes one whole photograph', async () => {
    const answers = await Promise.all(Array.from({ length: 20 }, () => complete(photographId)));
    const types = answers.map(({ body }) => (body as { state?: string; type?: string }).state ?? (body as { type: string }).type); // prettier-ignore
    expect(new Set(types)).toEqual(new Set(['complete', 'photograph-completing']));
    expect(sha256(await original(photographId))).toBe(sha256(genuine));
  });
});

/** A progressive picture of so many pixels whose last scan is told again and again: it costs time and few bytes. */
async function bomb(side: number, more: number): Promise<Buffer> {
  const plain = await sharp({ create: { width: side, height: side, channels: 3, background: '#808080' } })
    .greyscale()
    .jpeg({ progressive: true })
    .toBuffer();
  const last = plain.lastIndexOf(Buffer.from([0xff, 0xda]));
  const scan = plain.subarray(last, plain.length - 2);
  return Buffer.concat([
    plain.subarray(0, -2),
    ...Array.from({ length: more }, () => scan),
    plain.subarray(-2),
  ]);
}

describe('a file that costs more to decode than any photograph', () => {
  it.each([
    ['1000 scans of 49 megapixels', 7000, 1000],
    ['5000 scans of 49 megapixels', 7000, 5000],
    ['101 small scans', 200, 101],
  ])('%s is refused before it is decoded', async (_what, side, more) => {
    const bytes = await bomb(side, more);
    expect(jpegStructure(bytes)?.scans).toBeGreaterThan(more);
    const from = performance.now();
    expect((await upload(world, event.angler, event.eventId, bytes)).body).toMatchObject({ type: 'picture-too-complex' }); // prettier-ignore
    // Decoding it took from 13 s up: no time is asserted, only that it is another kind of time.
    expect(performance.now() - from).toBeLessThan(8000);
  });

  it('within the budget keeps no one else waiting: one slot an account', async () => {
    const usual = await timesOf(5);
    const heavy = await bomb(7000, 4);
    const bombs = Array.from({ length: 4 }, () => upload(world, event.angler, event.eventId, heavy));
    const meanwhile = await timesOf(5);
    await Promise.all(bombs);
    // Twice the usual, and what a noisy machine adds to a few milliseconds.
    expect(median(meanwhile)).toBeLessThan(2 * median(usual) + 250);
  });

  it('is ended after a time, and the next one is decoded by another process', async () => {
    const decoder = openDecoder({ processes: 1, limitMs: 400 });
    const slow = await bomb(7000, 12);
    expect(await decoder.decode('one', slow, 1e8)).toEqual({ ok: false, code: 'too-long' });
    const patient = openDecoder({ processes: 1 });
    expect(await patient.decode('one', await jpeg(), 1e8)).toMatchObject({ ok: true, copies: { isLying: false } }); // prettier-ignore
    expect(await patient.decode('one', Buffer.from('no picture'), 1e8)).toEqual({
      ok: false,
      code: 'broken',
    });
    expect(await patient.decode('two', await jpeg(), 1e8)).toMatchObject({ ok: true });
  });

  const median = (times: number[]): number =>
    times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0;
  async function timesOf(count: number): Promise<number[]> {
    const times: number[] = [];
    for (let i = 0; i < count; i++) {
      const bytes = await jpeg();
      const from = performance.now();
      const sent = await upload(world, event.rival, event.eventId, bytes);
      expect(sent.body).toMatchObject({ state: 'complete' });
      times.push(performance.now() - from);
    }
    return times;
  }
});

describe('a header that promises more than there is', () => {
  it('is refused: no coding of so many blocks has so few bits', async () => {
    const small = await sharp({ create: { width: 400, height: 300, channels: 3, background: '#555' } }).jpeg().toBuffer(); // prettier-ignore
    const lying = Buffer.from(small);
    const frame = lying.indexOf(Buffer.from([0xff, 0xc0]));
    lying.writeUInt16BE(4166, frame + 5);
    lying.writeUInt16BE(12_000, frame + 7);
    expect((await upload(world, event.angler, event.eventId, lying)).body).toMatchObject({
      type: 'picture-broken',
    });
  });
});

describe('a digest that says nothing', () => {
  it.each(['sha-512=:AA==:', 'sha-256', 'nonsense'])('%s is refused, not passed over', async (header) => {
    const bytes = await jpeg();
    const photographId = uuidv7();
    await declare(world, event.angler, event.eventId, bytes, photographId);
    expect((await putChunk(photographId, bytes).set('Content-Digest', header)).body).toMatchObject({ type: 'checksum-mismatch' }); // prettier-ignore
  });
});

describe('room on the disk', () => {
  afterAll(() => {
    world.lauta.disk = ENDLESS_DISK;
  });

  it('below the reserve takes no photograph, and all else', async () => {
    const bytes = await jpeg();
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    world.lauta.disk = { ...ENDLESS_DISK, isShort: () => true };
    const refused = await declare(world, event.angler, event.eventId, bytes);
    expect([refused.status, (refused.body as { type: string }).type]).toEqual([507, 'storage-full']);
    expect((await send(world, event.angler, 'get', '/readyz')).body).toEqual({
      ok: true,
      takesPhotographs: false,
    });
    await done(sendCommand(world, event.angler, 'catch.claim', event.eventId, body));
  });

  it('that is all but gone takes nothing more, goes on reading, and goes on when there is room', async () => {
    world.lauta.disk = { ...ENDLESS_DISK, isShort: () => true, isFull: () => true };
    const told = () => sendCommand(world, event.director, 'codes.reveal', event.eventId, { dayId: event.dayId, from: null }); // prettier-ignore
    expect((await told()).body).toMatchObject({ type: 'storage-full' });
    expect((await send(world, event.angler, 'get', '/readyz')).status).toBe(503);
    expect((await send(world, event.judge, 'get', `/api/events/${event.eventId}/queue`)).status).toBe(200);
    world.lauta.disk = ENDLESS_DISK;
    expect((await told()).status).toBe(200);
  });

  it('is given back by what was begun and left, and by what nobody claimed', async () => {
    const left = uuidv7();
    const unclaimed = uuidv7();
    await declare(world, event.angler, event.eventId, await jpeg(), left);
    await upload(world, event.angler, event.eventId, await jpeg(), unclaimed);
    const kept = await claim(world, event);
    const { photographs, catches } = world.lauta.storage.read;
    expect(await clearForsaken(world.lauta)).toBe(0);
    world.setNow('2026-06-18T10:00:00Z');
    await clearForsaken(world.lauta);
    expect(await photographs.find(left)).toBeNull();
    expect(await photographs.find(unclaimed)).not.toBeNull();
    world.setNow('2026-06-29T10:00:00Z');
    await clearForsaken(world.lauta);
    expect(await photographs.find(unclaimed)).toBeNull();
    const [shown] = await catches.photographsOf(kept);
    expect((await photographs.find(shown?.photographId ?? ''))?.completedAt).not.toBeNull();
    world.setNow(NOON);
  });

  it('is nobody’s alone: an account leaves so many files and no more', async () => {
    const hoarder = event.rival;
    const { pool } = world;
    for (let i = 0; i < 200; i++)
      await pool.query('INSERT INTO photographs (photograph_id, event_id, account_id, sha256, byte_length, chunk_bytes, declared_at) VALUES (UUID(), ?, ?, UNHEX(SHA2(1, 256)), 1, 524288, NOW())', [event.eventId, hoarder.accountId]); // prettier-ignore
    expect((await declare(world, hoarder, event.eventId, await jpeg())).body).toMatchObject({
      type: 'too-many-files',
    });
    expect((await declare(world, event.angler, event.eventId, await jpeg())).status).toBe(200);
  });
});
