import { useCallback, useMemo } from 'react';
import { z } from 'zod';
import { jsonOf, useStored, writeStored, type Preference } from '../../device/stored.ts';
import { numberedCatchId } from './numberedCatchId.ts';
import type { MyPairing } from '../../queries/pairing.ts';
import type { CatchId, PairingId } from '@lauta/core/ids';

const MOST = 999;

interface Numbers {
  /** The fish that this phone is at. */
  number: number;
  /** The last one of which it has told: its id is taken. */
  told: number;
}

export function parseNumbers(text: string | null): Numbers {
  const whole = (least: number) => z.int().min(least).max(MOST).catch(least);
  const { number, told } = z
    .object({ number: whole(1), told: whole(0) })
    .catch({ number: 1, told: 0 })
    .parse(jsonOf(text));
  return { number: Math.max(number, told + 1), told };
}

/** The last number whose fish is among the catches that are known; 0 for none. */
export function lastKnown(pairingId: PairingId, catchIds: readonly CatchId[]): number {
  const known = new Set(catchIds);
  for (let number = MOST; number >= 1; number--)
    if (known.has(numberedCatchId(pairingId, number))) return number;
  return 0;
}

/**
 * The number of the fish that both phones are at, and how to go on; no id where no phone is paired.
 * @param known own catches, of which the phone that claims never takes a number again, also after its store was cleared
 */
export function useFishNumber(pairing: MyPairing | null, known: readonly string[]) {
  const numbers = useMemo(
    (): Preference<Numbers> => ({
      key: `lauta-fish-number-${pairing?.pairingId ?? ''}`,
      parse: parseNumbers,
    }),
    [pairing?.pairingId],
  );
  const stored = useStored(numbers);
  const pairingId = pairing?.job === 'camera' ? pairing.pairingId : null;
  const claimed = useMemo(
    () => (pairingId !== null && known.length > 0 ? lastKnown(pairingId, known) : 0),
    [pairingId, known],
  );
  const told = Math.max(stored.told, claimed);
  const number = Math.max(stored.number, told + 1);
  const set = useCallback(
    (next: number) => {
      if (next > told && next <= MOST) writeStored(numbers, { number: next, told });
    },
    [numbers, told],
  );
  /** This fish is told of; the next one follows. */
  const goOn = useCallback(
    () => writeStored(numbers, { number: Math.min(MOST, number + 1), told: number }),
    [numbers, number],
  );
  return {
    number,
    set,
    goOn,
    canGoBack: number - 1 > told,
    catchId: pairing ? numberedCatchId(pairing.pairingId, number) : null,
  };
}
