/** One typed protocol between a page and its worker: a call has a name, parameters and a result, and can be cancelled. */
export type Calls<C> = { [K in keyof C]: { params: unknown; result: unknown } };

interface CallMessage {
  id: number;
  name: string;
  params: unknown;
}
type ToWorker = CallMessage | { cancel: number };
type ToPage =
  | { id: number; progress: number }
  | { id: number; result: unknown }
  | { id: number; error: string }
  | { id: number; cancelled: true };

/** Told which share of a call is done, 0 to 1. */
export type OnProgress = (share: number) => void;

/** What both sides need of a worker; a MessagePort will do as well. */
export interface Port {
  postMessage(message: unknown, transfer?: Transferable[]): void;
  onmessage: ((event: MessageEvent) => void) | null;
}

/** The worker in which this is asked. */
export const ownPort = (): Port => globalThis as unknown as Port;

export interface Caller<C extends Calls<C>> {
  /** Rejects with an AbortError when `signal` aborts first. */
  call<K extends keyof C & string>(
    name: K,
    params: C[K]['params'],
    signal?: AbortSignal,
    onProgress?: OnProgress,
  ): Promise<C[K]['result']>;
}

interface Waiting {
  resolve: (result: never) => void;
  reject: (error: unknown) => void;
  onProgress: OnProgress | undefined;
}

export function openCaller<C extends Calls<C>>(port: Port): Caller<C> {
  let lastId = 0;
  const waiting = new Map<number, Waiting>();
  port.onmessage = ({ data }: MessageEvent<ToPage>) => {
    const one = waiting.get(data.id);
    if (!one) return;
    if ('progress' in data) {
      one.onProgress?.(data.progress);
      return;
    }
    waiting.delete(data.id);
    if ('result' in data) one.resolve(data.result as never);
    else if ('error' in data) one.reject(new Error(data.error));
  };
  return {
    call(name, params, signal, onProgress) {
      return new Promise((resolve, reject) => {
        signal?.throwIfAborted();
        const id = ++lastId;
        waiting.set(id, { resolve: resolve as (result: never) => void, reject, onProgress });
        signal?.addEventListener('abort', () => {
          if (!waiting.delete(id)) return;
          port.postMessage({ cancel: id } satisfies ToWorker);
          reject(
            signal.reason instanceof Error ? signal.reason : new DOMException('cancelled', 'AbortError'),
          );
        });
        port.postMessage({ id, name, params } satisfies ToWorker);
      });
    },
  };
}

export type Handlers<C extends Calls<C>> = {
  [K in keyof C]: (
    params: C[K]['params'],
    signal: AbortSignal,
    tell: OnProgress,
  ) => Promise<C[K]['result']> | C[K]['result'];
};

/** Answers calls one after the other; one that was cancelled while it waited is never begun. */
export function serveCalls<C extends Calls<C>>(port: Port, handlers: Handlers<C>): void {
  const pending = new Map<number, AbortController>();
  let last: Promise<void> = Promise.resolve();

  const answer = async ({ id, name, params }: CallMessage, abort: AbortController): Promise<void> => {
    // A turn of the event loop, so that a cancellation that has come meanwhile is heard.
    await new Promise((resolve) => setTimeout(resolve, 0));
    const handler = (
      handlers as Record<
        string,
        ((params: unknown, signal: AbortSignal, tell: OnProgress) => unknown) | undefined
      >
    )[name];
    const message = abort.signal.aborted
      ? { id, cancelled: true as const }
      : await run(id, () => {
          if (!handler) throw new RangeError(`name: unknown call ${name}`);
          return handler(params, abort.signal, (progress) =>
            port.postMessage({ id, progress } satisfies ToPage),
          );
        });
    pending.delete(id);
    port.postMessage(message, 'result' in message ? transferables(message.result) : []);
  };

  port.onmessage = ({ data }: MessageEvent<ToWorker>) => {
    if ('cancel' in data) {
      pending.get(data.cancel)?.abort();
      return;
    }
    const abort = new AbortController();
    pending.set(data.id, abort);
    last = last.then(() => answer(data, abort));
  };
}

async function run(
  id: number,
  act: () => unknown,
): Promise<{ id: number; result: unknown } | { id: number; error: string }> {
  try {
    return { id, result: await act() };
  } catch (error) {
    return { id, error: error instanceof Error ? error.message : String(error) };
  }
}

/** Pictures are handed over, not copied. */
function transferables(result: unknown): Transferable[] {
  if (typeof result !== 'object' || result === null || typeof ImageBitmap === 'undefined') return [];
  return Object.values(result).filter((value): value is ImageBitmap => value instanceof ImageBitmap);
}
