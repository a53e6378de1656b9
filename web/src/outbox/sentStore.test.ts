import 'fake-indexeddb/auto';
import { describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { commandSchema } from '@lauta/contract';
import { openSentStore, type KeptCommand } from './sentStore.ts';

const ID = '0190c1d2-0000-7000-8000-000000000002';
const HOUR_MS = 60 * 60 * 1000;

const keptOf = (kind: string, body: object): KeptCommand => ({
  command: commandSchema.parse({
    v: 1,
    commandId: uuidv7(),
    eventId: ID,
    madeAt: '2026-06-14T10:00:00.000Z',
    deviceId: ID,
    kind,
    body,
  }),
  accountId: 'me',
});
const counted = (count: number): KeptCommand =>
  keptOf('well.enter', {
    entrantId: ID,
    dayId: ID,
    entries: [{ entryId: uuidv7(), atMs: 1, act: { kind: 'declared', count } }],
  });

describe('what was sent', () => {
  it('is known to a page that comes later, in its order and with its time, for a day', async () => {
    const name = uuidv7();
    let nowMs = 1000;
    const store = openSentStore(name, () => nowMs);
    const [first, second] = [counted(1), counted(2)];
    await store.add(first);
    nowMs += 20 * HOUR_MS;
    await store.add(second);
    const later = openSentStore(name, () => nowMs);
    expect(await later.all()).toEqual([
      { ...first, sentAtMs: 1000 },
      { ...second, sentAtMs: nowMs },
    ]);
    nowMs += 5 * HOUR_MS;
    expect((await later.all()).map(({ command }) => command)).toEqual([second.command]);
  });

  it('is kept of lists alone: what has files is with the server', async () => {
    const store = openSentStore(uuidv7());
    await store.add(keptOf('catch.withdraw', { catchId: ID }));
    expect(await store.all()).toEqual([]);
  });
});
