import { useEffect, useMemo, useRef, useState } from 'react';
import { outbox, useOutbox } from './outbox.ts';

const distinct = <E extends { entryId: string }>(entries: readonly E[]): E[] => [
  ...new Map(entries.map((entry) => [entry.entryId, entry])).values(),
];

/**
 * A list that people add to and nobody changes: what is known of it, and what this page put into the outbox. That stays
 * on the screen after it was sent, so that an answer of the server that was under way before it heard of it does not make
 * it vanish for a moment.
 * @param known from the server and the outbox; the same array as long as nothing came
 */
export function useEntryList<E extends { entryId: string }>(known: readonly E[]) {
  const { entries: waiting } = useOutbox();
  const [made, setMade] = useState<readonly { commandId: string; entries: readonly E[] }[]>([]);
  const [error, setError] = useState<unknown>(null);
  const entries = useMemo(() => {
    const isWaiting = new Set(waiting.map(({ command }) => command.commandId));
    // What was refused and thrown away is neither waiting nor sent.
    const own = made.filter(
      ({ commandId }) => isWaiting.has(commandId) || outbox.receiptOf(commandId) !== undefined,
    );
    return distinct([...known, ...own.flatMap((one) => one.entries)]);
  }, [known, made, waiting]);
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
  const keep = (own: readonly E[], write: () => Promise<string>): void => {
    latest.current = [...latest.current, ...own];
    for (const { entryId } of own) writing.current.add(entryId);
    keeping.current = keeping.current.then(async () => {
      try {
        const commandId = await write();
        setMade((former) => [...former, { commandId, entries: own }]);
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
