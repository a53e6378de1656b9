import type { EntryId } from '../ids.ts';

/** Lists of acts that are added to and never changed: the well's and the weigh-in's. */
export interface Acted {
  entryId: EntryId;
  /** ms since 1970, the device's clock. */
  atMs: number;
  act: { kind: string; entryId?: EntryId };
}

/** Entries of several devices in one order, each once: by their instants, then by their ids, which are made in order too. */
export function inOrder<E extends Acted>(entries: readonly E[]): E[] {
  const distinct = new Map(entries.map((entry) => [entry.entryId, entry]));
  return [...distinct.values()].sort((a, b) => a.atMs - b.atMs || (a.entryId < b.entryId ? -1 : 1));
}

/**
 * Instants for acts that are done now, ms since 1970: after everything that is known here, and one after the other. A
 * device's clock steps back when it is set right, and devices differ; what is done to a thing must not come before it.
 */
export function instantsAfter(known: readonly Pick<Acted, 'atMs'>[], nowMs: number, count: number): number[] {
  const from = known.reduce((latest, { atMs }) => Math.max(latest, atMs + 1), nowMs);
  return Array.from({ length: count }, (_, i) => from + i);
}

/** Which entries are taken back: the last word on an entry holds, so undos are read from the last to the first. */
export function undoneOf(ordered: readonly Acted[]): Set<string> {
  const undone = new Set<string>();
  for (const { entryId, act } of ordered.toReversed()) {
    if (act.kind === 'undone' && act.entryId !== undefined && !undone.has(entryId)) undone.add(act.entryId);
  }
  return undone;
}
