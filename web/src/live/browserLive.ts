import type { LiveEnvironment, LiveMessage } from './liveChannel.ts';
import type { EventId } from '@lauta/core/ids';

/** Reconnecting by hand, too: a browser gives an event stream up for good when the server answers with an error. */
const REOPEN_MS = 2000;

export function browserLive(eventId: EventId): LiveEnvironment {
  const name = `lauta-live-${eventId}`;
  return {
    openStream({ onOpen, onLost, onMessage }) {
      let source: EventSource;
      let timer: ReturnType<typeof setTimeout> | undefined;
      let lastSeq = '';
      const open = (): void => {
        source = new EventSource(`/api/events/${eventId}/stream${lastSeq ? `?after=${lastSeq}` : ''}`);
        source.onopen = onOpen;
        source.onmessage = (message: MessageEvent<string>) => {
          lastSeq = message.lastEventId;
          onMessage(message.data);
        };
        source.onerror = () => {
          onLost();
          if (source.readyState === EventSource.CLOSED) timer = setTimeout(open, REOPEN_MS);
        };
      };
      open();
      return {
        close: () => {
          clearTimeout(timer);
          source.close();
        },
      };
    },
    openChannel(onMessage) {
      const channel = new BroadcastChannel(name);
      channel.onmessage = (message: MessageEvent<LiveMessage>) => onMessage(message.data);
      return { post: (message) => channel.postMessage(message), close: () => channel.close() };
    },
    lead(signal, lead) {
      const untilAborted = new Promise<void>((resolve) => signal.addEventListener('abort', () => resolve()));
      // Without a secure context there are no locks: then each tab has a stream of its own.
      if (!('locks' in navigator)) {
        void lead(untilAborted);
        return;
      }
      navigator.locks
        .request(name, { signal }, () => lead(untilAborted))
        .catch((error: unknown) => {
          if (!(error instanceof DOMException && error.name === 'AbortError')) throw error;
        });
    },
  };
}
