import { useCallback, useEffect, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { handlingSchema } from '@lauta/contract';
import { airLimitSeconds, sideOf, type Handling } from '@lauta/core/care';
import type { CareChoices } from '../care/choices.ts';

/** What is kept while a fish is on, and until it is claimed or put away: a closed page loses none of it. */
export interface RunningCatch extends Omit<Handling, 'airLimitSeconds' | 'waterCelsius' | 'airCelsius'> {
  /** Made before the first tap: photographs, clock and claim belong together by it. */
  catchId: string;
  /** It was claimed while it still waited in the net. */
  isClaimed: boolean;
}

/** A catch of which nothing is known yet. */
export function freshCatch(): RunningCatch {
  return {
    catchId: uuidv7(),
    isClaimed: false,
    events: [],
    guessedMassG: null,
    hookPlace: null,
    bleeds: false,
    signs: {},
  };
}

const storedSchema = handlingSchema
  .omit({ airLimitSeconds: true, waterCelsius: true, airCelsius: true })
  // Versions before the live camera stored neither.
  .extend({ catchId: z.uuid().default(() => uuidv7()), isClaimed: z.boolean().default(false) });
const KEY = 'lauta-fish-on-';
const keyOf = (eventId: string): string => `${KEY}${eventId}`;

/** Whether on this device, in any event, a fish is between hook-up and release. */
export function isFishOn(): boolean {
  return Object.keys(localStorage).some((key) => {
    const last = key.startsWith(KEY) ? parseRunningCatch(localStorage.getItem(key)).events.at(-1) : undefined;
    return last !== undefined && last.step !== 'released' && last.step !== 'lost';
  });
}

/** What cannot be read is no running catch: the clock begins anew. */
export function parseRunningCatch(text: string | null): RunningCatch {
  try {
    const found = storedSchema.safeParse(JSON.parse(text ?? 'null'));
    return found.success ? found.data : freshCatch();
  } catch {
    return freshCatch();
  }
}

/** What goes with the claim: nothing where nobody tapped. */
export function handlingOf(
  running: RunningCatch,
  choices: CareChoices,
  sheetAirSeconds: number | null,
): Handling | null {
  const { events, guessedMassG, hookPlace, bleeds, leftWith, signs } = running;
  if (events.length === 0) return null;
  const { waterCelsius, airCelsius, schools } = choices;
  return {
    events,
    guessedMassG,
    hookPlace,
    bleeds,
    ...(leftWith && leftWith.length > 0 ? { leftWith } : {}),
    signs,
    waterCelsius,
    airCelsius,
    airLimitSeconds: airLimitSeconds(sideOf('air-time', schools), choices, sheetAirSeconds),
  };
}

/** Other fish that wait in the net meanwhile; what cannot be read is left out. */
export function parseWaiting(text: string | null): RunningCatch[] {
  try {
    const stored: unknown = JSON.parse(text ?? '[]');
    if (!Array.isArray(stored)) return [];
    return stored.flatMap((one) => {
      const found = storedSchema.safeParse(one);
      return found.success ? [found.data] : [];
    });
  } catch {
    return [];
  }
}

const waitingKeyOf = (eventId: string): string => `lauta-fish-waiting-${eventId}`;

/** The fish that is on, in this event and on this device, and those that wait. */
export function useRunningCatch(eventId: string) {
  const [running, setRunning] = useState(() => parseRunningCatch(localStorage.getItem(keyOf(eventId))));
  const [waiting, setWaiting] = useState(() => parseWaiting(localStorage.getItem(waitingKeyOf(eventId))));
  // A catch of which nothing was tapped yet keeps its id too: photographs are filed by it.
  useEffect(() => {
    localStorage.setItem(keyOf(eventId), JSON.stringify(running));
  }, [eventId, running]);
  const put = useCallback(
    (next: RunningCatch) => {
      // Stored before the screen says so.
      localStorage.setItem(keyOf(eventId), JSON.stringify(next));
      setRunning(next);
    },
    [eventId],
  );
  const keep = (others: RunningCatch[]): void => {
    localStorage.setItem(waitingKeyOf(eventId), JSON.stringify(others));
    setWaiting(others);
  };
  /** Lets the fish in the net wait, and goes on with another: one of the waiting, or one that was just hooked. */
  const changeTo = (other: RunningCatch): void => {
    const others = waiting.filter(({ catchId }) => catchId !== other.catchId);
    keep(running.events.length > 0 ? [...others, running] : others);
    put(other);
  };
  return { running, put, waiting, changeTo };
}
