import { existsSync } from 'node:fs';
import { mkdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { MeasuringBoard } from '@lauta/vision';
import { RENDERER_VERSION, type PhotoFault } from '../camera/index.ts';
import type { PhotoOrder } from './photoWorker.ts';
import type { PhotoRecord } from './truth.ts';

export interface DrawOptions {
  dir: string;
  seeds: readonly number[];
  threads: number;
  widthPx?: number;
  heightPx?: number;
  fish?: boolean;
  maxTiltDeg?: number;
  /** Boards to choose from; by default the shipped ones. */
  boards?: readonly MeasuringBoard[];
  /** The first of these boards, empty, as somebody photographs it to have it described. */
  isEmptyBoard?: boolean;
  /** Before each file's name, so that other boards are other files. */
  prefix?: string;
  /** What is wrong with each photograph, by its seed; by default nothing. */
  faultOf?: (seed: number) => PhotoFault | null;
  /** The seed of the scene whose fish lies there again, by the photograph's seed. */
  fishOf?: (seed: number) => number | null;
  /** Told after each photograph. */
  onDrawn?: (done: number, all: number) => void;
}

/** Draws photographs from their seeds on threads of their own; those that the folder has already are kept. */
export async function drawPhotos(options: DrawOptions): Promise<PhotoRecord[]> {
  const { dir, seeds } = options;
  await mkdir(dir, { recursive: true });
  const kind = `${options.prefix ?? ''}${options.isEmptyBoard ? 'empty-' : options.fish === false ? 'bare-' : ''}`;
  const orders = seeds.map((seed): PhotoOrder => {
    const fault = options.faultOf?.(seed) ?? null;
    const fishOf = options.fishOf?.(seed) ?? null;
    const part = `${fault ? `${fault}-` : ''}${fishOf === null ? '' : `of-${fishOf}-`}`;
    return {
      seed,
      dir,
      name: `v${RENDERER_VERSION}-${kind}${part}${seed}.jpg`,
      ...(fault ? { fault } : {}),
      ...(fishOf === null ? {} : { fishOf }),
      widthPx: options.widthPx ?? 2016,
      heightPx: options.heightPx ?? 1512,
      fish: options.fish ?? true,
      maxTiltDeg: options.maxTiltDeg ?? 40,
      ...(options.boards ? { boards: options.boards } : {}),
      ...(options.isEmptyBoard ? { isEmptyBoard: true } : {}),
    };
  });
  const records = new Array<PhotoRecord>(orders.length);
  let next = 0;
  let done = 0;
  const runOn = async (worker: Worker): Promise<void> => {
    for (let i = next++; i < orders.length; i = next++) {
      const order = orders[i];
      const stored = join(dir, order.name.replace(/\.jpg$/, '.json'));
      records[i] = existsSync(stored)
        ? (JSON.parse(await readFile(stored, 'utf8')) as PhotoRecord)
        : await drawOn(worker, i, order);
      options.onDrawn?.(++done, orders.length);
    }
  };
  const workers = Array.from(
    { length: options.threads },
    () => new Worker(new URL('./photoThread.mjs', import.meta.url), { execArgv: [] }),
  );
  try {
    await Promise.all(workers.map(runOn));
  } finally {
    await Promise.all(workers.map((worker) => worker.terminate()));
  }
  return records;
}

function drawOn(worker: Worker, id: number, order: PhotoOrder): Promise<PhotoRecord> {
  return new Promise((resolve, reject) => {
    const settle = (message: { id: number; record?: PhotoRecord; error?: string }): void => {
      worker.off('message', settle);
      worker.off('error', reject);
      if (message.record) resolve(message.record);
      else reject(new Error(`photo ${order.name}: ${message.error ?? 'no answer'}`));
    };
    worker.on('message', settle);
    worker.on('error', reject);
    worker.postMessage({ id, order });
  });
}
