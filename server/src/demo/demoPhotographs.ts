import { createHash } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import { RENDERER_VERSION, type PhotoFault, type PhotoTruth } from '@lauta/sim/camera';
import type { Identifier } from '@lauta/core/identifier';

/** One photograph to be taken by the simulated camera. */
export interface PhotographOrder {
  seed: number;
  boardId: string;
  look: string;
  lengthMm: number;
  identifier: Identifier;
  /** What is wrong with it. */
  fault?: PhotoFault;
  /** The seed of the photograph whose fish this is; by default its own. */
  fishOf?: number;
  widthPx: number;
  heightPx: number;
  notes: {
    takenLocal: string;
    offset: string | null;
    device: string;
    position: { latitude: number; longitude: number } | null;
    takenUtc: { date: string; hour: number; minute: number; second: number };
  };
}

export interface RenderedFile {
  jpeg: Uint8Array;
  truth: PhotoTruth;
}

export interface DemoCamera {
  take(order: PhotographOrder): Promise<RenderedFile>;
  close(): Promise<void>;
}

interface Waiting {
  order: PhotographOrder;
  resolve: (file: RenderedFile) => void;
  reject: (error: Error) => void;
}

/** A camera that renders on worker threads and keeps what it rendered, by seed and renderer version. */
export async function openDemoCamera(cacheDir: string): Promise<DemoCamera> {
  await mkdir(cacheDir, { recursive: true });
  const queue: Waiting[] = [];
  const workers = new Map<Worker, Waiting | null>();

  const next = (worker: Worker): void => {
    const waiting = queue.shift() ?? null;
    workers.set(worker, waiting);
    if (waiting) worker.postMessage({ id: 0, order: waiting.order });
  };
  const hire = (): void => {
    const worker = new Worker(new URL('./renderThread.mjs', import.meta.url), { execArgv: [] });
    workers.set(worker, null);
    worker.on('message', ({ rendered, error }: { rendered?: RenderedFile; error?: string }) => {
      const waiting = workers.get(worker);
      if (rendered) waiting?.resolve(rendered);
      else waiting?.reject(new Error(error));
      next(worker);
    });
    worker.on('error', (error: Error) => {
      workers.get(worker)?.reject(error);
      workers.delete(worker);
    });
    next(worker);
  };
  const render = (order: PhotographOrder): Promise<RenderedFile> =>
    new Promise((resolve, reject) => {
      queue.push({ order, resolve, reject });
      const idle = [...workers].find(([, busy]) => busy === null)?.[0];
      if (idle) next(idle);
      else if (workers.size < availableParallelism()) hire();
    });

  return {
    async take(order) {
      const key = createHash('sha256').update(JSON.stringify(order)).digest('hex').slice(0, 16);
      const name = join(cacheDir, `v${RENDERER_VERSION}-${order.seed}-${key}`);
      const kept = await readKept(name);
      if (kept) return kept;
      const rendered = await render(order);
      // The picture's name appears last, so that a killed run leaves no half of a pair.
      await writeFile(`${name}.json`, JSON.stringify(rendered.truth));
      await writeFile(`${name}.part`, rendered.jpeg);
      await rename(`${name}.part`, `${name}.jpg`);
      return rendered;
    },
    async close() {
      for (const { reject } of queue.splice(0)) reject(new Error('the camera was closed'));
      await Promise.all([...workers.keys()].map((worker) => worker.terminate()));
    },
  };
}

async function readKept(name: string): Promise<RenderedFile | null> {
  try {
    const jpeg = new Uint8Array(await readFile(`${name}.jpg`));
    return { jpeg, truth: JSON.parse(await readFile(`${name}.json`, 'utf8')) as PhotoTruth };
  } catch {
    return null;
  }
}
