import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import type { WellView } from '@lauta/contract';
import { liveWellOf, type WellAct, type WellEntry } from '@lauta/core/well';
import { checkLedger } from '../src/verify/checkLedger.ts';
import { commandOf, done, holdEvent, openWorld, send, sendCommand, type Person, type TestEvent, type World } from './world.ts'; // prettier-ignore

let world: World;
let event: TestEvent;
beforeAll(async () => {
  world = await openWorld();
  event = await holdEvent(world);
});
afterAll(() => world.close());

let atMs = Date.parse('2026-06-14T05:00:00Z');
const entry = (act: WellAct): WellEntry => ({ entryId: uuidv7(), atMs: (atMs += 1000), act });
const fishIn = (fishId: string, tagId: string | null = null): WellAct => ({
  kind: 'fish-in',
  fishId,
  speciesId: 'bass',
  lengthMm: null,
  condition: 'lively',
  compartment: 1,
  tagId,
  tagPlace: 'on',
});
const enter = (entries: WellEntry[], who: Person = event.angler, change: object = {}) =>
  sendCommand(world, who, 'well.enter', event.eventId, {
    entrantId: event.entrantId,
    dayId: event.dayId,
    entries,
    ...change,
  });
const seen = async (who: Person = event.angler, entrantId = event.entrantId) =>
  (await send(world, who, 'get', `/api/events/${event.eventId}/entrants/${entrantId}/well`)).body as WellView;

describe('a well on the server', () => {
  it('is the one on the phone, whatever the order in which the entries came', async () => {
    const fishId = uuidv7();
    const entries = [
      entry(fishIn(fishId, 'tag-1')),
      entry({ kind: 'looked', fishId, condition: 'weak', signs: ['labours'] }),
      entry({ kind: 'released', fishId, reason: 'weak', airSeconds: 3 }),
    ];
    await done(enter(entries.slice(1)));
    await done(enter(entries.slice(0, 1)));
    const { days } = await seen();
    expect(days).toMatchObject([{ dayId: event.dayId }]);
    expect(days[0]?.entries).toHaveLength(3);
    expect(liveWellOf(days[0]?.entries ?? [])).toEqual(liveWellOf(entries));
  });

  it('a command sent twice enters once; an entry under another command is refused', async () => {
    const command = commandOf('well.enter', event.eventId, {
      entrantId: event.entrantId,
      dayId: event.dayId,
      entries: [entry({ kind: 'declared', count: 0 })],
    });
    const post = () =>
      send(world, event.angler, 'post', '/api/commands')
        .set('Idempotency-Key', command.commandId)
        .send(command);
    const before = (await seen()).days[0]?.entries.length ?? 0;
    expect((await post()).status).toBe(200);
    expect((await post()).status).toBe(200);
    expect((await seen()).days[0]?.entries).toHaveLength(before + 1);
    const again = await enter(command.body.entries);
    expect([again.status, (again.body as { type: string }).type]).toEqual([409, 'entry-exists']);
  });

  it('is nobody else’s business: a rival, a judge and the ledger see no weight', async () => {
    const fishId = uuidv7();
    const scale = { divisionG: 10, capacityG: 20_000, repeatabilityG: 10, gainSigma: 0.01, zeroSigmaG: 10, driftGPerRootHour: 4 }; // prettier-ignore
    await done(
      enter([
        entry({ kind: 'scale', scaleId: 'hanging', name: 'Hanging scale', scale }),
        entry(fishIn(fishId)),
        entry({ kind: 'weighed', fishId, scaleId: 'hanging', readG: 1234.5, how: 'typed', airSeconds: null }),
      ]),
    );
    const path = `/api/events/${event.eventId}/entrants/${event.entrantId}/well`;
    expect((await send(world, event.rival, 'get', path)).status).toBe(403);
    expect((await send(world, event.judge, 'get', path)).status).toBe(403);
    const ledger = await send(world, event.rival, 'get', `/api/events/${event.eventId}/ledger.jsonl`);
    expect(ledger.text).not.toMatch(/readG|1234\.5/);
    expect((await enter([entry({ kind: 'declared', count: 1 })], event.rival)).status).toBe(403);
  });

  it.each([
    ['another event’s entrant', () => ({ entrantId: uuidv7() }), 404],
    ['a day that is not the event’s', () => ({ dayId: uuidv7() }), 404],
    ['an entry twice in one command', () => ({ entries: Array(2).fill(entry({ kind: 'declared', count: 1 })) as WellEntry[] }), 400],
    ['nothing', () => ({ entries: [] }), 400],
    ['an act nobody knows', () => ({ entries: [{ ...entry({ kind: 'declared', count: 1 }), act: { kind: 'dance' } }] }), 400],
    ['a negative weight', () => ({ entries: [entry({ kind: 'weighed', fishId: uuidv7(), scaleId: 's', readG: -1, how: 'typed', airSeconds: null })] }), 400],
    ['half a fish', () => ({ entries: [entry({ kind: 'declared', count: 1.5 })] }), 400],
  ])('refuses %s', async (_, change, status) => {
    expect((await enter([entry({ kind: 'declared', count: 1 })], event.angler, change())).status).toBe(status);
  }); // prettier-ignore

  it('whatever is done in whatever order, told late, twice and mixed: count, tags and ledger agree', async () => {
    const step = fc.record({ what: fc.constantFrom('in', 'in', 'tag', 'out', 'look', 'undo'), pick: fc.nat({ max: 30 }) }); // prettier-ignore
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 5, maxLength: 14 }), fc.nat(), async (steps, mix) => {
        const own = await holdEvent(world);
        // What a person believes, kept in the head.
        let aboard: string[] = [];
        const tags = new Map<string, string>();
        const entries: WellEntry[] = [];
        for (const { what, pick } of steps) {
          const fishId = aboard[pick % Math.max(1, aboard.length)] ?? '';
          const tagId = `tag-${(pick % 5) + 1}`;
          if (what === 'in') {
            const id = uuidv7();
            entries.push(entry(fishIn(id)));
            aboard.push(id);
          } else if (fishId === '') continue;
          else if (what === 'tag') {
            entries.push(entry({ kind: 'tagged', fishId, tagId, tagPlace: 'on' }));
            tags.set(fishId, tagId);
          } else if (what === 'look')
            entries.push(entry({ kind: 'looked', fishId, condition: 'lively', signs: [] }));
          else {
            const out = entry({ kind: 'released', fishId, reason: 'cull', airSeconds: null });
            entries.push(out);
            if (what === 'undo') entries.push(entry({ kind: 'undone', entryId: out.entryId }));
            else {
              aboard = aboard.filter((one) => one !== fishId);
              tags.delete(fishId);
            }
          }
        }
        // Two phones send what they have when they have a network: in any order, and again when no answer was heard.
        const shuffled = entries
          .map((one, i) => ({ one, key: (i * 7919 + mix) % 101 }))
          .sort((a, b) => a.key - b.key);
        const commands = Array.from(
          { length: Math.ceil(shuffled.length / 3) },
          (_, i) =>
          commandOf('well.enter', own.eventId, { entrantId: own.entrantId, dayId: own.dayId, entries: shuffled.slice(3 * i, 3 * i + 3).map(({ one }) => one) }), // prettier-ignore
        );
        for (const command of [...commands, ...commands.slice(0, 2)]) {
          const sent = await send(world, own.angler, 'post', '/api/commands').set('Idempotency-Key', command.commandId).send(command); // prettier-ignore
          expect(sent.status, sent.text).toBe(200);
        }
        const path = `/api/events/${own.eventId}/entrants/${own.entrantId}/well`;
        const { days } = (await send(world, own.angler, 'get', path)).body as WellView;
        const well = liveWellOf(days[0]?.entries ?? []);
        expect(well.fish.map(({ fishId }) => fishId)).toEqual(aboard);
        expect(new Map(well.fish.flatMap(({ fishId, tagId }) => (tagId ? [[fishId, tagId]] : [])))).toEqual(
          tags,
        );
        expect(well.contradictions).toEqual([]);
        expect(await checkLedger(world.lauta.storage.read, own.eventId)).toMatchObject({ ok: true });
      }),
      { seed: 4310, numRuns: 6 },
    );
  }, 60_000);

  it('and its ledger agree; an entry that was changed afterwards is found', async () => {
    const { read } = world.lauta.storage;
    expect(await checkLedger(read, event.eventId)).toMatchObject({ ok: true });
    await world.pool.query('DROP TRIGGER well_entries_no_update');
    await world.pool.query(
      `UPDATE well_entries SET act = JSON_SET(act, '$.readG', 2000) WHERE act LIKE '%1234.5%'`,
    );
    expect(await checkLedger(read, event.eventId)).toMatchObject({
      ok: false,
      faults: [{ fault: 'record-differs' }],
    });
  });
});
