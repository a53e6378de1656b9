import { useEffect, useMemo } from 'react';
import { freshCatch } from '../../fish-clock/runningCatch.ts';
import type { useRunningCatch } from '../../fish-clock/useRunningCatch.ts';
import { useOwnCatches } from '../../queries/catches.ts';
import { useMyPairing } from '../../queries/pairing.ts';
import { useLatest } from '../../ui/useLatest.ts';
import { useFishNumber } from './useFishNumber.ts';
import type { EntrantId, EventId } from '@lauta/core/ids';

const NO_IDS: readonly string[] = [];

/**
 * Paired phones give a fish its id by its number.
 * @param isBlank nothing is known of the fish: it may still take another id
 */
export function usePairedFish(
  { eventId, entrantId }: { eventId: EventId; entrantId: EntrantId },
  { isKnown, running, begin }: Pick<ReturnType<typeof useRunningCatch>, 'isKnown' | 'running' | 'begin'>,
  isBlank: boolean,
) {
  const pairing = useMyPairing(eventId, entrantId);
  const ownCatches = useOwnCatches(eventId, 1);
  const ownIds = useMemo(
    () => ownCatches.data?.items.map(({ catchId }) => catchId) ?? NO_IDS,
    [ownCatches.data],
  );
  const fishNumber = useFishNumber(pairing, ownIds);
  const numberedId = fishNumber.catchId;
  const latestBegin = useLatest(begin);
  useEffect(() => {
    if (numberedId && isKnown && isBlank && running.catchId !== numberedId)
      latestBegin.current(freshCatch(numberedId));
  }, [numberedId, isKnown, isBlank, running.catchId, latestBegin]);
  return {
    pairing,
    fishNumber,
    isTimer: pairing?.job === 'timer',
    startNext: (): void => {
      if (pairing) fishNumber.goOn();
      begin(freshCatch());
    },
  };
}
