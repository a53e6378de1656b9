import { verify } from 'node:crypto';
import { mkdtempSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { verifyLedger } from '@lauta/core/ledger';
import { openHeadSigner, rotateKey, type LedgerKey } from '../src/keys/headSigner.ts';
import { checkLedger } from '../src/verify/checkLedger.ts';
import {
  NOBODY,
  NOON,
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
    expect(verifyLedger(event.eventId, entries, { firstKind: 'event.create' }).ok).toBe(true);
    expect(await check()).toMatchObject({ ok: true, faults: [] });
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

describe('a difference is named with its entry', () => {
  it.each([
    ['a claim', 'UPDATE catches SET claimed_steps = 80 WHERE catch_id = ?', 'catch.claim', 'record-differs', /^catch .*: claimedSteps$/],
    ['a verdict taken out', 'DELETE FROM verdicts WHERE catch_id = ?', 'catch.judge', 'record-missing', /^verdict /],
    ['a photograph’s hash', 'UPDATE photographs SET sha256 = UNHEX(SHA2(1, 256)) WHERE photograph_id = (SELECT photograph_id FROM catch_photographs WHERE catch_id = ?)', 'catch.claim', 'photograph-differs', /: sha256$/],
  ])('%s', async (_what, text, kind, fault, about) => {
    await alter(text, catchId);
    const { ok, faults } = await check();
    expect(ok).toBe(false);
    const found = faults.find((one) => one.fault === fault);
    expect(found?.seq).toBe(await seqOf(kind));
    expect(found?.about).toMatch(about);
  }); // prettier-ignore

  it('what stands there without one has none', async () => {
    await alter('INSERT INTO event_roles (event_id, account_id, role) VALUES (?, ?, ?)', event.eventId, event.angler.accountId, 'judge'); // prettier-ignore
    expect((await check()).faults).toEqual([{ seq: null, fault: 'row-without-entry', about: `role ${event.angler.accountId}/judge` }]); // prettier-ignore
  });
});

describe('a clock that is set back', () => {
  it('is said by the entry itself, so that times that run back without a word are an alteration', async () => {
    world.setNow('2026-06-13T10:00:00.000Z');
    await claim(world, event);
    world.setNow(NOON);
    const entries = await world.lauta.storage.read.ledger.entries(event.eventId, 0, 100);
    expect(Buffer.from(entries.at(-1)?.bytes ?? []).toString()).toContain(`"clockBackFrom":"${NOON}"`);
    expect(await check()).toMatchObject({ ok: true });
  });
});

describe('where a ledger ended', () => {
  it('is told in each receipt, signed, and can be compared later', async () => {
    const receipt = await done(sendCommand(world, event.director, 'codes.reveal', event.eventId, { dayId: event.dayId, from: null })); // prettier-ignore
    const { seq, hash = '', signature = '', signedBy = '' } = receipt;
    expect(world.lauta.signer.isSigned(event.eventId, { seq, hash, signature, signedBy })).toBe(true);
    expect(world.lauta.signer.isSigned(event.eventId, { seq: seq - 1, hash, signature, signedBy })).toBe(
      false,
    );
    const keys = await send(world, NOBODY, 'get', '/api/ledger-keys');
    expect(keys.body).toMatchObject([{ keyId: signedBy, retiredAt: null }]);
    const later = await send(world, NOBODY, 'get', `/api/events/${event.eventId}/ledger/entries/${seq}/hash`);
    expect(later.body).toEqual({ seq, hash });
    const beyond = await send(world, NOBODY, 'get', `/api/events/${event.eventId}/ledger/entries/9999/hash`);
    expect(beyond.body).toEqual({ seq: 9999, hash: null });
  });

  it('a key that is put in place of another is named by it', () => {
    const file = join(mkdtempSync(join(tmpdir(), 'lauta-key-')), 'key.json');
    const before = openHeadSigner(file);
    const head = before.sign(event.eventId, { seq: 3, hash: 'ab' });
    const { from, to } = rotateKey(file, new Date(NOON));
    const after = openHeadSigner(file);
    expect(statSync(file).mode & 0o077).toBe(0);
    expect(after.isSigned(event.eventId, head)).toBe(true);
    expect(after.keys()).toMatchObject([{ keyId: to }, { keyId: from, retiredAt: NOON }]);
    const former = after.keys()[1] as LedgerKey;
    const word = Buffer.from(former.handedOver ?? '', 'base64url');
    expect(verify(null, Buffer.from(`lauta-ledger-key:${to}`), former.publicKey, word)).toBe(true);
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
