import { useEffect, useMemo, useRef, useState } from 'react';
import { outbox, useOutbox } from './outbox.ts';

const distinct = <E extends { entryId: string }>(entries: readonly E[]): E[] => [
  ...new Map(entries.map((entry) => [entry.entryId, entry])).values(),
];

interface Entered<E> {
  commandId: string;
  entries: readonly E[];
}

/**
 * A list that people add to and nobody changes: what the server has heard of it, what waits in the outbox, and what this
 * page put there. What waited stays on the screen after it was sent, so that an answer of the server that was under way
 * before it heard of it does not make it vanish for a moment: somebody may tap in that moment.
 * @param heard from the server; the same array as long as nothing came
 * @param here the outbox's commands with what they enter; the same array as long as nothing changed
 */
export function useEntryList<E extends { entryId: string }>(
  heard: readonly E[],
  here: readonly Entered<E>[],
) {
  const { entries: waiting } = useOutbox();
  const [made, setMade] = useState<readonly Entered<E>[]>([]);
  const [error, setError] = useState<unknown>(null);
  const seen = here.filter(
    (one) => one.entries.length > 0 && !made.some(({ commandId }) => commandId === one.commandId),
  );
  if (seen.length > 0) setMade([...made, ...seen]);
  const entries = useMemo(() => {
    const isWaiting = new Set(waiting.map(({ command }) => command.commandId));
    // What was refused and thrown away is neither waiting nor sent.
    const own = made.filter(
      ({ commandId }) => isWaiting.has(commandId) || outbox.receiptOf(commandId) !== undefined,
    );
    return distinct([...heard, ...own.flatMap((one) => one.entries)]);
  }, [heard, made, waiting]);
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
        setMade((former) =>
          former.some((one) => one.commandId === commandId)
            ? former
            : [...former, { commandId, entries: own }],
        );
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
