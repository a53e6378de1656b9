import {
  dehydrate,
  hydrate,
  type DehydratedState,
  type Query,
  type QueryClient,
} from '@tanstack/react-query';
import { deviceDatabase } from '../device/database.ts';

const DAY_MS = 24 * 60 * 60 * 1000;
/** Longer than an event lasts. */
export const KEPT_MS = 14 * DAY_MS;

const OF_AN_EVENT = new Set<unknown>([
  'rules',
  'boards',
  'identifiers',
  'own-catches',
  'own-specimens',
  'waters',
  'well',
  'weigh-in',
  'own-pairings',
]);

/** What a page needs where there is no network: who is signed in, the event, its rules, boards and waters, the own codes, catches, specimens and well, the weigh-in. */
export function isKept({ queryKey, state }: Pick<Query, 'queryKey' | 'state'>): boolean {
  // What failed to be fetched again is still what was known.
  if (state.data === undefined) return false;
  const [head, , part] = queryKey;
  return (
    head === 'who' || head === 'events' || (head === 'event' && (part === undefined || OF_AN_EVENT.has(part)))
  );
}

/** What is kept must not be forgotten in memory either. */
export function keepLong(client: QueryClient): void {
  for (const key of [['who'], ['events'], ['event']]) client.setQueryDefaults(key, { gcTime: KEPT_MS });
}

/** Changes when pages could no longer read what a former version fetched. */
const FORMAT = 1;
/** Written so long after a change, with what changed since, ms: lists are fetched in bursts, and a busy event is never still. */
const SETTLED_MS = 500;

interface Known {
  format: number;
  atMs: number;
  state: DehydratedState;
}

declare module '../device/deviceStores.ts' {
  interface DeviceStores {
    known: { key: string; value: Known };
  }
}

/**
 * What was fetched, in IndexedDB; a browser that refuses to store starts empty.
 * @param now ms since 1970
 */
export function keptQueries(client: QueryClient, now: () => number = Date.now, name?: string) {
  const write = async (): Promise<void> => {
    const state = dehydrate(client, { shouldDehydrateQuery: isKept });
    await deviceDatabase(name)
      .then((db) => db.put('known', { format: FORMAT, atMs: now(), state }, 'client'))
      .catch(() => undefined);
  };
  return {
    write,
    /** Puts back what was known; what is too old or of another format is left. */
    restore: async (): Promise<void> => {
      const known = await deviceDatabase(name)
        .then((db) => db.get('known', 'client'))
        .catch(() => undefined);
      if (known?.format !== FORMAT || now() - known.atMs >= KEPT_MS) return;
      hydrate(client, known.state);
      // However young it is, somebody may have signed in or out since: each page asks again.
      await client.invalidateQueries({ refetchType: 'none' });
    },
    /** Writes what changes from now on, the last of it as the page is left; gives back how to stop it. */
    follow: (page: EventTarget): (() => void) => {
      let timer: ReturnType<typeof setTimeout> | undefined;
      const writeNow = (): void => {
        clearTimeout(timer);
        timer = undefined;
        void write();
      };
      const leave = client.getQueryCache().subscribe(({ query }) => {
        if (!isKept(query)) return;
        // Who is signed in is written at once.
        if (query.queryKey[0] === 'who') writeNow();
        else timer ??= setTimeout(writeNow, SETTLED_MS);
      });
      // What was tapped just before would be gone from a page that opens without a network.
      const onLeave = (): void => {
        if (timer !== undefined) writeNow();
      };
      page.addEventListener('pagehide', onLeave);
      return () => {
        clearTimeout(timer);
        leave();
        page.removeEventListener('pagehide', onLeave);
      };
    },
  };
}
