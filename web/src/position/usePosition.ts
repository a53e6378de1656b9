import { useEffect, useState } from 'react';
import type { Fix } from '@lauta/core/custody';
import { z } from 'zod';
import { jsonOf, useStored, writeStored, type Preference } from '../device/stored.ts';
import { deviceReceiver, type ReceiverState } from './receiver.ts';
import { simulatedReceiver } from './simulatedReceiver.ts';

export const RECEIVERS = ['device', 'simulated', 'none'] as const;
export type ReceiverChoice = (typeof RECEIVERS)[number];

const RECEIVER: Preference<ReceiverChoice | null> = {
  key: 'lauta-receiver',
  parse: (text) => z.enum(RECEIVERS).nullable().catch(null).parse(jsonOf(text)),
};

/** Which receiver is asked: what a person has chosen; in a demo the simulated one otherwise. */
export function useReceiverChoice(isDemo: boolean): ReceiverChoice {
  const chosen = useStored(RECEIVER);
  if (chosen === null || (chosen === 'simulated' && !isDemo)) return isDemo ? 'simulated' : 'device';
  return chosen;
}

export function chooseReceiver(choice: ReceiverChoice): void {
  writeStored(RECEIVER, choice);
}

/** A photograph is signed with the last fix that was this young, ms. */
const FRESH_MS = 120_000;
let last: { fix: Fix; heardMs: number } | null = null;

/** Where the device was just now; null where no receiver has told. */
export function lastFix(): Fix | null {
  return last && performance.now() - last.heardMs < FRESH_MS ? last.fix : null;
}

/** Follows the receiver as long as it is shown. */
export function usePosition(choice: ReceiverChoice): ReceiverState | null {
  const [heard, setHeard] = useState<{ from: ReceiverChoice; state: ReceiverState } | null>(null);
  useEffect(() => {
    last = null;
    if (choice === 'none') return;
    const receiver = choice === 'simulated' ? simulatedReceiver : deviceReceiver;
    return receiver.watch((state) => {
      if (state.kind === 'fix') last = { fix: state.fix, heardMs: performance.now() };
      setHeard({ from: choice, state });
    });
  }, [choice]);
  return heard?.from === choice ? heard.state : null;
}
