import { openDB, type IDBPDatabase, type StoreNames } from 'idb';
import type { DeviceDatabase, DeviceStores } from './deviceStores.ts';

type StoreName = StoreNames<DeviceStores>;

/** Where versions before the one database kept each store; files before what needs them. */
export const FORMER_STORES: readonly { database: string; stores: Readonly<Record<string, StoreName>> }[] = [
  { database: 'lauta-outbox', stores: { files: 'files', entries: 'entries' } },
  { database: 'lauta-custody', stores: { keys: 'keys', chains: 'chains', captures: 'captures' } },
  { database: 'lauta-fish', stores: { fish: 'fish' } },
  { database: 'lauta-water', stores: { photographs: 'draft-photographs', drafts: 'drafts' } },
  { database: 'lauta-frames', stores: { frames: 'frames' } },
  { database: 'lauta-sent', stores: { sent: 'sent' } },
  { database: 'lauta-known', stores: { known: 'known' } },
];

/**
 * Takes over what former versions left, store by store: first it is safe in `db`, then it leaves the former database.
 * Where both have a key the new one holds and the former stays where it is. A tab of a former version that is still
 * open may go on writing there: that is taken over at the next start. For its sake an emptied database is not deleted:
 * the deletion would wait for that tab to close, and take with it what was written last. What fails is tried again at
 * the next start.
 */
export async function takeOverFormer(db: DeviceDatabase): Promise<void> {
  const there = await namesThere().catch(() => null);
  for (const { database, stores } of FORMER_STORES) {
    if (there && !there.has(database)) continue;
    const former = await openExisting(database).catch(() => null);
    if (!former) continue;
    await moveStores(former, stores, db).catch(() => undefined);
    former.close();
  }
}

/** One store after the other: where one fails, what needs it stays as well. */
async function moveStores(
  former: IDBPDatabase,
  stores: Readonly<Record<string, StoreName>>,
  db: DeviceDatabase,
): Promise<void> {
  for (const [from, to] of Object.entries(stores))
    if (former.objectStoreNames.contains(from)) await moveStore(former, from, db, to);
}

/** Which databases there are; null where the browser does not tell. */
async function namesThere(): Promise<ReadonlySet<string | undefined> | null> {
  // Older browsers lack it, whatever the types say.
  const all = await (indexedDB.databases as typeof indexedDB.databases | undefined)?.call(indexedDB);
  return all ? new Set(all.map(({ name }) => name)) : null;
}

/** A database that is there, in whatever version; null where there is none, without making one. */
async function openExisting(name: string): Promise<IDBPDatabase | null> {
  let isNew = false;
  try {
    return await openDB(name, undefined, {
      upgrade(_db, oldVersion, _newVersion, change) {
        isNew = oldVersion === 0;
        if (isNew) change.abort();
      },
    });
  } catch (error) {
    if (isNew) return null;
    throw error;
  }
}

/** Moves the records of one store whose keys the new one does not have. */
async function moveStore(
  former: IDBPDatabase,
  from: string,
  db: DeviceDatabase,
  to: StoreName,
): Promise<void> {
  const reading = former.transaction(from);
  const [keys, values] = await Promise.all([reading.store.getAllKeys(), reading.store.getAll()]);
  if (keys.length === 0) return;
  const writing = db.transaction(to, 'readwrite', { durability: 'strict' });
  const known = new Set((await writing.store.getAllKeys()).map(String));
  const moved = keys.flatMap((key, i) => (known.has(String(key)) ? [] : [{ key, value: values[i] }]));
  // A store whose keys stand in its values takes none beside them.
  const isInline = writing.store.keyPath !== null;
  await Promise.all([
    ...moved.map(({ key, value }) => writing.store.put(value, isInline ? undefined : String(key))),
    writing.done,
  ]);
  const clearing = former.transaction(from, 'readwrite');
  await Promise.all([...moved.map(({ key }) => clearing.store.delete(key)), clearing.done]);
}
