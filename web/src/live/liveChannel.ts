import { streamEventSchema, type StreamEvent } from '@lauta/contract';

export type LiveState = 'live' | 'connecting' | 'lost';
export type LiveMessage =
  | { type: 'state'; state: LiveState }
  | { type: 'event'; event: StreamEvent }
  /** A tab that has just opened asks how the stream stands. */
  | { type: 'who-leads' };

interface Stream {
  close(): void;
}

/** What the browser gives; handed in so that the agreement between tabs can be tested without one. */
export interface LiveEnvironment {
  openStream(handlers: { onOpen: () => void; onLost: () => void; onMessage: (data: string) => void }): Stream;
  openChannel(onMessage: (message: LiveMessage) => void): { post(message: LiveMessage): void; close(): void };
  /** Calls `lead` when this tab is the one that holds the stream, until `signal` aborts. */
  lead(signal: AbortSignal, lead: (untilAborted: Promise<void>) => Promise<void>): void;
}

/**
 * One stream a browser: the tab that holds the lock has it and passes on what comes to the others
 * (HTTP/1.1 allows six connections to a server, whatever the number of tabs).
 * @returns a function that leaves
 */
export function joinLive(
  environment: LiveEnvironment,
  listener: { onEvent: (event: StreamEvent) => void; onState: (state: LiveState) => void },
): () => void {
  const leaving = new AbortController();
  let leading: { state: LiveState } | null = null;

  const hear = (message: LiveMessage): void => {
    if (message.type === 'event') listener.onEvent(message.event);
    else if (message.type === 'state') listener.onState(message.state);
    else if (leading) channel.post({ type: 'state', state: leading.state });
  };
  const channel = environment.openChannel(hear);
  const tell = (message: LiveMessage): void => {
    hear(message);
    channel.post(message);
  };

  environment.lead(leaving.signal, async (untilAborted) => {
    const own: { state: LiveState } = { state: 'connecting' };
    leading = own;
    const setState = (state: LiveState): void => {
      own.state = state;
      tell({ type: 'state', state });
    };
    const stream = environment.openStream({
      onOpen: () => setState('live'),
      onLost: () => setState('lost'),
      onMessage: (data) => {
        const event = streamEventSchema.safeParse(JSON.parse(data));
        if (event.success) tell({ type: 'event', event: event.data });
      },
    });
    await untilAborted;
    stream.close();
    leading = null;
  });
  channel.post({ type: 'who-leads' });

  return () => {
    leaving.abort();
    channel.close();
  };
}
