import { z } from 'zod';
import { MEDIA_TYPES, commandSchema, problemSchema, type MediaType } from '@lauta/contract';
import { deviceDatabase } from '../device/database.ts';
import type { DeviceDatabase } from '../device/deviceStores.ts';
import type { CommandId, FileId } from '@lauta/core/ids';

/** A photograph or clip that goes before its command. */
export interface OutboxFile {
  fileId: FileId;
  blob: Blob;
  sha256: string;
  mediaType: MediaType;
}

const entrySchema = z.object({
  /** Whole, as it is sent: the same bytes from every tab and after every restart. */
  command: commandSchema,
  /** Who wrote it: nobody else sends it. */
  accountId: z.string(),
  /** Grows with time. */
  order: z.number(),
  files: z.array(
    z.object({
      fileId: z.string(),
      sha256: z.string(),
      mediaType: z.enum(MEDIA_TYPES),
      byteLength: z.number(),
    }),
  ),
  /** Why the server did not take it; null as long as it has not said so. */
  refused: problemSchema.nullable(),
});
export type OutboxEntry = z.infer<typeof entrySchema>;

/** What stands in the store and is no entry of any version: kept and shown, never dropped. */
export interface Unreadable {
  key: string;
  value: unknown;
}

declare module '../device/deviceStores.ts' {
  interface DeviceStores {
    /** By command. */
    entries: { key: string; value: unknown };
    files: { key: string; value: { fileId: FileId; blob: Blob } };
  }
}

/** What waits to be sent, on this device; a browser that refuses to store keeps it as long as the page is open. */
export interface OutboxStore {
  /**
   * Resolves when it is safe. `isStored` is false where the browser refused and only this page holds it.
   * @param ahead entries without files that are kept with it or not at all
   */
  put(
    entry: OutboxEntry,
    files: readonly OutboxFile[],
    ahead?: readonly OutboxEntry[],
  ): Promise<{ isStored: boolean }>;
  all(): Promise<{ entries: OutboxEntry[]; unreadable: Unreadable[] }>;
  file(fileId: FileId): Promise<Blob | null>;
  refuse(commandId: CommandId, refused: OutboxEntry['refused']): Promise<void>;
  /** Puts an entry in another's place; the files stay. */
  replace(commandId: CommandId, entry: OutboxEntry): Promise<void>;
  /** Takes an entry out, with its files: the server has them. */
  remove(commandId: CommandId): Promise<void>;
}

export function openOutboxStore(name?: string): OutboxStore {
  const held = new Map<string, { entry: OutboxEntry; files: readonly OutboxFile[] }>();
  const database = () => deviceDatabase(name);
  const stored = async (): Promise<Unreadable[]> => {
    const db = await database();
    const change = db.transaction('entries');
    const [keys, values] = await Promise.all([change.store.getAllKeys(), change.store.getAll()]);
    return keys.map((key, i) => ({ key, value: values[i] }));
  };
  return {
    async put(entry, files, ahead = []) {
      try {
        await putWhole(await database(), [...ahead, entry], files);
        return { isStored: true };
      } catch {
        for (const one of ahead) held.set(one.command.commandId, { entry: one, files: [] });
        held.set(entry.command.commandId, { entry, files });
        return { isStored: false };
      }
    },
    async all() {
      const entries = [...held.values()].map(({ entry }) => entry);
      const unreadable: Unreadable[] = [];
      for (const { key, value } of await stored().catch(() => [])) {
        const read = entrySchema.safeParse(value);
        if (read.success) entries.push(read.data);
        else unreadable.push({ key, value });
      }
      return { entries: entries.sort((a, b) => a.order - b.order), unreadable };
    },
    async file(fileId) {
      for (const { files } of held.values()) {
        const found = files.find((one) => one.fileId === fileId);
        if (found) return found.blob;
      }
      return (await (await database()).get('files', fileId))?.blob ?? null;
    },
    async refuse(commandId, refused) {
      const own = held.get(commandId);
      if (own) {
        held.set(commandId, { ...own, entry: { ...own.entry, refused } });
        return;
      }
      const db = await database();
      const change = db.transaction('entries', 'readwrite');
      const entry = entrySchema.safeParse(await change.store.get(commandId));
      if (entry.success) await change.store.put({ ...entry.data, refused }, commandId);
      await change.done;
    },
    async replace(commandId, entry) {
      const own = held.get(commandId);
      if (own) {
        held.delete(commandId);
        held.set(entry.command.commandId, { ...own, entry });
        return;
      }
      const db = await database();
      const change = db.transaction('entries', 'readwrite', { durability: 'strict' });
      await Promise.all([
        change.store.delete(commandId),
        change.store.put(entry, entry.command.commandId),
        change.done,
      ]);
    },
    async remove(commandId) {
      if (held.delete(commandId)) return;
      await removeWhole(await database(), commandId);
    },
  };
}

/** One transaction: a command without its photographs is nothing. */
async function putWhole(
  db: DeviceDatabase,
  entries: readonly OutboxEntry[],
  files: readonly OutboxFile[],
): Promise<void> {
  const change = db.transaction(['entries', 'files'], 'readwrite', { durability: 'strict' });
  await Promise.all([
    ...entries.map((one) => change.objectStore('entries').put(one, one.command.commandId)),
    ...files.map(({ fileId, blob }) => change.objectStore('files').put({ fileId, blob })),
    change.done,
  ]);
}

async function removeWhole(db: DeviceDatabase, commandId: CommandId): Promise<void> {
  const change = db.transaction(['entries', 'files'], 'readwrite');
  const entry = entrySchema.safeParse(await change.objectStore('entries').get(commandId));
  await change.objectStore('entries').delete(commandId);
  if (entry.success)
    for (const { fileId } of entry.data.files) await change.objectStore('files').delete(fileId);
  await change.done;
}
