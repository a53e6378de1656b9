import { useCallback } from 'react';
import { readStored, useStored, writeStored } from '../../frame/stored.ts';
import { numberedCatchId } from './fishNumber.ts';
import type { MyPairing } from './queries.ts';

const MOST = 999;

interface Numbers {
  /** The fish that this phone is at. */
  number: number;
  /** The last one of which it has told: its id is taken. */
  told: number;
}

export function parseNumbers(text: string | null): Numbers {
  try {
    const { number, told } = JSON.parse(text ?? '{}') as Partial<Record<keyof Numbers, unknown>>;
    const whole = (value: unknown, least: number): number =>
      typeof value === 'number' && Number.isInteger(value) && value >= least && value <= MOST ? value : least;
    const last = whole(told, 0);
    return { number: Math.max(whole(number, 1), last + 1), told: last };
  } catch {
    return { number: 1, told: 0 };
  }
}

/** The number of the fish that both phones are at, and how to go on; no id where no phone is paired. */
export function useFishNumber(pairing: MyPairing | null) {
  const key = `lauta-fish-number-${pairing?.pairingId ?? ''}`;
  const { number, told } = useStored(key, parseNumbers);
  const set = useCallback(
    (next: number) => {
      const former = readStored(key, parseNumbers);
      if (next > former.told && next <= MOST) writeStored(key, { ...former, number: next });
    },
    [key],
  );
  /** This fish is told of; the next one follows. */
  const goOn = useCallback(() => {
    const former = readStored(key, parseNumbers);
    writeStored(key, { number: Math.min(MOST, former.number + 1), told: former.number });
  }, [key]);
  return {
    number,
    set,
    goOn,
    canGoBack: number - 1 > told,
    catchId: pairing ? numberedCatchId(pairing.pairingId, number) : null,
  };
}
