import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { readFileSync, readdirSync } from 'node:fs';
import { openDB } from 'idb';
import { describe, expect, it, vi } from 'vitest';
import type { Receipt } from '@lauta/contract';
import { subjectOf } from './nextEntry.ts';
import type { OutboxEntry } from './outboxStore.ts';
import { sendNext } from './sender.ts';

/** What waited on a device when a landed version was the newest. They are never edited. */
const FIXTURES = new URL('./fixtures/', import.meta.url);
const RECEIPT: Receipt = { commandId: '', kind: '', eventId: '', seq: 1, receivedAt: '', result: {} };

describe.each(readdirSync(FIXTURES).filter((name) => name.startsWith('outbox.')))('%s', (name) => {
  it('is read whole and sent, within a catch in the order in which it was written', async () => {
    const waiting = JSON.parse(readFileSync(new URL(name, FIXTURES), 'utf8')) as OutboxEntry[];
    expect(waiting.length).toBeGreaterThanOrEqual(8);
    // As that version left it: raw, past whatever this one would write.
    vi.stubGlobal('indexedDB', new IDBFactory());
    vi.resetModules();
    const { openOutboxStore } = await import('./outboxStore.ts');
    const db = await openDB('lauta-outbox', 1, {
      upgrade(made) {
        made.createObjectStore('entries');
        made.createObjectStore('files', { keyPath: 'fileId' });
      },
    });
    for (const entry of waiting) {
      await db.put('entries', entry, entry.command.commandId);
      for (const { fileId } of entry.files) await db.put('files', { fileId, blob: new Blob(['file']) });
    }
    db.close();
    const store = openOutboxStore();
    expect((await store.all()).unreadable).toEqual([]);
    const sent: OutboxEntry[] = [];
    const files: string[] = [];
    const parts = {
      store,
      attempts: new Map<string, number>(),
      accountId: () => waiting[0]?.accountId ?? null,
      upload: async ({ fileId, blob }: { fileId: string; blob: Blob }) => {
        expect(await blob.text()).toBe('file');
        files.push(fileId);
      },
      post: () => Promise.resolve(RECEIPT),
      onProgress: () => undefined,
      onSent: async (entry: OutboxEntry) => void sent.push(entry),
    };
    while ((await sendNext(parts)) === 'sent');
    expect(sent).toHaveLength(waiting.length);
    expect(files).toHaveLength(waiting.reduce((sum, entry) => sum + entry.files.length, 0));
    for (const subject of new Set(waiting.map(subjectOf))) {
      const orders = sent.filter((entry) => subjectOf(entry) === subject).map(({ order }) => order);
      expect(orders).toEqual([...orders].sort((a, b) => a - b));
    }
  });
});
