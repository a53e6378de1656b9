import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import type { RecordSpecimen, SpecimensView } from '@lauta/contract';
import { checkLedger } from '../src/verify/checkLedger.ts';
import { claimBody, commandOf, done, holdEvent, jpeg, openWorld, send, sendCommand, specimenBody, upload, type Person, type TestEvent, type World } from './world.ts'; // prettier-ignore

let world: World;
let event: TestEvent;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
});
afterAll(() => world.close());

const uploaded = async (who: Person = event.angler): Promise<string> => {
  const photographId = uuidv7();
  const sent = await upload(world, who, event.eventId, await jpeg({ takenLocal: '2026:06:14 11:30:00' }), photographId); // prettier-ignore
  expect(sent.status, sent.text).toBe(200);
  return photographId;
};
const record = (body: RecordSpecimen, who: Person = event.angler) =>
  sendCommand(world, who, 'specimen.record', event.eventId, body);
const body = (change: Partial<RecordSpecimen> = {}, photographIds: string[] = []): RecordSpecimen => {
  const usual = specimenBody(event.entrantId);
  const photographs = photographIds.map((photographId) => ({ photographId }));
  return { ...usual, specimen: { ...usual.specimen, photographs }, ...change };
};
const seen = async (who: Person = event.angler, path = 'own-specimens') => {
  const answer = await send(world, who, 'get', `/api/events/${event.eventId}/${path}`);
  return { status: answer.status, specimens: (answer.body as SpecimensView).specimens };
};
const refusal = async (sent: ReturnType<typeof record>): Promise<[number, string]> => {
  const { status, body: problem } = await sent;
  return [status, (problem as { type: string }).type];
};

describe('a specimen', () => {
  it('is kept whole, seen by its angler and by officials, and by nobody else', async () => {
    const photographId = await uploaded();
    const own = body({ note: 'a scar under the eye' }, [photographId]);
    await done(record(own));
    const { specimens } = await seen();
    expect(specimens.at(-1)).toMatchObject({ ...own, entrant: { number: 1 }, correctedBy: null });
    expect((await seen(event.judge, 'specimens')).specimens.at(-1)).toMatchObject(own);
    expect((await seen(event.rival, 'own-specimens')).specimens).toEqual([]);
    expect((await seen(event.rival, 'specimens')).status).toBe(403);
    const screen = `/api/photographs/${photographId}/screen`;
    expect((await send(world, event.angler, 'get', screen)).status).toBe(200);
    expect((await send(world, event.judge, 'get', screen)).status).toBe(200);
    expect((await send(world, event.rival, 'get', screen)).status).toBe(403);
  });

  it('leaves neither weight nor words in the open ledger, and the ledger’s check finds an altered one', async () => {
    const own = body({ note: 'beneath the old willow' }, [await uploaded()]);
    await done(record(own));
    const ledger = await send(world, event.rival, 'get', `/api/events/${event.eventId}/ledger.jsonl`);
    expect(ledger.text).toContain(own.specimenId);
    expect(ledger.text).not.toContain('willow');
    // As a value: hashes and ids hold any four digits now and then.
    expect(ledger.text).not.toMatch(/grossG|:9070\b/);
    const stores = world.lauta.storage.read;
    expect((await checkLedger(stores, event.eventId, { withBytes: true })).faults).toEqual([]);
    const altered = { ...own, note: 'beneath the new willow' };
    await world.pool.query('UPDATE specimens SET record = ? WHERE specimen_id = ?', [JSON.stringify(altered), own.specimenId]); // prettier-ignore
    expect((await checkLedger(stores, event.eventId)).faults[0]?.fault).toBe('record-differs');
    await world.pool.query('UPDATE specimens SET record = ? WHERE specimen_id = ?', [JSON.stringify(own), own.specimenId]); // prettier-ignore
    expect((await checkLedger(stores, event.eventId)).ok).toBe(true);
  });

  it('sent twice is kept once; its id, and its photograph, serve no other', async () => {
    const photographId = await uploaded();
    const command = commandOf('specimen.record', event.eventId, body({}, [photographId]));
    const post = () =>
      send(world, event.angler, 'post', '/api/commands')
        .set('Idempotency-Key', command.commandId)
        .send(command);
    const before = (await seen()).specimens.length;
    expect([(await post()).status, (await post()).status]).toEqual([200, 200]);
    expect((await seen()).specimens).toHaveLength(before + 1);
    expect(await refusal(record(command.body))).toEqual([409, 'entry-exists']);
    expect(await refusal(record(body({}, [photographId])))).toEqual([409, 'photograph-taken']);
    const claim = await claimBody(world, event.angler, event.eventId, event.entrantId);
    const stolen = {
      ...claim,
      photographs: [{ photographId, role: 'board' as const }],
      measurement: { ...claim.measurement, photographId },
    };
    const claimed = await sendCommand(world, event.angler, 'catch.claim', event.eventId, stolen);
    expect((claimed.body as { type: string }).type).toBe('photograph-taken');
    expect(await refusal(record(body({}, [await uploaded(event.rival)])))).toEqual([422, 'photograph-missing']); // prettier-ignore
  });

  it('is corrected by another record, once, which may show its photographs', async () => {
    const photographId = await uploaded();
    const first = body({}, [photographId]);
    await done(record(first));
    const corrects = { specimenId: first.specimenId, reason: 'The sling was weighed wrongly.' };
    const second = body({ corrects }, [photographId]);
    await done(record(second));
    const { specimens } = await seen();
    const correctedBy = specimens.find((one) => one.specimenId === first.specimenId)?.correctedBy;
    expect(correctedBy).toBe(second.specimenId);
    expect(await refusal(record(body({ corrects })))).toEqual([409, 'specimen-corrected']);
    const unknown = { specimenId: uuidv7(), reason: 'None.' };
    expect(await refusal(record(body({ corrects: unknown })))).toEqual([404, 'not-found']);
    expect((await checkLedger(world.lauta.storage.read, event.eventId)).ok).toBe(true);
  });

  it('that weighs nothing, or more than a shark, is refused', async () => {
    const weighing = {
      ...body().specimen.weighing,
      tare: { kind: 'noted' as const, slingG: 800, standG: 0 },
      emptyAfterG: null,
    };
    for (const grossG of [0, 700, -5, 5e6, NaN]) {
      const specimen = { ...body().specimen, weighing: { ...weighing, grossG } };
      expect(await refusal(record(body({ specimen })))).toEqual([400, 'invalid-request']);
    }
  });
});
