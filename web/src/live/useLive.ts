import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { browserLive } from './browserLive.ts';
import { rememberHead } from './toldHeads.ts';
import { joinLive, type LiveState } from './liveChannel.ts';
import type { EventId } from '@lauta/core/ids';

/** Asks everything of an event again whenever its ledger has grown. */
export function useLive(eventId: EventId): LiveState {
  const client = useQueryClient();
  const [state, setState] = useState<LiveState>('connecting');
  useEffect(
    () =>
      joinLive(browserLive(eventId), {
        onEvent: (event) => {
          rememberHead(event.eventId, event);
          void client.invalidateQueries({ queryKey: ['event', eventId] });
        },
        onState: setState,
      }),
    [client, eventId],
  );
  return state;
}
