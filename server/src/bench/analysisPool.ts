import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { AnalysedPhotograph } from './analysePhotograph.ts';
import type { AnalysisAnswer, AnalysisTask } from './analysisWorker.ts';

/** Why no analysis came. */
export type AnalysisFailure = 'busy' | 'too-long' | 'broken' | 'closed';
export type AnalysisResult = { ok: true; value: AnalysedPhotograph } | { ok: false; code: AnalysisFailure };

/** Analyses photographs on threads of their own, and remembers the last ones. */
export interface AnalysisPool {
  /**
   * The analysis of one photograph by its key; asked for twice at once it is made once.
   * @param urgent somebody waits for it: it goes before all that is made ahead
   */
  analyse(key: string, task: () => Promise<AnalysisTask | null>, urgent: boolean): Promise<AnalysisResult>;
  close(): Promise<void>;
}

interface Waiting {
  key: string;
  task: () => Promise<AnalysisTask | null>;
  urgent: boolean;
  settle: (result: AnalysisResult) => void;
  answer: Promise<AnalysisResult>;
}

export interface PoolOptions {
  /** By default all cores but one: requests keep that. */
  threads?: number;
  mostWaiting?: number;
  /** A thread that takes longer is ended and replaced. */
  limitMs?: number;
  mostRemembered?: number;
}

export function openAnalysisPool({
  threads = Math.max(1, availableParallelism() - 1),
  mostWaiting = 64,
  // An analysis takes 2 to 6 s by itself; on a machine that does other work too, ten times that.
  limitMs = 60_000,
  mostRemembered = 300,
}: PoolOptions = {}): AnalysisPool {
  const queue: Waiting[] = [];
  const running = new Map<string, Waiting>();
  const memory = rememberLast(mostRemembered);
  const idle: Worker[] = [];
  const all = new Set<Worker>();
  let isClosed = false;

  const hire = (): Worker => {
    const worker = new Worker(new URL('./analysisThread.mjs', import.meta.url), { execArgv: [] });
    all.add(worker);
    return worker;
  };
  const fire = (worker: Worker): void => {
    all.delete(worker);
    void worker.terminate();
  };

  const next = (): void => {
    if (isClosed || queue.length === 0) return;
    const worker = idle.pop() ?? (all.size < threads ? hire() : null);
    if (!worker) return;
    const waiting = takeNext(queue);
    if (!waiting) return void idle.push(worker);
    running.set(waiting.key, waiting);
    void runOn(worker, waiting.task, limitMs).then(({ result, isAlive }) => {
      running.delete(waiting.key);
      if (isAlive && !isClosed) idle.push(worker);
      else fire(worker);
      memory.add(waiting.key, result);
      waiting.settle(result);
      next();
    });
    next();
  };

  return {
    analyse(key, task, urgent) {
      const known = memory.get(key);
      if (known) return Promise.resolve(known);
      const now = running.get(key);
      if (now) return now.answer;
      const before = queue.find((one) => one.key === key);
      if (before) {
        before.urgent ||= urgent;
        return before.answer;
      }
      if (isClosed) return Promise.resolve({ ok: false, code: 'closed' });
      if (queue.length >= mostWaiting && !makeRoom(queue, urgent))
        return Promise.resolve({ ok: false, code: 'busy' });
      let settle: (result: AnalysisResult) => void = () => undefined;
      const answer = new Promise<AnalysisResult>((resolve) => (settle = resolve));
      queue.push({ key, task, urgent, settle, answer });
      next();
      return answer;
    },
    async close() {
      isClosed = true;
      for (const one of queue.splice(0)) one.settle({ ok: false, code: 'closed' });
      await Promise.all([...all].map((worker) => worker.terminate()));
    },
  };
}

/** The last results, but for those that another try may change. */
function rememberLast(most: number) {
  const results = new Map<string, AnalysisResult>();
  return {
    get: (key: string): AnalysisResult | undefined => results.get(key),
    add(key: string, result: AnalysisResult): void {
      if (!result.ok && result.code !== 'broken') return;
      results.set(key, result);
      const [oldest] = results.keys();
      if (results.size > most && oldest !== undefined) results.delete(oldest);
    },
  };
}

/** Whoever is waited for goes first, else whoever came first. */
function takeNext(queue: Waiting[]): Waiting | undefined {
  const at = queue.findIndex(({ urgent }) => urgent);
  return queue.splice(Math.max(0, at), 1)[0];
}

/** What was only made ahead gives way to somebody who waits; false where nothing does. */
function makeRoom(queue: Waiting[], urgent: boolean): boolean {
  const least = urgent ? queue.findLastIndex((one) => !one.urgent) : -1;
  if (least < 0) return false;
  queue.splice(least, 1)[0]?.settle({ ok: false, code: 'busy' });
  return true;
}

/** One task on one thread, ended when it takes too long. */
async function runOn(
  worker: Worker,
  task: () => Promise<AnalysisTask | null>,
  limitMs: number,
): Promise<{ result: AnalysisResult; isAlive: boolean }> {
  let ordered: AnalysisTask | null;
  try {
    ordered = await task();
  } catch {
    return { result: { ok: false, code: 'closed' }, isAlive: true };
  }
  if (!ordered) return { result: { ok: false, code: 'broken' }, isAlive: true };
  const order = ordered;
  return new Promise((resolve) => {
    const end = (result: AnalysisResult, isAlive: boolean): void => {
      clearTimeout(timer);
      worker.off('message', onMessage);
      worker.off('error', onError);
      worker.off('exit', onExit);
      resolve({ result, isAlive });
    };
    const onMessage = (answer: AnalysisAnswer): void =>
      end(answer.ok ? { ok: true, value: answer.value } : { ok: false, code: 'broken' }, true);
    const onError = (): void => end({ ok: false, code: 'broken' }, false);
    const onExit = (): void => end({ ok: false, code: 'closed' }, false);
    const timer = setTimeout(() => end({ ok: false, code: 'too-long' }, false), limitMs);
    worker.on('message', onMessage);
    worker.on('error', onError);
    worker.on('exit', onExit);
    worker.postMessage(order);
  });
}
