import { EventEmitter } from 'node:events';
import type { StreamEvent } from '@lauta/contract';
import type { AccountId, EventId } from '@lauta/core/ids';

/** Tells every open stream of this process that an event's ledger grew. */
export interface LiveHub {
  publish(event: StreamEvent): void;
  /** Ends the open streams of an account: what it may see has changed. */
  dropAccount(accountId: AccountId): void;
  onDrop(accountId: AccountId, end: () => void): () => void;
  /** @returns a function that ends the subscription */
  subscribe(eventId: EventId, listener: (event: StreamEvent) => void): () => void;
}

export function openLiveHub(): LiveHub {
  const emitter = new EventEmitter();
  emitter.setMaxListeners(0);
  return {
    publish: (event) => void emitter.emit(event.eventId, event),
    dropAccount: (accountId) => void emitter.emit(`drop ${accountId}`),
    onDrop: (accountId, end) => {
      emitter.on(`drop ${accountId}`, end);
      return () => void emitter.off(`drop ${accountId}`, end);
    },
    subscribe: (eventId, listener) => {
      emitter.on(eventId, listener);
      return () => void emitter.off(eventId, listener);
    },
  };
}
