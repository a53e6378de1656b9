import { openDB } from 'idb';
import { takeOverFormer } from './takeOverFormer.ts';
import type { DeviceDatabase, DeviceStores } from './deviceStores.ts';

/** The one database of this browser, by the name under which a test opens another. */
export const DEVICE_DATABASE = 'lauta';
const VERSION = 1;

const opened = new Map<string, Promise<DeviceDatabase>>();

/**
 * The database, opened once for each name; what versions before it kept in databases of their own is in it.
 * Rejects where the browser refuses to store; the next call tries again.
 */
export function deviceDatabase(name = DEVICE_DATABASE): Promise<DeviceDatabase> {
  const known = opened.get(name);
  if (known) return known;
  const opening = openDatabase(name);
  opened.set(name, opening);
  opening.catch(() => opened.delete(name));
  return opening;
}

async function openDatabase(name: string): Promise<DeviceDatabase> {
  const db = await openDB<DeviceStores>(name, VERSION, {
    upgrade(made) {
      // Version 1. A later version goes on from here and leaves these lines as they are.
      for (const store of [
        'entries',
        'sent',
        'fish',
        'drafts',
        'draft-photographs',
        'keys',
        'chains',
        'known',
      ] as const)
        // prettier-ignore
        made.createObjectStore(store);
      made.createObjectStore('files', { keyPath: 'fileId' });
      made.createObjectStore('frames', { keyPath: 'frameId' }).createIndex('catchId', 'catchId');
      made.createObjectStore('captures', { keyPath: 'captureId' }).createIndex('isTold', 'isTold');
    },
    // A tab with a newer version wants to open: it waits for no tab of this one.
    blocking: () => {
      opened.delete(name);
      db.close();
    },
    terminated: () => opened.delete(name),
  });
  if (name === DEVICE_DATABASE) await takeOverFormer(db);
  return db;
}
