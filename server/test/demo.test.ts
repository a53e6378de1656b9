import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ticketState, weighInOf } from '@lauta/core/weigh-in';
import { liveWellOf, wellTroubles } from '@lauta/core/well';
import { BOAT_CUP_SHEET, DEMO_EVENT, demoId, planDemo } from '@lauta/sim/demo';
import { BOAT_CUP_ID, DEMO_EVENT_ID } from '../src/demo/sendAs.ts';
import { loadDemo, openDemo } from '../src/demo/loadDemo.ts';
import { checkLedger } from '../src/verify/checkLedger.ts';
import { openWorld, type World } from './world.ts';

const CATCHES = 2;
let world: World;
let cacheDir: string;
const said: string[] = [];
const load = async () => {
  const demo = await openDemo(world.lauta.storage, true);
  if (!demo) throw new Error('no demo');
  const options = { catches: CATCHES, cacheDir, say: (text: string) => void said.push(text), signal: new AbortController().signal }; // prettier-ignore
  const { finished } = await loadDemo(world.lauta, options);
  await finished;
  return demo;
};
const head = () => world.lauta.storage.read.ledger.head(DEMO_EVENT_ID);

beforeAll(async () => {
  world = await openWorld({ isDemo: true });
  cacheDir = mkdtempSync(join(tmpdir(), 'lauta-demo-'));
  await load();
}, 120_000);
afterAll(async () => {
  await world.close();
  rmSync(cacheDir, { recursive: true, force: true });
});

describe('the demo', () => {
  it('comes in by the commands that people send, with a record that fits', async () => {
    expect(await checkLedger(world.lauta.storage.read, DEMO_EVENT_ID)).toMatchObject({ ok: true });
    expect(await world.lauta.storage.read.catches.countIn(DEMO_EVENT_ID)).toBe(CATCHES);
    expect(said.at(-1)).toMatch(/all 2 catches are in, after \d/);
  });

  it('has a second event by weight, with a well that holds together', async () => {
    const { read } = world.lauta.storage;
    expect(await checkLedger(read, BOAT_CUP_ID)).toMatchObject({ ok: true });
    const { tickets, contradictions } = weighInOf(await read.weighIns.ofEvent(BOAT_CUP_ID));
    expect(contradictions).toEqual([]);
    expect(tickets.map((ticket) => ticketState(BOAT_CUP_SHEET, ticket))).toEqual(Array(12).fill('signed'));
    const [own] = (await read.people.entrantsWith(demoId('account angler@kestrel-mere.example', Date.parse(DEMO_EVENT.preparedAt)))).filter(({ eventId }) => eventId === BOAT_CUP_ID); // prettier-ignore
    const well = liveWellOf(await read.wells.ofEntrant(own?.entrantId ?? ''));
    expect(well).toMatchObject({ contradictions: [], gone: [{ reason: 'cull' }, { reason: 'cull' }] });
    expect(well.fish).toHaveLength(5);
    expect(wellTroubles(BOAT_CUP_SHEET, well, { nowMs: Date.parse(DEMO_EVENT.now), isOver: false, carriedOver: 0, roundMinutes: 30 }).map(({ kind }) => kind)).toEqual(['unlooked']); // prettier-ignore
  });

  it('has readings near the true lengths, by marks as a thumb would set them', async () => {
    const planned = planDemo(CATCHES);
    const records = await world.lauta.storage.read.catches.allOf(DEMO_EVENT_ID);
    for (const record of records) {
      const measurement = await world.lauta.storage.read.catches.measurement(record.measurementId);
      const truth = planned.find((one) => one.capturedAtMs === record.capturedAt.getTime());
      // Parallax of the tail and some pixels of hand: a few millimetres.
      expect(Math.abs((measurement?.reading.apparentMm ?? 0) - (truth?.lengthMm ?? 0))).toBeLessThan(8);
      expect(record.capturedSource).toBe('photograph');
    }
  });

  it('is not loaded twice, and its clock stays as it was set', async () => {
    const before = await head();
    const first = await openDemo(world.lauta.storage, true);
    expect(await load()).toEqual(first);
    expect(await head()).toEqual(before);
  });

  it('goes on where a load broke off: a verdict that is missing is given', async () => {
    const planned = planDemo(CATCHES).filter((one) => one.decision !== null);
    expect(planned.length).toBeGreaterThan(0);
    const before = await head();
    await world.pool.query('DELETE FROM verdicts');
    await world.pool.query("DELETE FROM receipts WHERE JSON_VALUE(receipt, '$.kind') = 'catch.judge'");
    await load();
    expect((await head())?.seq).toBe((before?.seq ?? 0) + planned.length);
  });

  it('goes on where a visitor was first: a catch that was withdrawn before its verdict stays so', async () => {
    const planned = planDemo(CATCHES).filter((one) => one.decision !== null);
    await world.pool.query('DELETE FROM verdicts');
    await world.pool.query("DELETE FROM receipts WHERE JSON_VALUE(receipt, '$.kind') = 'catch.judge'");
    await world.pool.query('UPDATE catches SET withdrawn_at = received_at LIMIT 1');
    await load();
    const [rows] = await world.pool.query('SELECT DISTINCT catch_id FROM verdicts');
    expect(rows).toHaveLength(planned.length - 1);
  });
});

describe('a database that goes away while the demo comes in', () => {
  it('is waited for, and nothing is missing or twice', async () => {
    const own = await openWorld({ isDemo: true });
    await openDemo(own.lauta.storage, true);
    let changes = 0;
    let failures = 0;
    let next = 0;
    let isComingIn = false;
    const { storage } = own.lauta;
    const shaky = {
      ...storage,
      change: (async (act) => {
        // Once the first catch is there a change finds nobody, as a driver says it, each time after a few more: a fixed
        // step might meet the same one of an act for ever.
        changes += 1;
        isComingIn ||= (await storage.read.catches.countIn(DEMO_EVENT_ID)) > 0;
        if (isComingIn && changes >= next) {
          failures += 1;
          next = changes + 3 + failures;
          throw Object.assign(new Error('away'), { code: 'ECONNREFUSED' });
        }
        return storage.change(act);
      }) as typeof storage.change,
    };
    const options = {
      catches: CATCHES,
      cacheDir,
      say: () => undefined,
      signal: new AbortController().signal,
    };
    const { finished } = await loadDemo({ ...own.lauta, storage: shaky }, options);
    await finished;
    expect(failures).toBeGreaterThan(1);
    expect(await storage.read.catches.countIn(DEMO_EVENT_ID)).toBe(CATCHES);
    expect(await checkLedger(storage.read, DEMO_EVENT_ID)).toMatchObject({ ok: true });
    await own.close();
  });
});

describe('an installation that is none', () => {
  it('gets no demo: neither where none is wanted nor where people are', async () => {
    const real = await openWorld();
    expect(await openDemo(real.lauta.storage, false)).toBeNull();
    await real.person('Somebody');
    expect(await openDemo(real.lauta.storage, true)).toBeNull();
    await real.close();
  });
});
