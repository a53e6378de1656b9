import { createHash } from 'node:crypto';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Tinypool } from 'tinypool';
import { RENDERER_VERSION, type PhotoFault, type PhotoTruth } from '@lauta/sim/camera';
import type { Identifier } from '@lauta/core/identifier';
import type { BoardId } from '@lauta/core/ids';

/** One photograph to be taken by the simulated camera. */
export interface PhotographOrder {
  seed: number;
  boardId: BoardId;
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

/** A camera that renders on worker threads and keeps what it rendered, by seed and renderer version. */
export async function openDemoCamera(cacheDir: string): Promise<DemoCamera> {
  await mkdir(cacheDir, { recursive: true });
  const pool = new Tinypool({
    filename: new URL('./renderThread.mjs', import.meta.url).href,
    minThreads: 0,
    maxThreads: availableParallelism(),
    execArgv: [],
  });

  return {
    async take(order) {
      const key = createHash('sha256').update(JSON.stringify(order)).digest('hex').slice(0, 16);
      const name = join(cacheDir, `v${RENDERER_VERSION}-${order.seed}-${key}`);
      const kept = await readKept(name);
      if (kept) return kept;
      const rendered: RenderedFile = await pool.run(order);
      // The picture's name appears last, so that a killed run leaves no half of a pair.
      await writeFile(`${name}.json`, JSON.stringify(rendered.truth));
      await writeFile(`${name}.part`, rendered.jpeg);
      await rename(`${name}.part`, `${name}.jpg`);
      return rendered;
    },
    close: () => pool.destroy(),
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
