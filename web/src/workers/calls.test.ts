import { afterEach, describe, expect, it } from 'vitest';
import { openCaller, serveCalls, type Handlers } from './calls.ts';

interface TestCalls {
  double: { params: number; result: number };
  slow: { params: string; result: string };
}

const open: MessageChannel[] = [];
afterEach(() => open.splice(0).forEach(({ port1, port2 }) => (port1.close(), port2.close())));

function pair(handlers: Handlers<TestCalls>) {
  const channel = new MessageChannel();
  open.push(channel);
  serveCalls<TestCalls>(channel.port2, handlers);
  return openCaller<TestCalls>(channel.port1);
}

describe('calls to a worker', () => {
  it('are answered each with its own result', async () => {
    const caller = pair({ double: (n) => n * 2, slow: (text) => text });
    expect(await Promise.all([1, 2, 3].map((n) => caller.call('double', n)))).toEqual([2, 4, 6]);
  });

  it('reject with what the worker says went wrong', async () => {
    const caller = pair({
      double: () => {
        throw new RangeError('n: expected less');
      },
      slow: (text) => text,
    });
    await expect(caller.call('double', 1)).rejects.toThrow('n: expected less');
  });

  it('are never begun when they were cancelled while they waited', async () => {
    const begun: string[] = [];
    const caller = pair({
      double: (n) => n,
      slow: async (text) => {
        begun.push(text);
        await new Promise((resolve) => setTimeout(resolve, 30));
        return text;
      },
    });
    const abort = new AbortController();
    const first = caller.call('slow', 'first');
    const second = caller.call('slow', 'second', abort.signal);
    const third = caller.call('slow', 'third');
    abort.abort();
    await expect(second).rejects.toMatchObject({ name: 'AbortError' });
    expect(await Promise.all([first, third])).toEqual(['first', 'third']);
    expect(begun).toEqual(['first', 'third']);
  });

  it('hand the signal on to one that has begun', async () => {
    let heard = false;
    const caller = pair({
      double: (n) => n,
      slow: (text, signal) =>
        new Promise((resolve) => {
          signal.addEventListener('abort', () => {
            heard = true;
            resolve(text);
          });
        }),
    });
    const abort = new AbortController();
    const call = caller.call('slow', 'one', abort.signal);
    await new Promise((resolve) => setTimeout(resolve, 30));
    abort.abort();
    await expect(call).rejects.toMatchObject({ name: 'AbortError' });
    expect(await caller.call('double', 4)).toBe(4);
    expect(heard).toBe(true);
  });

  it('tell how far they are', async () => {
    const shares: number[] = [];
    const caller = pair({
      double: (n, _signal, tell) => {
        tell(0.5);
        return n * 2;
      },
      slow: (text) => text,
    });
    expect(await caller.call('double', 2, undefined, (share) => shares.push(share))).toBe(4);
    expect(shares).toEqual([0.5]);
  });

  it('are refused at once when their signal has aborted before', async () => {
    const caller = pair({ double: (n) => n, slow: (text) => text });
    await expect(caller.call('double', 1, AbortSignal.abort())).rejects.toMatchObject({ name: 'AbortError' });
  });
});
