import { useCallback, useEffect, useRef, useState } from 'react';
import { readFish, writeFish, type Fish } from './fishStore.ts';
import { changedBy, freshCatch, type ChangeCatch, type RunningCatch } from './runningCatch.ts';
import type { EventId } from '@lauta/core/ids';

/**
 * The fish that is on, in this event and on this device, and those that wait. A tap is on the disk before the screen
 * shows it, and other tabs show it too.
 */
export function useRunningCatch(eventId: EventId) {
  const [blank] = useState(() => freshCatch());
  const [fish, setFish] = useState<{ of: string; fish: Fish } | null>(null);
  const latest = useRef<Fish | null>(null);
  const writing = useRef<Promise<unknown>>(Promise.resolve());
  const channel = useRef<BroadcastChannel | null>(null);
  const write = useCallback(
    (next: Fish) => {
      latest.current = next;
      writing.current = writing.current
        .then(() => writeFish(eventId, next))
        // A browser that refuses to store loses the taps with the page, not before.
        .catch(() => undefined)
        .then(() => {
          setFish({ of: eventId, fish: latest.current ?? next });
          channel.current?.postMessage(eventId);
        });
    },
    [eventId],
  );
  useEffect(() => {
    let isHere = true;
    const load = async (): Promise<void> => {
      const found = await readFish(eventId);
      if (!isHere) return;
      latest.current = found;
      setFish({ of: eventId, fish: found });
    };
    const others = new BroadcastChannel('lauta-fish');
    others.onmessage = ({ data }) => {
      if (data === eventId) void load();
    };
    channel.current = others;
    // A catch of which nothing was tapped yet keeps its id too: photographs are filed by it.
    void load().then(async () => {
      if (isHere && latest.current) await writeFish(eventId, latest.current).catch(() => undefined);
    });
    return () => {
      isHere = false;
      channel.current = null;
      others.close();
    };
  }, [eventId]);
  const here = fish?.of === eventId ? fish.fish : null;
  const shown = here?.running ?? blank;
  const waitingNow = (): readonly RunningCatch[] => latest.current?.waiting ?? [];
  const change: ChangeCatch = (what) => {
    const now = latest.current?.running ?? shown;
    write({ running: changedBy(now, shown, what), waiting: waitingNow() });
  };
  const begin = (next: RunningCatch): void => write({ running: next, waiting: waitingNow() });
  /** Lets the fish in the net wait, and goes on with another: one of the waiting, or one that was just hooked. */
  const changeTo = useCallback(
    (other: RunningCatch) => {
      const now = latest.current;
      const others = (now?.waiting ?? []).filter(({ catchId }) => catchId !== other.catchId);
      const waiting = now && now.running.events.length > 0 ? [...others, now.running] : others;
      write({ running: other, waiting });
    },
    [write],
  );
  return {
    isKnown: here !== null,
    running: shown,
    waiting: here?.waiting ?? [],
    change,
    begin,
    changeTo,
  };
}
