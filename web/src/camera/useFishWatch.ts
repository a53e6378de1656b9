import { useEffect, useRef } from 'react';
import type { ClockPhase } from '@lauta/core/care';
import type { LiveView } from './useLiveView.ts';

/** A hand over the board is no fish: it must be so long, mm, and be there in two frames. */
const LEAST_FISH_MM = 150;

/**
 * Tells when a fish lies on the board in the live view, and since when.
 * @returns to be called with each view
 */
export function useFishWatch(phase: ClockPhase, onFishSeen: (atMs: number) => void) {
  const isInAir = phase === 'air';
  const fishSince = useRef<number | null>(null);
  /** After a lift the board must have been seen without a fish before the next one starts by itself. */
  const freeSince = useRef<number | null>(0);
  useEffect(() => {
    if (isInAir) return () => void (freeSince.current = null);
    return undefined;
  }, [isInAir]);
  return ({ sight, takenAtMs }: LiveView): void => {
    const isFish = (sight?.fishMm ?? 0) > LEAST_FISH_MM;
    if (!isFish) {
      fishSince.current = null;
      if (phase === 'net') freeSince.current ??= takenAtMs;
    } else if (fishSince.current === null) fishSince.current = takenAtMs;
    else if (phase === 'net' && freeSince.current !== null) onFishSeen(fishSince.current);
  };
}
