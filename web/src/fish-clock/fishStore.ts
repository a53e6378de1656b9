import { deviceDatabase } from '../device/database.ts';
import { forgetStored, jsonOf, readStored, type Preference } from '../device/stored.ts';
import { freshCatch, runningCatchSchema, type RunningCatch } from './runningCatch.ts';
import type { EventId } from '@lauta/core/ids';

/** The fish that is on, and those that wait in the net meanwhile. */
export interface Fish {
  running: RunningCatch;
  waiting: readonly RunningCatch[];
}

declare module '../device/deviceStores.ts' {
  interface DeviceStores {
    /** By event. */
    fish: { key: string; value: { running: unknown; waiting: unknown[] } };
  }
}

function parsed(value: unknown): RunningCatch[] {
  const found = runningCatchSchema.safeParse(value);
  return found.success ? [found.data] : [];
}

/** Where versions before this store kept the fish: what they left is taken over once. */
const formerRunning = (eventId: EventId): Preference<unknown> => ({
  key: `lauta-fish-on-${eventId}`,
  parse: jsonOf,
});
const formerWaiting = (eventId: EventId): Preference<unknown> => ({
  key: `lauta-fish-waiting-${eventId}`,
  parse: jsonOf,
});

/** What is kept for an event on this device. What cannot be read is no fish: the clock begins anew. */
export async function readFish(eventId: EventId): Promise<Fish> {
  const kept = await deviceDatabase()
    .then((db) => db.get('fish', eventId))
    .catch(() => undefined);
  const running = kept ? kept.running : readStored(formerRunning(eventId));
  const waiting = kept ? kept.waiting : readStored(formerWaiting(eventId));
  return {
    running: parsed(running)[0] ?? freshCatch(),
    waiting: Array.isArray(waiting) ? waiting.flatMap(parsed) : [],
  };
}

/** Resolves when it is on the disk: a browser that is killed then has lost nothing. */
export async function writeFish(eventId: EventId, { running, waiting }: Fish): Promise<void> {
  const db = await deviceDatabase();
  const change = db.transaction('fish', 'readwrite', { durability: 'strict' });
  await change.store.put({ running, waiting: [...waiting] }, eventId);
  await change.done;
  forgetStored(formerRunning(eventId));
  forgetStored(formerWaiting(eventId));
}

/** Whether on this device, in any event, a fish is between hook-up and release. */
export async function isFishOn(): Promise<boolean> {
  const all = await deviceDatabase()
    .then((db) => db.getAll('fish'))
    .catch(() => []);
  return all.some(({ running, waiting }) =>
    [running, ...waiting].flatMap(parsed).some(({ events }) => {
      const last = events.at(-1)?.step;
      return last !== undefined && last !== 'released' && last !== 'lost';
    }),
  );
}
