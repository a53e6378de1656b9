import { extractText, getDocumentProxy } from 'unpdf';
import { inflateSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import type { BagsView, StandingsView, WeighInView } from '@lauta/contract';
import { kindOfClass } from '@lauta/core/scale';
import { scaleDoubts, ticketState, weighInOf, type WeighInAct } from '@lauta/core/weigh-in';
import type { WellAct } from '@lauta/core/well';
import { BOAT_CUP_SHEET } from '@lauta/sim/demo';
import { checkLedger } from '../src/verify/checkLedger.ts';
import { done, holdEvent, openWorld, send, sendCommand, takePart, type Person, type TestEvent, type World } from './world.ts'; // prettier-ignore

let world: World;
let event: TestEvent;
let weighMaster: Person;
let second: Person;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world, { sheet: BOAT_CUP_SHEET });
  weighMaster = await takePart(world, event.director, event.eventId, 'Dagny Weigher', ['weigh-master']);
  second = await takePart(world, event.director, event.eventId, 'Second weigher', ['weigh-master']);
});
afterAll(() => world.close());

let atMs = Date.parse('2026-06-14T12:30:00Z');
const entryOf = (act: WeighInAct) => ({ entryId: uuidv7(), atMs: (atMs += 1000), act });
const enter = (who: Person, ...acts: WeighInAct[]) =>
  sendCommand(world, who, 'weigh-in.enter', event.eventId, { entries: acts.map(entryOf) });
const get = async <T>(who: Person, path: string): Promise<T> =>
  (await send(world, who, 'get', `/api/events/${event.eventId}/${path}`)).body as T;

/** A bag of 12 lb 4 oz with one dead fish, from the queue to both signatures. */
async function weighBag(entrantId = event.entrantId, number = 1): Promise<string> {
  const ticketId = uuidv7();
  await done(
    enter(
      weighMaster,
      { kind: 'queued', ticketId, entrantId, dayId: event.dayId, number },
      { kind: 'called', ticketId },
      { kind: 'checked', ticketId, alive: 4, dead: 1, short: 0, reason: null },
      { kind: 'weighed', ticketId, grossG: 6010, tareG: 450, how: 'scale', reason: null },
      { kind: 'big-fish', ticketId, massG: 1900, reason: null },
    ),
  );
  const { entries } = await get<WeighInView>(weighMaster, 'weigh-in');
  const weighedId = entries.findLast(({ act }) => act.kind === 'weighed')?.entryId ?? '';
  await done(enter(second, { kind: 'confirmed', ticketId, weighedId }));
  const stroke = [0.1, 0.8, 0.3, 0.2, 0.5, 0.7];
  await done(
    enter(
      weighMaster,
      { kind: 'signed', ticketId, signer: 'angler', signature: { kind: 'drawn', strokes: [stroke] } },
      { kind: 'signed', ticketId, signer: 'weigh-master', signature: { kind: 'typed', name: 'Dagny' } },
      { kind: 'released', ticketId, tank: 1, alive: 4, died: 1 },
    ),
  );
  return ticketId;
}

describe('a bag at the weigh-in', () => {
  let ticketId = '';

  it('goes from the queue to two signatures, entered by one and confirmed by another', async () => {
    ticketId = await weighBag();
    const { entries, people } = await get<WeighInView>(event.judge, 'weigh-in');
    const [ticket] = weighInOf(entries).tickets;
    if (!ticket) throw new Error('expected a ticket');
    expect(ticketState(BOAT_CUP_SHEET, ticket)).toBe('signed');
    // Who did it is whoever sent it, whatever a device says.
    expect(people[ticket.weight?.byId ?? '']).toBe('Dagny Weigher');
    expect(people[ticket.confirmedById ?? '']).toBe('Second weigher');
    expect((await get<BagsView>(event.rival, 'bags')).bags).toMatchObject([{ number: 1, state: 'signed', name: 'Angler' }]); // prettier-ignore
  });

  it('ranks by its net weight less what the sheet takes for a dead fish', async () => {
    // 5560 g are 196.12 oz (GNU units: 5560 g / ounce = 196.12322), down 196; a quarter pound off for the dead one.
    const { standings } = await get<StandingsView>(event.rival, 'standings');
    expect(standings[0]).toMatchObject({ kind: 'tickets', entrantId: event.entrantId, rank: 1, score: { measure: 'ounce', steps: 192 }, provisionalSteps: 0 }); // prettier-ignore
    expect(standings[1]).toMatchObject({ score: { steps: 0 } });
    const csv = await send(world, event.rival, 'get', `/api/events/${event.eventId}/standings.csv`);
    expect(csv.text.split('\r\n')[1]).toBe('1,1,Angler,12-0,0-0,ounce,12-0');
  });

  it('has a ticket as PDF with both names, a QR code and letters of every name, for its boat and the officials', async () => {
    const path = `/api/events/${event.eventId}/tickets/${ticketId}/ticket.pdf`;
    for (const who of [event.angler, event.judge, event.director, weighMaster]) {
      const response = await send(world, who, 'get', path).buffer().parse(raw);
      expect([response.status, response.headers['content-type']]).toEqual([200, 'application/pdf']);
      const bytes = response.body as Buffer;
      expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
      expect(bytes.toString('latin1')).toContain('DejaVuSans');
      // Where the record ended when it was printed.
      const head = await world.lauta.storage.read.ledger.head(event.eventId);
      expect(bytes.toString('latin1')).toContain(`record to entry ${head?.seq}: ${head?.hash}`);
      const { text } = await extractText(await getDocumentProxy(new Uint8Array(bytes)), { mergePages: true });
      // As a person says them: 12:30 UTC is 14:30 in the event's zone.
      expect(text).toMatch(/14 June, bag 1[\s\S]*arrived\s+14:30:\d\d[\s\S]*for 1 dead/);
      // The QR code is drawn as some hundreds of filled squares.
      expect((pageOf(bytes).match(/ re\b/g) ?? []).length).toBeGreaterThan(300);
    }
    expect((await send(world, event.rival, 'get', path)).status).toBe(403);
    expect((await send(world, weighMaster, 'get', path.replace(ticketId, uuidv7()))).status).toBe(404);
  });

  it('changed after signing is noted, unsigned again, and both figures stand in the record', async () => {
    await done(enter(second, { kind: 'weighed', ticketId, grossG: 5900, tareG: 450, how: 'typed', reason: 'water in the bag' })); // prettier-ignore
    const { entries } = await get<WeighInView>(weighMaster, 'weigh-in');
    const [ticket] = weighInOf(entries).tickets;
    expect(ticket).toMatchObject({
      signatures: {},
      corrections: [{ what: 'weighed', reason: 'water in the bag' }],
    });
    expect(entries.filter(({ act }) => act.kind === 'weighed')).toHaveLength(2);
    const { standings } = await get<StandingsView>(event.rival, 'standings?include=official');
    expect(standings[0]?.score.steps).toBe(0);
  });

  it.each([
    ['an entrant of another event', () => ({ kind: 'queued', ticketId: uuidv7(), entrantId: uuidv7(), dayId: event.dayId, number: 2 }), 404],
    ['a day that is not the event’s', () => ({ kind: 'queued', ticketId: uuidv7(), entrantId: event.entrantId, dayId: uuidv7(), number: 2 }), 404],
    ['a negative weight', () => ({ kind: 'weighed', ticketId, grossG: -1, tareG: 0, how: 'typed', reason: null }), 400],
    ['a signature of a million points', () => ({ kind: 'signed', ticketId, signer: 'angler', signature: { kind: 'drawn', strokes: Array(40).fill(Array(900).fill(0.5)) } }), 400],
    ['a scale that divides nothing', () => ({ kind: 'scale', scaleId: 'bench', name: 'Bench', scale: { ...kindOfClass('III', 5, 15_000), divisionG: 0 } }), 400],
    ['a class nobody marks', () => ({ kind: 'scale', scaleId: 'bench', name: 'Bench', scale: kindOfClass('III', 5, 15_000), accuracyClass: 'V' }), 400],
    ['an act nobody knows', () => ({ kind: 'dance', ticketId }), 400],
  ])('refuses %s', async (_, act, status) => {
    expect((await enter(weighMaster, act() as WeighInAct)).status).toBe(status);
  }); // prettier-ignore

  it('the scale’s logbook is kept by its officials alone, and stands on the ticket', async () => {
    const bench: WeighInAct = { kind: 'scale', scaleId: 'bench', name: 'Bench by the door', scale: kindOfClass('III', 5, 15_000), accuracyClass: 'III' }; // prettier-ignore
    const check: WeighInAct = { kind: 'scale-check', scaleId: 'bench', trueG: 5000, readG: 5020 };
    expect((await enter(event.angler, bench)).status).toBe(403);
    await done(enter(weighMaster, bench, check));
    const words = { ticketId, grossG: 5900, tareG: 450, how: 'scale', scaleId: 'bench', reason: 'on the other scale' } as const; // prettier-ignore
    await done(enter(second, { kind: 'weighed', ...words }));
    const { scales, tickets } = weighInOf((await get<WeighInView>(event.judge, 'weigh-in')).entries);
    expect(scales.get('bench')).toMatchObject({ accuracyClass: 'III', checks: [{ trueG: 5000, readG: 5020 }] }); // prettier-ignore
    expect(tickets[0]?.weight).toMatchObject({ scaleId: 'bench' });
    // 1000 divisions may be off by two (NIST Handbook 44, 2.20, table 6); this one was off by four.
    expect(scaleDoubts(scales.get('bench'), 5900, atMs)).toEqual(['outside-tolerance']);
    const ticket = await send(world, event.angler, 'get', `/api/events/${event.eventId}/tickets/${ticketId}/ticket.pdf`); // prettier-ignore
    expect(ticket.status).toBe(200);
    const ledger = await send(world, event.rival, 'get', `/api/events/${event.eventId}/ledger.jsonl`);
    expect(ledger.text).toContain('Bench by the door');
  });

  it('is nothing for an angler to enter, and its ledger holds no signature and no reason', async () => {
    expect((await enter(event.angler, { kind: 'called', ticketId })).status).toBe(403);
    expect((await send(world, event.angler, 'get', `/api/events/${event.eventId}/weigh-in`)).status).toBe(
      403,
    );
    const ledger = await send(world, event.rival, 'get', `/api/events/${event.eventId}/ledger.jsonl`);
    expect(ledger.text).toMatch(/grossG\\":6010/);
    expect(ledger.text).not.toContain('water in the bag');
    expect(ledger.text).not.toContain('strokes');
    expect(await checkLedger(world.lauta.storage.read, event.eventId)).toMatchObject({ ok: true });
  });

  it('what a boat said to have aboard stands beside the bag check', async () => {
    const entries = [{ entryId: uuidv7(), atMs: 5, act: { kind: 'declared' as const, count: 5 } }];
    await done(sendCommand(world, event.angler, 'well.enter', event.eventId, { entrantId: event.entrantId, dayId: event.dayId, entries })); // prettier-ignore
    const { declared } = await get<WeighInView>(weighMaster, 'weigh-in');
    expect(declared).toEqual([{ entrantId: event.entrantId, dayId: event.dayId, count: 5 }]);
  });

  it('a boat that shares its total is seen on the water, unofficial and without its fish; others are not', async () => {
    const fishId = uuidv7();
    const scale = { divisionG: 1, capacityG: 20_000, repeatabilityG: 1, gainSigma: 0, zeroSigmaG: 0, driftGPerRootHour: 0 }; // prettier-ignore
    const enterWell = (...acts: WellAct[]) =>
      sendCommand(world, event.rival, 'well.enter', event.eventId, { entrantId: event.rivalEntrantId, dayId: event.dayId, entries: acts.map((act) => ({ entryId: uuidv7(), atMs: (atMs += 1000), act })) }); // prettier-ignore
    await done(
      enterWell(
        { kind: 'scale', scaleId: 's', name: 'Scale', scale },
        { kind: 'fish-in', fishId, speciesId: 'largemouth-bass', lengthMm: null, condition: 'lively', compartment: 1, tagId: 'tag-1', tagPlace: 'on' }, // prettier-ignore
        { kind: 'weighed', fishId, scaleId: 's', readG: 1361, how: 'typed', airSeconds: null },
      ),
    );
    expect((await get<StandingsView>(event.angler, 'standings')).onWater).toEqual([]);
    await done(enterWell({ kind: 'shared', isShared: true }));
    // 1361 g are 48.0 oz (GNU units: 48.007861).
    const seen = await send(world, event.angler, 'get', `/api/events/${event.eventId}/standings`);
    expect((seen.body as StandingsView).onWater).toEqual([
      { entrantId: event.rivalEntrantId, steps: 48, fish: 1 },
    ]);
    expect(seen.text).not.toMatch(/:1361\b/);
    await done(enterWell({ kind: 'shared', isShared: false }));
    expect((await get<StandingsView>(event.angler, 'standings')).onWater).toEqual([]);
  });

  it('a weight that was changed behind the record is found', async () => {
    await world.pool.query('DROP TRIGGER weigh_in_entries_no_update');
    await world.pool.query(
      `UPDATE weigh_in_entries SET act = JSON_SET(act, '$.grossG', 9000) WHERE act LIKE '%6010%'`,
    );
    expect(await checkLedger(world.lauta.storage.read, event.eventId)).toMatchObject({ ok: false, faults: [{ fault: 'record-differs' }] }); // prettier-ignore
  });
});

/** Bytes of an answer, as they are. */
function raw(response: unknown, told: (error: Error | null, body: Buffer) => void): void {
  const stream = response as NodeJS.ReadableStream;
  const chunks: Buffer[] = [];
  stream.on('data', (chunk: Buffer) => chunks.push(chunk));
  stream.on('end', () => told(null, Buffer.concat(chunks)));
}

/** The drawing instructions of a PDF's pages. */
function pageOf(bytes: Buffer): string {
  const text = bytes.toString('latin1');
  return [...text.matchAll(/stream\r?\n/g)]
    .map(({ index, 0: head }) => {
      try {
        return inflateSync(bytes.subarray(index + head.length, text.indexOf('endstream', index))).toString(
          'latin1',
        );
      } catch {
        return '';
      }
    })
    .join('\n');
}
