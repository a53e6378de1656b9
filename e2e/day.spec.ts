import { seededDice } from '@lauta/core/dice';
import { createHash } from 'node:crypto';
import { expect, test, type BrowserContext } from '@playwright/test';
import sharp from 'sharp';
import type { CatchSummary, CatchView, Page as PageOf } from '@lauta/contract';
import { PHONE, newAngler } from './people.ts';

const CATCHES = 30;
const FRAMES = 12;
const PHOTO_BYTES = 200_000;
/** Of ten requests so many are lost on their way and so many answers on their way back; of the chunks that arrive each sixth is cut. */
const LOST = 2;
const UNANSWERED = 1;
const CUT_EACH = 6;

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** Of a segment of a JPEG, bytes (ITU-T T.81, B.2.4.5: its length is told in 16 bits). */
const COMMENT_BYTES = 60_000;

/** Photographs of a phone's usual weight, each with other bytes: comments after the first marker. */
async function photographs(count: number): Promise<Buffer[]> {
  // Of one colour: this is about the way here, and a server that searches thirty pictures for a board is in that way.
  const plain = await sharp({ create: { width: 480, height: 360, channels: 3, background: '#566' } })
    .jpeg()
    .toBuffer();
  return Array.from({ length: count }, (_, i) => {
    const comments = Array.from({ length: Math.ceil(PHOTO_BYTES / COMMENT_BYTES) }, () => {
      const text = Buffer.alloc(COMMENT_BYTES, i % 251);
      text.writeUInt32BE(i);
      return Buffer.concat([
        Buffer.from([0xff, 0xfe, (text.length + 2) >> 8, (text.length + 2) & 255]),
        text,
      ]);
    });
    return Buffer.concat([plain.subarray(0, 2), ...comments, plain.subarray(2)]);
  });
}

/**
 * A connection that drops three requests of ten and cuts chunks half-way. Which of each ten is drawn, how many is
 * not: by dice alone some runs would be spared, depending on the order in which requests are sent.
 */
async function drop(context: BrowserContext): Promise<() => { asked: number; lost: number; cut: number }> {
  const next = seededDice(11);
  const counts = { asked: 0, lost: 0, cut: 0, chunks: 0 };
  let fates: number[] = [];
  await context.route(/\/api\/(photographs|commands)/, async (route) => {
    if (fates.length === 0) fates = Array.from({ length: 10 }, (_, i) => i);
    const [fate = 9] = fates.splice(Math.floor(fates.length * next()), 1);
    counts.asked++;
    if (fate < LOST + UNANSWERED) counts.lost++;
    if (fate < LOST) return route.abort();
    const body = route.request().postDataBuffer();
    const isChunk = body !== null && route.request().url().includes('/chunks/');
    const isCut = isChunk && ++counts.chunks % CUT_EACH === 0;
    if (isCut) counts.cut++;
    const response = await route.fetch(isCut ? { postData: body.subarray(0, body.length >> 1) } : {});
    // The server has done it, and nobody hears of it.
    return fate < LOST + UNANSWERED ? route.abort() : route.fulfill({ response });
  });
  return () => counts;
}

test('a day of thirty catches without a network arrives over a connection that drops a third: once, byte for byte, with its times', async ({
  browser,
}) => {
  test.setTimeout(300_000);
  const { page, context, event } = await newAngler(browser, PHONE);
  const eventId = event.split('/').at(-1) ?? '';
  const { account } = (await (await context.request.get('/api/who')).json()) as { account: { accountId: string; entrants: { entrantId: string }[] } }; // prettier-ignore
  const entrantId = account.entrants[0]?.entrantId ?? '';
  const photos = await photographs(CATCHES);
  expect(new Set(photos.map(sha256)).size).toBe(CATCHES);
  const caught = photos.map((photo, i) => {
    const capturedAt = new Date(Date.UTC(2026, 5, 14, 4, 10 + 12 * i)).toISOString();
    return {
      photo,
      sum: sha256(photo),
      capturedAt,
      catchId: crypto.randomUUID(),
      fileId: crypto.randomUUID(),
    };
  });
  const envelope = (kind: string, madeAt: string, body: object) => ({ v: 1, commandId: crypto.randomUUID(), eventId, madeAt, deviceId: '0190c1d2-0000-7000-8000-0000000000d1', kind, body }); // prettier-ignore
  const waiting = caught.flatMap(({ photo, sum, capturedAt, catchId, fileId }, i) => {
    const claim = {
      catchId,
      entrantId,
      speciesId: 'largemouth-bass',
      captured: { at: capturedAt, source: 'device' },
      photographs: [{ photographId: fileId, role: 'board', isFromOutside: false }],
      measurement: { kind: 'board', measurementId: crypto.randomUUID(), photographId: fileId, boardId: 'birch-30in', marks: { corners: [[20, 100], [460, 100], [460, 200], [20, 200]], nose: [20, 150], tail: [250 + i, 150] } }, // prettier-ignore
      claimedSteps: 60,
      identifierCode: null,
    };
    const announcement = { catchId, entrantId, speciesId: claim.speciesId, capturedAt, claimedSteps: 60, identifierCode: null, photographs: [{ photographId: fileId, sha256: sum, byteLength: photo.length }] }; // prettier-ignore
    const entry = (command: object, order: number, files: object[]) => ({ command, accountId: account.accountId, order, files, refused: null }); // prettier-ignore
    return [
      entry(envelope('catch.announce', capturedAt, announcement), 2 * i + 1, []),
      entry(envelope('catch.claim', capturedAt, claim), 2 * i + 2, [{ fileId, sha256: sum, mediaType: 'image/jpeg', byteLength: photo.length }]), // prettier-ignore
    ];
  });

  // As the day left it on a device of a version with a database for each: in the outbox what was claimed, beside it the
  // frames that were not chosen.
  await page.goto('/sign-in');
  await page.evaluate(
    async ({ entries, files, frames, frameBytes }) => {
      const open = (name: string, upgrade: (db: IDBDatabase) => void): Promise<IDBDatabase> =>
        new Promise((resolve, reject) => {
          const opening = indexedDB.open(name, 1);
          opening.onupgradeneeded = () => upgrade(opening.result);
          opening.onsuccess = () => resolve(opening.result);
          opening.onerror = () => reject(new Error(name));
        });
      const bytesOf = (text: string): Uint8Array<ArrayBuffer> => Uint8Array.from(atob(text), (one) => one.charCodeAt(0)); // prettier-ignore
      const done = (change: IDBTransaction): Promise<void> => new Promise((resolve) => (change.oncomplete = () => resolve())); // prettier-ignore
      const outbox = await open('lauta-outbox', (db) => {
        db.createObjectStore('entries');
        db.createObjectStore('files', { keyPath: 'fileId' });
      });
      const change = outbox.transaction(['entries', 'files'], 'readwrite');
      for (const entry of entries) change.objectStore('entries').put(entry, (entry.command as { commandId: string }).commandId); // prettier-ignore
      for (const { fileId, text } of files) change.objectStore('files').put({ fileId, blob: new Blob([bytesOf(text)]) }); // prettier-ignore
      await done(change);
      outbox.close();
      const kept = await open('lauta-frames', (db) => {
        db.createObjectStore('frames', { keyPath: 'frameId' }).createIndex('catchId', 'catchId');
      });
      for (const { catchId, frameIds } of frames) {
        const burst = kept.transaction('frames', 'readwrite');
        for (const frameId of frameIds) burst.objectStore('frames').put({ frameId, catchId, photo: new Blob([crypto.getRandomValues(new Uint8Array(60_000)), new Uint8Array(frameBytes - 60_000)]), takenAt: new Date().toISOString(), role: 'board' }); // prettier-ignore
        await done(burst);
      }
      kept.close();
    },
    {
      entries: waiting,
      files: caught.map(({ fileId, photo }) => ({ fileId, text: photo.toString('base64') })),
      frames: caught.map(({ catchId }) => ({ catchId, frameIds: Array.from({ length: FRAMES - 1 }, () => crypto.randomUUID()) })), // prettier-ignore
      frameBytes: PHOTO_BYTES,
    },
  );

  const counts = await drop(context);
  const begun = Date.now();
  await page.goto(`${event}/water`);
  const panel = page.getByRole('region', { name: 'Waiting to be sent' });
  await expect(panel).toBeVisible();
  await expect(panel).toHaveCount(0, { timeout: 240_000 });
  const { asked, lost, cut } = counts();
  test.info().annotations.push({ type: 'thirty catches over a bad connection, s', description: ((Date.now() - begun) / 1000).toFixed(1) }); // prettier-ignore
  if (process.env['SHOTS']) console.log('a day, s', (Date.now() - begun) / 1000, { asked, lost, cut });
  // The connection was as bad as it was meant to be.
  expect(lost / asked).toBeGreaterThan(0.27);
  expect(cut).toBeGreaterThan(2);
  await context.unrouteAll();

  const own = (await (await context.request.get(`/api/events/${eventId}/own-catches?pageSize=200`)).json()) as PageOf<CatchSummary>; // prettier-ignore
  expect(own.items.map((one) => [one.catchId, one.capturedAt]).sort()).toEqual(
    caught.map((one) => [one.catchId, one.capturedAt]).sort(),
  );
  for (const { catchId, sum, fileId } of caught) {
    const view = (await (await context.request.get(`/api/catches/${catchId}`)).json()) as CatchView;
    expect(view.photographs.map(({ photographId, sha256: stored }) => [photographId, stored])).toEqual([
      [fileId, sum],
    ]);
    const original = await (await context.request.get(`/api/photographs/${fileId}/original`)).body();
    expect(sha256(original)).toBe(sum);
  }
  // Frames that were not chosen stayed where they are.
  const left = await page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const opening = indexedDB.open('lauta');
        opening.onsuccess = () => {
          const counted = opening.result.transaction('frames').objectStore('frames').count();
          counted.onsuccess = () => resolve(counted.result);
        };
      }),
  );
  expect(left).toBe(CATCHES * (FRAMES - 1));
  await context.close();
});
