import { useCallback } from 'react';
import { lastClockOffset } from '../device/preparedness.ts';
import { lastFix } from '../position/usePosition.ts';
import { custody } from './custody.ts';
import type { Capture } from './signer.ts';
import type { CatchId, EntrantId, EventId } from '@lauta/core/ids';

type At = Pick<Capture, 'photo' | 'kind' | 'atMs' | 'monotonicMs' | 'frameId'>;

/** Signs photographs of a catch with what the device knows at that moment. */
export function useSigning(of: {
  eventId: EventId;
  entrantId: EntrantId | null;
  catchId: CatchId;
  identifierCode: string | null;
}) {
  const { eventId, entrantId, catchId, identifierCode } = of;
  return useCallback(
    async (at: At): Promise<void> => {
      if (!entrantId) return;
      await custody.sign({
        ...at,
        eventId,
        entrantId,
        catchId,
        identifierCode,
        clockOffsetMs: lastClockOffset(),
        position: lastFix(),
      });
    },
    [eventId, entrantId, catchId, identifierCode],
  );
}
