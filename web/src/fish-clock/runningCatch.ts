import { v7 as uuidv7 } from 'uuid';
import { z } from 'zod';
import { handlingSchema } from '@lauta/contract';
import { airLimitSeconds, sideOf, type Handling } from '@lauta/core/care';
import type { CareChoices } from '../care/careChoices.ts';
import type { CatchId } from '@lauta/core/ids';

/** What is kept while a fish is on, and until it is claimed or put away: a closed page loses none of it. */
export interface RunningCatch extends Omit<Handling, 'airLimitSeconds' | 'waterCelsius' | 'airCelsius'> {
  /** Made before the first tap: photographs, clock and claim belong together by it. */
  catchId: CatchId;
  /** It was claimed while it still waited in the net. */
  isClaimed: boolean;
}

/**
 * A catch of which nothing is known yet.
 * @param catchId handed in where two phones must give it the same
 */
export function freshCatch(catchId: CatchId = uuidv7()): RunningCatch {
  return {
    catchId,
    isClaimed: false,
    events: [],
    guessedMassG: null,
    hookPlace: null,
    bleeds: false,
    signs: {},
  };
}

export const runningCatchSchema = handlingSchema
  .omit({ airLimitSeconds: true, waterCelsius: true, airCelsius: true })
  // Versions before the live camera stored neither.
  .extend({ catchId: z.uuid().default(() => uuidv7()), isClaimed: z.boolean().default(false) });

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

/** Changes the fish as it is now: a second tap may come before the first is on the disk, and must not undo it. */
export type ChangeCatch = (what: (now: RunningCatch) => RunningCatch) => void;

/**
 * Next fish a tap.
 * @param shown what the tap was made on: it changes nothing of a fish that took its place meanwhile
 */
export function changedBy(
  now: RunningCatch,
  shown: RunningCatch,
  what: (now: RunningCatch) => RunningCatch,
): RunningCatch {
  return now.catchId === shown.catchId ? what(now) : now;
}
