import { existsSync } from 'node:fs';
import { mkdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Tinypool } from 'tinypool';
import type { MeasuringBoard } from '@lauta/vision';
import { RENDERER_VERSION, type PhotoFault } from '../camera/index.ts';
import type { Family } from '../families/index.ts';
import type { PhotoOrder } from './drawPhoto.ts';
import type { PhotoRecord } from './photoRecord.ts';

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
  /** What the scenes are widened by; by default nothing. */
  families?: readonly Family[];
  /** Told after each photograph. */
  onDrawn?: (done: number, all: number) => void;
}

/** Draws photographs from their seeds on threads of their own; those that the folder has already are kept. */
export async function drawPhotos(options: DrawOptions): Promise<PhotoRecord[]> {
  const { dir, seeds } = options;
  await mkdir(dir, { recursive: true });
  const kind = `${options.prefix ?? ''}${options.isEmptyBoard ? 'empty-' : options.fish === false ? 'bare-' : ''}`;
  const wide = options.families?.length ? `${options.families.join('-')}-` : '';
  const orders = seeds.map((seed): PhotoOrder => {
    const fault = options.faultOf?.(seed) ?? null;
    const fishOf = options.fishOf?.(seed) ?? null;
    const part = `${fault ? `${fault}-` : ''}${fishOf === null ? '' : `of-${fishOf}-`}`;
    return {
      seed,
      dir,
      name: `v${RENDERER_VERSION}-${kind}${wide}${part}${seed}.jpg`,
      ...(fault ? { fault } : {}),
      ...(fishOf === null ? {} : { fishOf }),
      widthPx: options.widthPx ?? 2016,
      heightPx: options.heightPx ?? 1512,
      fish: options.fish ?? true,
      maxTiltDeg: options.maxTiltDeg ?? 40,
      ...(options.boards ? { boards: options.boards } : {}),
      ...(options.isEmptyBoard ? { isEmptyBoard: true } : {}),
      ...(options.families ? { families: options.families } : {}),
    };
  });
  const pool = new Tinypool({
    filename: new URL('./photoThread.mjs', import.meta.url).href,
    minThreads: 0,
    maxThreads: options.threads,
    execArgv: [],
  });
  let done = 0;
  const drawn = async (order: PhotoOrder): Promise<PhotoRecord> => {
    const stored = join(dir, order.name.replace(/\.jpg$/, '.json'));
    const record: PhotoRecord = existsSync(stored)
      ? JSON.parse(await readFile(stored, 'utf8'))
      : await pool.run(order);
    options.onDrawn?.(++done, orders.length);
    return record;
  };
  try {
    return await Promise.all(orders.map(drawn));
  } finally {
    await pool.destroy();
  }
}
