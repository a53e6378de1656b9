import { EventEmitter } from 'node:events';
import type { StreamEvent } from '@lauta/contract';

/** Tells every open stream of this process that an event's ledger grew. */
export interface LiveHub {
  publish(event: StreamEvent): void;
  /** @returns a function that ends the subscription */
  subscribe(eventId: string, listener: (event: StreamEvent) => void): () => void;
}

export function openLiveHub(): LiveHub {
  const emitter = new EventEmitter();
  emitter.setMaxListeners(0);
  return {
    publish: (event) => void emitter.emit(event.eventId, event),
    subscribe: (eventId, listener) => {
      emitter.on(eventId, listener);
      return () => void emitter.off(eventId, listener);
    },
  };
}
