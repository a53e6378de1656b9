import { describe, expect, it } from 'vitest';
import { joinLive, type LiveEnvironment, type LiveMessage } from './liveChannel.ts';

/** A browser with several tabs: one lock, one channel, and a count of the streams that are open. */
function browser() {
  const channels = new Set<(message: LiveMessage) => void>();
  const queue: (() => void)[] = [];
  let isHeld = false;
  const streams = new Set<Parameters<LiveEnvironment['openStream']>[0]>();
  const grant = (): void => {
    if (isHeld) return;
    const next = queue.shift();
    if (next) {
      isHeld = true;
      next();
    }
  };
  const environment = (): LiveEnvironment => ({
    openStream: (handlers) => {
      streams.add(handlers);
      return { close: () => void streams.delete(handlers) };
    },
    openChannel: (onMessage) => {
      channels.add(onMessage);
      return {
        post: (message) => channels.forEach((other) => other !== onMessage && other(message)),
        close: () => void channels.delete(onMessage),
      };
    },
    lead: (signal, lead) => {
      const untilAborted = new Promise<void>((resolve) => signal.addEventListener('abort', () => resolve()));
      queue.push(() => {
        void lead(untilAborted).then(() => {
          isHeld = false;
          grant();
        });
      });
      grant();
    },
  });
  return { environment, streams };
}

const event = { eventId: '0190c1d2-0000-7000-8000-000000000001', seq: 7, kind: 'catch.claim' };
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

describe('eight tabs of one event', () => {
  it('hold one stream and all hear the same', () => {
    const { environment, streams } = browser();
    const heard: number[] = [];
    for (let tab = 0; tab < 8; tab++) {
      joinLive(environment(), { onEvent: ({ seq }) => heard.push(seq), onState: () => undefined });
    }
    expect(streams.size).toBe(1);
    for (const stream of streams) stream.onMessage(JSON.stringify(event));
    expect(heard).toEqual(Array(8).fill(7));
  });

  it('pass the stream on when the tab that held it closes', async () => {
    const { environment, streams } = browser();
    const heard: string[] = [];
    const leave = joinLive(environment(), { onEvent: () => heard.push('first'), onState: () => undefined });
    joinLive(environment(), { onEvent: () => heard.push('second'), onState: () => undefined });
    leave();
    await settled();
    expect(streams.size).toBe(1);
    for (const stream of streams) stream.onMessage(JSON.stringify(event));
    expect(heard).toEqual(['second']);
  });

  it('tell a tab that opens later how the stream stands', () => {
    const { environment, streams } = browser();
    joinLive(environment(), { onEvent: () => undefined, onState: () => undefined });
    for (const stream of streams) stream.onOpen();
    const states: string[] = [];
    joinLive(environment(), { onEvent: () => undefined, onState: (state) => states.push(state) });
    expect(states).toEqual(['live']);
    for (const stream of streams) stream.onLost();
    expect(states).toEqual(['live', 'lost']);
  });

  it('pass over a message that is none', () => {
    const { environment, streams } = browser();
    const heard: unknown[] = [];
    joinLive(environment(), { onEvent: (one) => heard.push(one), onState: () => undefined });
    for (const stream of streams) stream.onMessage('{"eventId":7}');
    expect(heard).toEqual([]);
  });
});
