import { useEffect, useMemo, useRef, useState } from 'react';
import type { EntryId } from '@lauta/core/ids';

const distinct = <E extends { entryId: EntryId }>(entries: readonly E[]): E[] => [
  ...new Map(entries.map((entry) => [entry.entryId, entry])).values(),
];

/**
 * A list that people add to and nobody changes: what the server has heard of it, and what this device put there. What was
 * sent stays on the screen, so that an answer of the server that was under way before it heard of it does not make it
 * vanish for a moment, on this page or on the next: somebody may tap in that moment.
 * @param heard from the server; the same array as long as nothing came
 * @param here entered by the outbox's commands, waiting and sent; the same array as long as nothing changed
 */
export function useEntryList<E extends { entryId: EntryId }>(heard: readonly E[], here: readonly E[]) {
  const [error, setError] = useState<unknown>(null);
  const entries = useMemo(() => distinct([...heard, ...here]), [heard, here]);
  // A second tap may come before the first one's entries are on the disk and drawn: it acts on these.
  const latest = useRef<readonly E[]>(entries);
  const writing = useRef(new Set<string>());
  const keeping = useRef(Promise.resolve());
  useEffect(() => {
    latest.current = distinct([
      ...entries,
      ...latest.current.filter(({ entryId }) => writing.current.has(entryId)),
    ]);
  }, [entries]);

  /** One after the other: no tap is lost because the one before is still being written. */
  const keep = (own: readonly E[], write: () => Promise<void>): void => {
    latest.current = [...latest.current, ...own];
    for (const { entryId } of own) writing.current.add(entryId);
    keeping.current = keeping.current.then(async () => {
      try {
        await write();
      } catch (problem) {
        setError(problem);
        latest.current = latest.current.filter((one) => !own.includes(one));
      } finally {
        for (const { entryId } of own) writing.current.delete(entryId);
      }
    });
  };
  return { entries, latest: (): readonly E[] => latest.current, keep, error };
}
