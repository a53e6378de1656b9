import { useCallback, useState } from 'react';
import { handlingSchema } from '@lauta/contract';
import { airLimitSeconds, sideOf, type Handling } from '@lauta/core/care';
import type { CareChoices } from '../care/choices.ts';

/** What is kept while a fish is on, and until it is claimed or put away: a closed page loses none of it. */
export type RunningCatch = Omit<Handling, 'airLimitSeconds' | 'waterCelsius' | 'airCelsius'>;

export const NO_FISH: RunningCatch = {
  events: [],
  guessedMassG: null,
  hookPlace: null,
  bleeds: false,
  signs: {},
};

const storedSchema = handlingSchema.omit({ airLimitSeconds: true, waterCelsius: true, airCelsius: true });
const keyOf = (eventId: string): string => `lauta-fish-on-${eventId}`;

/** What cannot be read is no running catch: the clock begins anew. */
export function parseRunningCatch(text: string | null): RunningCatch {
  try {
    const found = storedSchema.safeParse(JSON.parse(text ?? 'null'));
    return found.success ? found.data : NO_FISH;
  } catch {
    return NO_FISH;
  }
}

/** What goes with the claim: nothing where nobody tapped. */
export function handlingOf(running: RunningCatch, choices: CareChoices): Handling | null {
  if (running.events.length === 0) return null;
  const { waterCelsius, airCelsius, schools } = choices;
  return {
    ...running,
    waterCelsius,
    airCelsius,
    airLimitSeconds: airLimitSeconds(sideOf('air-time', schools), choices),
  };
}

/** The fish that is on, in this event and on this device. */
export function useRunningCatch(eventId: string) {
  const [running, setRunning] = useState(() => parseRunningCatch(localStorage.getItem(keyOf(eventId))));
  const put = useCallback(
    (next: RunningCatch) => {
      // Stored before the screen says so.
      if (next.events.length === 0) localStorage.removeItem(keyOf(eventId));
      else localStorage.setItem(keyOf(eventId), JSON.stringify(next));
      setRunning(next);
    },
    [eventId],
  );
  return { running, put };
}
