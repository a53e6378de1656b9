import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { verifyLedger } from '@lauta/core/ledger';
import { SHIPPED_BOARDS, type MeasuringBoard } from '@lauta/core/photo';
import { checkLedger } from '../src/ledger/checkLedger.ts';
import {
  claim,
  done,
  holdEvent,
  judge,
  openWorld,
  send,
  sendCommand,
  type TestEvent,
  type World,
} from './world.ts';

let world: World;
let event: TestEvent;
let catchId: string;
beforeAll(async () => {
  world = await openWorld();
  // What an attacker with the database's own rights would do first.
  await world.pool.query('DROP TRIGGER ledger_entries_no_update');
  await world.pool.query('DROP TRIGGER ledger_entries_no_delete');
  await world.pool.query('DROP TRIGGER rule_sheets_no_update');
  await world.pool.query('DROP TRIGGER boards_no_update');
});
afterAll(() => world.close());
beforeEach(async () => {
  event = await holdEvent(world);
  catchId = await claim(world, event);
  await judge(world, event, catchId, {
    kind: 'accepted',
    steps: 62,
    infractions: ['mouth-open'],
    note: 'Words.',
  });
});

const check = () => checkLedger(world.lauta.storage.read, event.eventId);
const alter = (sql: string, ...values: unknown[]) => world.pool.query(sql, values);
const seqOf = async (kind: string): Promise<number> => {
  const entries = await world.lauta.storage.read.ledger.entries(event.eventId, 0, 100);
  return entries.find((entry) => Buffer.from(entry.bytes).toString().includes(`"kind":"${kind}"`))?.seq ?? 0;
};

describe('the ledger of an event', () => {
  it('holds one entry a command, in an unbroken chain, and fits all that it speaks of', async () => {
    const entries = await world.lauta.storage.read.ledger.entries(event.eventId, 0, 100);
    expect(entries.map((entry) => entry.seq)).toEqual(entries.map((_, i) => i + 1));
    expect(verifyLedger(event.eventId, entries).ok).toBe(true);
    expect(await check()).toMatchObject({ ok: true, firstFault: null });
  });

  it('keeps its order when many write at once', async () => {
    await Promise.all(Array.from({ length: 8 }, () => claim(world, event)));
    expect(await check()).toMatchObject({ ok: true });
  });

  it('is guarded against slips of hand by the database itself', async () => {
    const guarded = await openWorld();
    const own = await holdEvent(guarded);
    await expect(guarded.pool.query('UPDATE ledger_entries SET seq = seq + 100')).rejects.toThrow(
      /never rewritten/,
    );
    await expect(guarded.pool.query('DELETE FROM ledger_entries')).rejects.toThrow(/never removed/);
    expect((await checkLedger(guarded.lauta.storage.read, own.eventId)).ok).toBe(true);
    await guarded.close();
  });
});

describe('an alteration in the database is found, with the first entry that does not fit', () => {
  it.each([
    ['an entry’s bytes', 'UPDATE ledger_entries SET bytes = REPLACE(bytes, \'"claimedSteps":62\', \'"claimedSteps":72\') WHERE event_id = ? AND seq = ?', 'altered'], // prettier-ignore
    ['an entry taken out', 'DELETE FROM ledger_entries WHERE event_id = ? AND seq = ?', 'missing'],
    ['bytes and hash alike', 'UPDATE ledger_entries SET bytes = REPLACE(bytes, \'"claimedSteps":62\', \'"claimedSteps":72\'), hash = UNHEX(SHA2(bytes, 256)) WHERE event_id = ? AND seq = ?', 'broken-link'], // prettier-ignore
  ])('%s', async (_what, sql, fault) => {
    const seq = await seqOf('catch.claim');
    await alter(sql, event.eventId, seq);
    // Rehashed bytes fit themselves: the next entry is the first that does not.
    const first = fault === 'broken-link' ? seq + 1 : seq;
    expect(await check()).toMatchObject({ ok: false, firstFault: { seq: first, fault } });
  });

  it('the last entry cut off', async () => {
    const head = await world.lauta.storage.read.ledger.head(event.eventId);
    await alter('DELETE FROM ledger_entries WHERE event_id = ? AND seq = ?', event.eventId, head?.seq);
    expect(await check()).toMatchObject({ ok: false, firstFault: { seq: head?.seq, fault: 'missing' } });
  });

  it.each([
    ['a claim', 'UPDATE catches SET claimed_steps = 80 WHERE catch_id = ?', 'catch.claim', 'record-differs'],
    ['a capture time', "UPDATE catches SET captured_at = '2026-06-14 05:00:00' WHERE catch_id = ?", 'catch.claim', 'record-differs'],
    ['a verdict', "UPDATE verdicts SET decision = JSON_REPLACE(decision, '$.steps', 80) WHERE catch_id = ?", 'catch.judge', 'record-differs'],
    ['a verdict taken out', 'DELETE FROM verdicts WHERE catch_id = ?', 'catch.judge', 'record-differs'],
  ])('%s', async (_what, sql, kind, fault) => {
    await alter(sql, catchId);
    expect(await check()).toMatchObject({ ok: false, firstFault: { seq: await seqOf(kind), fault } });
  }); // prettier-ignore

  it('a photograph’s hash', async () => {
    await alter('UPDATE photographs SET sha256 = UNHEX(SHA2(1, 256)) WHERE photograph_id = (SELECT photograph_id FROM catch_photographs WHERE catch_id = ?)', catchId); // prettier-ignore
    expect(await check()).toMatchObject({ firstFault: { seq: await seqOf('catch.claim'), fault: 'photograph-differs' } }); // prettier-ignore
  });

  it.each([
    ['a photograph’s own bytes', 'UPDATE photograph_chunks SET bytes = CONCAT(bytes, UNHEX(0)) WHERE photograph_id = ?'],
    ['the copy that others see', "UPDATE photograph_copies SET bytes = CONCAT(bytes, UNHEX(0)) WHERE photograph_id = ? AND variant = 'screen'"],
  ])('%s, when the bytes are read too', async (_what, sql) => {
    const full = () => checkLedger(world.lauta.storage.read, event.eventId, { withBytes: true });
    expect(await full()).toMatchObject({ ok: true });
    const [photograph] = await world.lauta.storage.read.catches.photographsOf(catchId);
    await alter(sql, photograph?.photographId);
    expect(await full()).toMatchObject({ firstFault: { seq: await seqOf('catch.claim'), fault: 'photograph-differs' } });
  }); // prettier-ignore

  it('a kind of board', async () => {
    const shipped = SHIPPED_BOARDS[0] as MeasuringBoard;
    await done(sendCommand(world, event.director, 'board.add', event.eventId, { board: { ...shipped, id: 'alder' } })); // prettier-ignore
    expect(await check()).toMatchObject({ ok: true });
    await alter("UPDATE boards SET bytes = REPLACE(bytes, '\"widthMm\":152', '\"widthMm\":151') WHERE event_id = ?", event.eventId); // prettier-ignore
    expect(await check()).toMatchObject({
      firstFault: { seq: await seqOf('board.add'), fault: 'board-differs' },
    });
  });

  it('a rule sheet', async () => {
    await alter("UPDATE rule_sheets SET bytes = REPLACE(bytes, '\"bagLimit\":2', '\"bagLimit\":9') WHERE event_id = ?", event.eventId); // prettier-ignore
    expect(await check()).toMatchObject({ firstFault: { seq: 2, fault: 'sheet-differs' } });
  });

  it('words that were committed to', async () => {
    await alter("UPDATE commitments SET value = '\"Other words.\"' WHERE event_id = ? AND seq = ? AND label = 'words'", event.eventId, await seqOf('catch.judge')); // prettier-ignore
    expect(await check()).toMatchObject({ firstFault: { seq: await seqOf('catch.judge'), fault: 'commitment-differs' } }); // prettier-ignore
  });
});

describe('erasing personal data', () => {
  it('leaves the chain valid', async () => {
    await alter('UPDATE commitments SET salt = NULL, value = NULL WHERE event_id = ?', event.eventId);
    expect(await check()).toMatchObject({ ok: true });
  });
});

describe('the ledger’s page', () => {
  it('shows the newest first, and exports all as lines of JSON', async () => {
    const page = await send(world, event.judge, 'get', `/api/events/${event.eventId}/ledger?pageSize=2`);
    const { items, total } = page.body as { items: { seq: number }[]; total: number };
    expect(items.map((one) => one.seq)).toEqual([total, total - 1]);
    const found = await send(
      world,
      event.judge,
      'get',
      `/api/events/${event.eventId}/ledger?search=CATCH.Claim`,
    );
    expect(found.body).toMatchObject({ total: 1, items: [{ seq: await seqOf('catch.claim') }] });
    const none = await send(world, event.judge, 'get', `/api/events/${event.eventId}/ledger?search=%25`);
    expect(none.body).toMatchObject({ total: 0, items: [] });
    const lines = await send(world, event.judge, 'get', `/api/events/${event.eventId}/ledger.jsonl`).buffer(true).parse((response, done_) => {
      let text = '';
      response.on('data', (some: Buffer) => (text += some.toString()));
      response.on('end', () => done_(null, text));
    }); // prettier-ignore
    expect((lines.body as string).trim().split('\n')).toHaveLength(total);
  });
});
