import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { readFileSync } from 'node:fs';
import { openDB } from 'idb';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';

/**
 * What the last version with seven databases had written: a fish on and another in the net, a draft with its
 * photograph, frames, a claim and taps at the well without a network, captures, what was sent, what was fetched.
 * It is never edited. Keys that cannot be read out of a browser stand as "key".
 */
const FORMER = new URL('./fixtures/seven-databases.json', import.meta.url);

const dumpSchema = z.array(
  z.object({
    database: z.string(),
    stores: z.array(
      z.object({
        name: z.string(),
        keyPath: z.string().nullable(),
        indexes: z.array(z.object({ name: z.string(), keyPath: z.string() })),
        records: z.array(z.object({ key: z.string(), value: z.unknown() })),
      }),
    ),
  }),
);
const dump = dumpSchema.parse(JSON.parse(readFileSync(FORMER, 'utf8')));

/** Files stand as their bytes in base64. */
function revived(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(revived);
  if (typeof value !== 'object' || value === null) return value;
  const entries = Object.entries(value);
  const blob = z.object({ $blob: z.string(), type: z.string() }).safeParse(value);
  if (blob.success) return new Blob([Buffer.from(blob.data.$blob, 'base64')], { type: blob.data.type });
  return Object.fromEntries(entries.map(([key, one]) => [key, revived(one)]));
}

/** The databases as that version left them. */
async function leaveFormer(): Promise<void> {
  for (const { database, stores } of dump) {
    const db = await openDB(database, 1, {
      upgrade(made) {
        for (const { name, keyPath, indexes } of stores) {
          const store = made.createObjectStore(name, keyPath === null ? {} : { keyPath });
          for (const index of indexes) store.createIndex(index.name, index.keyPath);
        }
      },
    });
    for (const { name, keyPath, records } of stores)
      for (const { key, value } of records)
        await db.put(name, revived(value), keyPath === null ? key : undefined);
    db.close();
  }
}

/** A page that opens: nothing is in its memory. */
async function openPage() {
  vi.resetModules();
  const [{ deviceDatabase }, { openOutboxStore }, { openCustodyStore }, { openSentStore }, fish, frames] =
    await Promise.all([
      import('./database.ts'),
      import('../outbox/outboxStore.ts'),
      import('../custody/custodyStore.ts'),
      import('../outbox/sentStore.ts'),
      import('../fish-clock/fishStore.ts'),
      import('../camera/frames.ts'),
    ]);
  return { deviceDatabase, outbox: openOutboxStore(), custody: openCustodyStore(), sent: openSentStore(undefined, () => 0), fish, frames }; // prettier-ignore
}

const recordsOf = (database: string, store: string) =>
  dump.find((one) => one.database === database)?.stores.find((one) => one.name === store)?.records ?? [];

/** How many records each store of the former databases has. */
async function leftBehind(): Promise<number> {
  let left = 0;
  for (const { database, stores } of dump) {
    const db = await openDB(database);
    for (const { name } of stores) left += await db.count(name);
    db.close();
  }
  return left;
}

beforeEach(() => {
  vi.stubGlobal('indexedDB', new IDBFactory());
  vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined, removeItem: () => undefined }); // prettier-ignore
});

describe('a device of the version with seven databases', () => {
  it('has something in each of its stores', () => {
    for (const { database, stores } of dump)
      for (const { name, records } of stores)
        expect(records.length, `${database} ${name}`).toBeGreaterThan(0);
    expect(dump).toHaveLength(7);
  });

  it('is taken over whole: outbox with its files, fish, draft, frames, captures, what was sent and fetched', async () => {
    await leaveFormer();
    const { deviceDatabase, outbox, custody, sent, fish, frames } = await openPage();
    const { entries, unreadable } = await outbox.all();
    expect(unreadable).toEqual([]);
    expect(entries.map(({ command }) => command.commandId).sort()).toEqual(
      recordsOf('lauta-outbox', 'entries')
        .map(({ key }) => key)
        .sort(),
    );
    for (const { files } of entries)
      for (const { fileId, byteLength } of files) expect((await outbox.file(fileId))?.size).toBe(byteLength);
    const [{ key: eventId } = { key: '' }] = recordsOf('lauta-fish', 'fish');
    const { running, waiting } = await fish.readFish(eventId);
    expect([running, ...waiting]).toEqual(
      [z.object({ running: z.unknown(), waiting: z.array(z.unknown()) }).parse(recordsOf('lauta-fish', 'fish')[0]?.value)] // prettier-ignore
        .flatMap((kept) => [kept.running, ...kept.waiting]),
    );
    expect(await fish.isFishOn()).toBe(true);
    for (const { key } of recordsOf('lauta-frames', 'frames'))
      expect((await frames.readFrame(key))?.photo.size).toBeGreaterThan(0);
    const isUntold = z.object({ isTold: z.literal(0) });
    expect(await custody.untold()).toHaveLength(
      recordsOf('lauta-custody', 'captures').filter(({ value }) => isUntold.safeParse(value).success).length,
    );
    for (const { key } of recordsOf('lauta-custody', 'captures'))
      expect(await custody.capture(key)).not.toBeNull();
    expect(await sent.all()).toHaveLength(recordsOf('lauta-sent', 'sent').length);
    const db = await deviceDatabase();
    expect(await db.getAllKeys('drafts')).toEqual(recordsOf('lauta-water', 'drafts').map(({ key }) => key));
    expect((await db.getAll('draft-photographs'))[0]?.size).toBeGreaterThan(0);
    expect(await db.count('known')).toBe(1);
    expect(await db.count('keys')).toBe(recordsOf('lauta-custody', 'keys').length);
    expect(await db.count('chains')).toBe(recordsOf('lauta-custody', 'chains').length);
    expect(await leftBehind()).toBe(0);
  });

  it('is taken over once: what was sent since does not come back', async () => {
    await leaveFormer();
    const first = await openPage();
    for (const { command } of (await first.outbox.all()).entries)
      await first.outbox.remove(command.commandId);
    const second = await openPage();
    expect((await second.outbox.all()).entries).toEqual([]);
    expect(await (await second.deviceDatabase()).count('files')).toBe(0);
  });

  it('may still be open in another tab: what it writes later comes with the next start, what both have stays with both', async () => {
    await leaveFormer();
    await openPage().then(({ deviceDatabase }) => deviceDatabase());
    // The other tab goes on, as if nothing had been taken.
    await leaveFormer();
    const former = await openDB('lauta-outbox', 1);
    const [later] = recordsOf('lauta-outbox', 'entries');
    await former.put('entries', later?.value, 'written-later');
    former.close();
    const { deviceDatabase } = await openPage();
    const db = await deviceDatabase();
    expect(await db.get('entries', 'written-later')).toEqual(later?.value);
    const records = dump
      .flatMap(({ stores }) => stores)
      .reduce((sum, { records }) => sum + records.length, 0);
    expect(await leftBehind()).toBe(records);
  });

  it('has a database that cannot be opened: the others are taken over, and it is tried again', async () => {
    await leaveFormer();
    const factory = indexedDB;
    const broken = vi.spyOn(factory, 'open');
    const open = broken.getMockImplementation() ?? IDBFactory.prototype.open;
    broken.mockImplementation(function (this: IDBFactory, name: string, version?: number) {
      if (name === 'lauta-outbox') throw new DOMException('broken', 'UnknownError');
      return open.call(factory, name, version);
    });
    const { deviceDatabase } = await openPage();
    expect(await (await deviceDatabase()).count('entries')).toBe(0);
    expect(await (await deviceDatabase()).count('frames')).toBe(recordsOf('lauta-frames', 'frames').length);
    broken.mockRestore();
    const { outbox } = await openPage();
    expect((await outbox.all()).entries).toHaveLength(recordsOf('lauta-outbox', 'entries').length);
  });
});

describe('a browser that does not tell which databases there are', () => {
  it('has what was there taken over all the same', async () => {
    await leaveFormer();
    vi.spyOn(indexedDB, 'databases').mockRejectedValue(new DOMException('not told', 'UnknownError'));
    const { outbox } = await openPage();
    expect((await outbox.all()).entries).toHaveLength(recordsOf('lauta-outbox', 'entries').length);
    expect(await leftBehind()).toBe(0);
  });
});

describe('a new device', () => {
  it('makes one database and none of the former', async () => {
    const { deviceDatabase } = await openPage();
    await deviceDatabase();
    expect((await indexedDB.databases()).map(({ name }) => name)).toEqual(['lauta']);
  });
});
