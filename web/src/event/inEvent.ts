import { createContext, useContext } from 'react';
import type { EventView } from '@lauta/contract';
import type { LiveState } from '../live/liveChannel.ts';
import type { PlaceInEvent } from '../session/who.ts';
import type { EventId } from '@lauta/core/ids';

export interface InEvent {
  event: EventView;
  place: PlaceInEvent;
  live: LiveState;
}

export const InEventContext = createContext<InEvent | null>(null);

/** What every page of an event knows. */
export function useInEvent(): InEvent {
  const value = useContext(InEventContext);
  if (!value) throw new Error('useInEvent: expected a page of an event');
  return value;
}

/** Where a page of an event lies. */
export function eventPath(eventId: EventId, ...parts: string[]): string {
  return ['/events', eventId, ...parts].join('/');
}
