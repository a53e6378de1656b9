import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { CLIP_LIMITS, type CatchView, type MediaType } from '@lauta/contract';
import { checkLedger } from '../src/verify/checkLedger.ts';
import {
  WEBM,
  claim,
  claimBody,
  declare,
  done,
  holdEvent,
  jpeg,
  openWorld,
  send,
  sendCommand,
  upload,
  uploadClip,
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

const view = async (catchId: string, person = event.judge): Promise<CatchView> =>
  (await send(world, person, 'get', `/api/catches/${catchId}`)).body as CatchView;
const attach = (catchId: string, clipId: string, person: Person = event.angler) =>
  sendCommand(world, person, 'catch.clip', event.eventId, { catchId, clipId });

describe('the clip of a release', () => {
  it('stands beside the catch’s photographs, is seen as it was sent, and the ledger speaks for it', async () => {
    const catchId = await claim(world, event);
    expect((await view(catchId)).clip).toBeNull();
    const clipId = await uploadClip(world, event.angler, event.eventId);
    await done(attach(catchId, clipId));
    const seen = await view(catchId);
    expect(seen.clip).toMatchObject({ clipId, mediaType: 'video/webm', byteLength: WEBM.length });
    expect(seen.photographs).toHaveLength(1);
    const file = await send(world, event.judge, 'get', `/api/photographs/${clipId}/original`);
    expect(file.headers['content-type']).toBe('video/webm');
    expect(new Uint8Array(file.body as Buffer)).toEqual(WEBM);
    expect(await checkLedger(world.lauta.storage.read, event.eventId, { withBytes: true })).toMatchObject({ ok: true }); // prettier-ignore
    await world.pool.query('UPDATE photograph_chunks SET bytes = CONCAT(bytes, UNHEX(0)) WHERE photograph_id = ?', [clipId]); // prettier-ignore
    expect(await checkLedger(world.lauta.storage.read, event.eventId, { withBytes: true })).toMatchObject({ faults: [{ fault: 'photograph-differs' }] }); // prettier-ignore
  });

  it('is not shown to rivals, as an original is not', async () => {
    const catchId = await claim(world, event);
    const clipId = await uploadClip(world, event.angler, event.eventId);
    await done(attach(catchId, clipId));
    expect((await send(world, event.rival, 'get', `/api/photographs/${clipId}/original`)).status).toBe(403);
  });

  it('is one, and another’s is none', async () => {
    const catchId = await claim(world, event);
    await done(attach(catchId, await uploadClip(world, event.angler, event.eventId)));
    const second = await attach(catchId, await uploadClip(world, event.angler, event.eventId));
    expect(second.body).toMatchObject({ type: 'clip-sent' });
    const rivals = await uploadClip(world, event.rival, event.eventId);
    expect((await attach(await claim(world, event), rivals)).body).toMatchObject({ type: 'photograph-missing' }); // prettier-ignore
  });

  it('is no photograph, and a photograph is no clip', async () => {
    const clipId = await uploadClip(world, event.angler, event.eventId);
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const withClip = {
      ...body,
      photographs: [...body.photographs, { photographId: clipId, role: 'fish' as const }],
    };
    expect((await sendCommand(world, event.angler, 'catch.claim', event.eventId, withClip)).body).toMatchObject({ type: 'photograph-missing' }); // prettier-ignore
    const photographId = uuidv7();
    await upload(world, event.angler, event.eventId, await jpeg({ takenLocal: '2026:06:14 11:00:00' }), photographId); // prettier-ignore
    expect((await attach(await claim(world, event), photographId)).body).toMatchObject({ type: 'photograph-missing' }); // prettier-ignore
  });

  const mp4 = new Uint8Array([0, 0, 0, 24, ...Buffer.from('ftypisom'), ...WEBM]);
  it.each<[string, Uint8Array, MediaType, number]>([
    ['MP4', mp4, 'video/mp4', 200],
    ['MP4 called WebM', mp4, 'video/webm', 415],
    ['WebM called MP4', WEBM, 'video/mp4', 415],
    ['WebM called a photograph', WEBM, 'image/jpeg', 415],
    ['a page', new TextEncoder().encode('<!doctype html><script>alert(1)</script>'), 'video/webm', 415],
  ])('is judged by its content: %s', async (_what, bytes, mediaType, status) => {
    const sent = await upload(world, event.angler, event.eventId, bytes, uuidv7(), mediaType);
    expect(sent.status, sent.text).toBe(status);
  });

  it('is refused before it is sent when it is too long or of another type', async () => {
    const long = new Uint8Array(CLIP_LIMITS.maxBytes + 1);
    const refused = await declare(world, event.angler, event.eventId, long, uuidv7(), 'video/webm');
    expect(refused.status).toBe(400);
    expect(refused.text).toContain('byteLength');
    expect((await declare(world, event.angler, event.eventId, WEBM, uuidv7(), 'text/html' as MediaType)).status).toBe(400); // prettier-ignore
    const photographId = uuidv7();
    await declare(world, event.angler, event.eventId, WEBM, photographId, 'video/webm');
    expect((await declare(world, event.angler, event.eventId, WEBM, photographId)).body).toMatchObject({ type: 'photograph-declared-otherwise' }); // prettier-ignore
  });
});

describe('marks of a claim’s pictures', () => {
  it('say that a photograph was taken outside of the page', async () => {
    const body = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const photographs = body.photographs.map((one) => ({ ...one, isFromOutside: true }));
    await done(sendCommand(world, event.angler, 'catch.claim', event.eventId, { ...body, photographs }));
    expect((await view(body.catchId)).marks).toEqual(['taken-outside']);
  });

  it('say that the person is missing where the rules want one, and only there', async () => {
    const asking = await holdEvent(world, { sheet: { personPicture: true } });
    const marksOf = async (catchId: string) =>
      ((await send(world, asking.judge, 'get', `/api/catches/${catchId}`)).body as CatchView).marks;
    expect(await marksOf(await claim(world, asking))).toEqual(['no-person-picture']);
    const body = await claimBody(world, asking.angler, asking.eventId, asking.entrantId);
    const person = uuidv7();
    await upload(world, asking.angler, asking.eventId, await jpeg({ takenLocal: '2026:06:14 11:30:00' }), person); // prettier-ignore
    const photographs = [...body.photographs, { photographId: person, role: 'person' as const }];
    await done(sendCommand(world, asking.angler, 'catch.claim', asking.eventId, { ...body, photographs }));
    expect(await marksOf(body.catchId)).toEqual([]);
  });
});
