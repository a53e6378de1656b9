import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { readFish, writeFish } from './fishStore.ts';
import { changedBy, freshCatch, type RunningCatch } from './runningCatch.ts';

const kept = new Map<string, string>();
beforeEach(() => {
  kept.clear();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    removeItem: (key: string) => kept.delete(key),
  });
});
const netted = (change: Partial<RunningCatch> = {}): RunningCatch => ({
  ...freshCatch(),
  events: [{ step: 'netted', atMs: 5 }],
  ...change,
});

describe('the fish that is on', () => {
  it('comes back as it was stored, with those that wait', async () => {
    const eventId = uuidv7();
    const fish = { running: netted({ hookPlace: 'tongue', bleeds: true }), waiting: [netted()] };
    await writeFish(eventId, fish);
    expect(await readFish(eventId)).toEqual(fish);
  });

  it('of a version that kept it elsewhere is taken over, its taps kept, an id given where it had none', async () => {
    const eventId = uuidv7();
    const former = { ...netted(), catchId: undefined, isClaimed: undefined };
    kept.set(`lauta-fish-on-${eventId}`, JSON.stringify(former));
    kept.set(`lauta-fish-waiting-${eventId}`, JSON.stringify([netted(), { mood: 'bad' }, 7]));
    const found = await readFish(eventId);
    expect(found.running).toMatchObject({ events: [{ step: 'netted', atMs: 5 }], isClaimed: false });
    expect(found.running.catchId).toMatch(/^[0-9a-f-]{36}$/);
    expect(found.waiting).toHaveLength(1);
    await writeFish(eventId, found);
    expect([...kept]).toEqual([]);
    expect(await readFish(eventId)).toEqual(found);
  });

  it('is none where the store holds nothing, or what no version wrote', async () => {
    for (const text of [null, '{', '{"events":[{"step":"danced","atMs":1}]}', '12']) {
      const eventId = uuidv7();
      if (text !== null) kept.set(`lauta-fish-on-${eventId}`, text);
      expect(await readFish(eventId)).toMatchObject({ running: { events: [], bleeds: false }, waiting: [] });
    }
  });

  it('is on from hook-up to release, in whatever event', async () => {
    // Nothing of the tests above is left.
    vi.stubGlobal('indexedDB', new IDBFactory());
    vi.resetModules();
    const store = await import('./fishStore.ts');
    expect(await store.isFishOn()).toBe(false);
    const [one, other] = [uuidv7(), uuidv7()];
    const gone = netted({ events: [{ step: 'netted', atMs: 5 }, { step: 'released', atMs: 9 }] }); // prettier-ignore
    await store.writeFish(one, { running: gone, waiting: [] });
    await store.writeFish(other, { running: freshCatch(), waiting: [] });
    expect(await store.isFishOn()).toBe(false);
    await store.writeFish(other, { running: freshCatch(), waiting: [netted()] });
    expect(await store.isFishOn()).toBe(true);
  });

  it('keeps two taps of which the second came before the first was on the disk', () => {
    const shown = netted();
    const now = { ...shown, signs: { upright: 'yes' as const } };
    const seen = (fish: RunningCatch): RunningCatch => ({ ...fish, signs: { ...fish.signs, gills: 'yes' } });
    expect(changedBy(now, shown, seen)).toEqual({ ...now, signs: { upright: 'yes', gills: 'yes' } });
    // A fish that came meanwhile takes nothing over.
    const other = freshCatch();
    expect(changedBy(other, shown, seen)).toBe(other);
  });

  it('has an id of its own each time', () => {
    expect(freshCatch().catchId).not.toBe(freshCatch().catchId);
  });
});
