import { createHash } from 'node:crypto';
import exifr from 'exifr';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { PHOTOGRAPH_LIMITS } from '@lauta/contract';
import { declare, holdEvent, jpeg, openWorld, send, upload, type TestEvent, type World } from './world.ts';

let world: World;
let event: TestEvent;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
});
afterAll(() => world.close());

const tryUpload = (bytes: Uint8Array) => upload(world, event.angler, event.eventId, bytes);
const chunk = (photographId: string, seq: number, bytes: Uint8Array) =>
  send(world, event.angler, 'put', `/api/photographs/${photographId}/chunks/${seq}`)
    .set('Content-Type', 'application/octet-stream')
    .send(Buffer.from(bytes));

/** A JPEG's header that claims a size; nothing is behind it (ITU-T T.81, B.2.2: SOF0). */
function jpegHeader(widthPx: number, heightPx: number): Buffer {
  const sof = Buffer.from([0xff, 0xc0, 0, 17, 8, heightPx >> 8, heightPx & 255, widthPx >> 8, widthPx & 255, 3, 1, 0x11, 0, 2, 0x11, 0, 3, 0x11, 0]); // prettier-ignore
  const quantisation = Buffer.concat([Buffer.from([0xff, 0xdb, 0, 67, 0]), Buffer.alloc(64, 16)]);
  const scan = Buffer.from([0xff, 0xda, 0, 12, 3, 1, 0, 2, 0, 3, 0, 0, 63, 0, 0, 0, 0xff, 0xd9]);
  return Buffer.concat([Buffer.from([0xff, 0xd8]), quantisation, sof, scan]);
}

describe('a photograph', () => {
  it('is kept byte for byte and comes back with its hash', async () => {
    const bytes = await jpeg({ takenLocal: '2026:06:14 10:00:00' });
    const photographId = uuidv7();
    expect((await upload(world, event.angler, event.eventId, bytes, photographId)).body).toMatchObject({ state: 'complete' }); // prettier-ignore
    const original = await send(world, event.angler, 'get', `/api/photographs/${photographId}/original`);
    expect(Buffer.compare(original.body as Buffer, bytes)).toBe(0);
    const tag = original.headers['etag'] as string;
    expect(tag).toBe(`"${createHash('sha256').update(bytes).digest('hex')}"`);
    const again = await send(world, event.angler, 'get', `/api/photographs/${photographId}/original`).set('If-None-Match', tag); // prettier-ignore
    expect(again.status).toBe(304);
  });

  it('keeps no chunk that arrived as something else than was sent (RFC 9530)', async () => {
    const bytes = await jpeg({ takenLocal: '2026:06:14 10:10:00' });
    const photographId = uuidv7();
    await declare(world, event.angler, event.eventId, bytes, photographId);
    const digest = `sha-256=:${createHash('sha256').update(bytes).digest('base64')}:`;
    const damaged = Uint8Array.from(bytes, (byte, i) => (i === 99 ? byte ^ 1 : byte));
    const first = await chunk(photographId, 0, damaged).set('Content-Digest', digest);
    expect(first.body).toMatchObject({ type: 'checksum-mismatch' });
    expect((await declare(world, event.angler, event.eventId, bytes, photographId)).body).toMatchObject({ received: [] }); // prettier-ignore
    expect((await chunk(photographId, 0, bytes).set('Content-Digest', `sha-512=:AA==:, ${digest}`)).status).toBe(200); // prettier-ignore
    expect((await declare(world, event.angler, event.eventId, bytes, photographId)).body).toMatchObject({ received: [0] }); // prettier-ignore
  });

  it('of several chunks goes on where it broke off', async () => {
    const noisy =
      await sharp({ create: { width: 1200, height: 900, channels: 3, background: '#888', noise: { type: 'gaussian', mean: 120, sigma: 60 } } }) // prettier-ignore
        .jpeg({ quality: 98 })
        .toBuffer();
    const { chunkBytes } = PHOTOGRAPH_LIMITS;
    expect(noisy.length).toBeGreaterThan(2 * chunkBytes);
    const photographId = uuidv7();
    await declare(world, event.angler, event.eventId, noisy, photographId);
    await chunk(photographId, 1, noisy.subarray(chunkBytes, 2 * chunkBytes));
    const early = await send(world, event.angler, 'post', `/api/photographs/${photographId}/complete`).send(
      {},
    );
    expect(early.body).toMatchObject({ type: 'photograph-missing' });
    const state = await declare(world, event.angler, event.eventId, noisy, photographId);
    expect(state.body).toMatchObject({ state: 'receiving', received: [1] });
    expect((await upload(world, event.angler, event.eventId, noisy, photographId)).body).toMatchObject({ state: 'complete' }); // prettier-ignore
  });

  it('has copies for screen and list without any metadata, upright', async () => {
    const lying = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#a55' } })
      .withExif({
        IFD0: { Make: 'Test', Orientation: '6' },
        IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 3/1 0/1' },
      })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    const photographId = uuidv7();
    await upload(world, event.angler, event.eventId, lying, photographId);
    for (const variant of ['screen', 'thumb']) {
      const copy = await send(world, event.angler, 'get', `/api/photographs/${photographId}/${variant}`);
      expect(await exifr.parse(copy.body as Buffer).catch(() => undefined)).toBeUndefined();
      const { width, height } = await sharp(copy.body as Buffer).metadata();
      expect(height).toBeGreaterThan(width);
    }
    const stored = await world.lauta.storage.read.photographs.find(photographId);
    expect([stored?.widthPx, stored?.heightPx]).toEqual([600, 900]);
  });
});

describe('what is no photograph is refused by its content', () => {
  it('a PNG named .jpg', async () => {
    const png = await sharp({ create: { width: 200, height: 200, channels: 3, background: '#fff' } }).png().toBuffer(); // prettier-ignore
    const response = await tryUpload(png);
    expect(response.status).toBe(415);
    expect(response.body).toMatchObject({ type: 'not-a-jpeg' });
  });

  it('a file of 0 bytes', async () => {
    const response = await tryUpload(new Uint8Array());
    expect(response.status).toBe(400);
    expect(response.body).toMatchObject({ type: 'invalid-request', issues: [{ path: 'byteLength' }] });
  });

  it('a file of 60 MB, before a byte of it is sent', async () => {
    const photographId = uuidv7();
    const response = await send(world, event.angler, 'put', `/api/photographs/${photographId}`).send({
      photographId,
      eventId: event.eventId,
      byteLength: 60 * 1024 * 1024,
      sha256: '0'.repeat(64),
    });
    expect(response.status).toBe(400);
    expect(response.body).toMatchObject({ issues: [{ path: 'byteLength' }] });
  });

  it.each([
    ['20,000 px wide', 20_000, 400],
    ['of more pixels than memory is given for', 11_000, 11_000],
  ])('a picture %s, by its header alone', async (_what, width, height) => {
    const response = await tryUpload(jpegHeader(width, height));
    expect(response.status).toBe(413);
    expect(response.body).toMatchObject({ type: 'picture-too-large', fields: { widthPx: width } });
  });

  it('a picture of a few pixels', async () => {
    expect((await tryUpload(await jpeg({}, 63, 63))).body).toMatchObject({ type: 'picture-too-small' });
  });

  it('a picture that breaks off', async () => {
    const whole = await jpeg({}, 800, 600);
    const response = await tryUpload(whole.subarray(0, Math.floor(whole.length * 0.6)));
    expect(response.status).toBe(422);
    expect(response.body).toMatchObject({ type: 'picture-broken' });
  });

  it('three right bytes and nothing more', async () => {
    expect((await tryUpload(new Uint8Array([0xff, 0xd8, 0xff]))).body).toMatchObject({
      type: 'picture-broken',
    });
  });

  it('and nothing of it is kept', async () => {
    const photographId = uuidv7();
    await upload(world, event.angler, event.eventId, Buffer.from('not a picture at all'), photographId);
    expect(await world.lauta.storage.read.photographs.find(photographId)).toBeNull();
  });
});

describe('an upload out of step is refused', () => {
  it('with a chunk that is too short, too long, or has no place', async () => {
    const bytes = await jpeg();
    const photographId = uuidv7();
    await declare(world, event.angler, event.eventId, bytes, photographId);
    expect((await chunk(photographId, 0, bytes.subarray(1))).body).toMatchObject({ type: 'chunk-size' });
    expect((await chunk(photographId, 1, bytes)).body).toMatchObject({ type: 'chunk-out-of-place' });
    expect((await chunk(photographId, 0, Buffer.alloc(PHOTOGRAPH_LIMITS.chunkBytes + 5000))).status).toBe(
      413,
    );
  });

  it('with bytes that are not those announced; it may be sent again', async () => {
    const bytes = await jpeg();
    const photographId = uuidv7();
    await declare(world, event.angler, event.eventId, bytes, photographId);
    const changed = Buffer.from(bytes);
    changed[changed.length - 10] = (changed[changed.length - 10] ?? 0) ^ 1;
    await chunk(photographId, 0, changed);
    const complete = () =>
      send(world, event.angler, 'post', `/api/photographs/${photographId}/complete`).send({});
    expect((await complete()).body).toMatchObject({ type: 'checksum-mismatch' });
    await chunk(photographId, 0, bytes);
    expect((await complete()).body).toMatchObject({ state: 'complete' });
  });

  it('under an id that stands for another file, or another’s', async () => {
    const photographId = uuidv7();
    await upload(world, event.angler, event.eventId, await jpeg(), photographId);
    const other = await declare(world, event.angler, event.eventId, await jpeg(), photographId);
    expect(other.body).toMatchObject({ type: 'photograph-declared-otherwise' });
    const rivals = await send(world, event.rival, 'post', `/api/photographs/${photographId}/complete`).send(
      {},
    );
    expect(rivals.status).toBe(404);
  });
});
