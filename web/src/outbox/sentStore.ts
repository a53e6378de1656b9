import { z } from 'zod';
import { commandSchema, type Command, type CommandKind } from '@lauta/contract';
import { deviceDatabase } from '../device/database.ts';
import type { AccountId } from '@lauta/core/ids';

/** A command of this device, waiting or sent. */
export interface KeptCommand {
  command: Command;
  accountId: AccountId;
  /** Of what was sent before this page was opened: when, ms since 1970. */
  sentAtMs?: number;
}

const DAY_MS = 24 * 60 * 60 * 1000;

/** Lists that people go on adding to are made of these: one that was forgotten for a moment would be tapped on wrongly. */
const OF_LISTS: readonly CommandKind[] = ['well.enter', 'weigh-in.enter'];

declare module '../device/deviceStores.ts' {
  interface DeviceStores {
    /** By command. */
    sent: { key: string; value: unknown };
  }
}

const sentSchema = z.object({ command: commandSchema, accountId: z.string(), sentAtMs: z.number() });

/**
 * What the server took of what lists are made of, for a day: a page that opens before it can ask knows it. What was
 * fetched is kept too, but a moment later. A browser that refuses to store forgets it with the page.
 * @param now ms since 1970
 */
export function openSentStore(name?: string, now: () => number = Date.now) {
  const database = () => deviceDatabase(name);
  return {
    async add({ command, accountId }: KeptCommand): Promise<void> {
      if (!OF_LISTS.includes(command.kind)) return;
      await database()
        .then((db) => db.put('sent', { command, accountId, sentAtMs: now() }, command.commandId))
        .catch(() => undefined);
    },
    /** In the order in which they were sent; what is older, or of another version, is let go of. */
    async all(): Promise<KeptCommand[]> {
      try {
        const change = (await database()).transaction('sent', 'readwrite');
        const kept: z.infer<typeof sentSchema>[] = [];
        for await (const cursor of change.store) {
          const read = sentSchema.safeParse(cursor.value);
          if (read.success && now() - read.data.sentAtMs < DAY_MS) kept.push(read.data);
          else void cursor.delete();
        }
        await change.done;
        return kept.sort((a, b) => a.sentAtMs - b.sentAtMs);
      } catch {
        return [];
      }
    },
  };
}
