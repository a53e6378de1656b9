import { readFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import sharp from 'sharp';
import { SHIPPED_BOARDS, analysisSteps, type MeasuringBoard } from '@lauta/vision';
import { decodePhotograph } from '../src/bench/decodePhotograph.ts';
import { readCodes } from '../src/bench/readCodes.ts';
import { newTimes, timeStages, type StageTimes } from './timeStages.ts';

export type { StageTimes } from './timeStages.ts';

export interface TimedPhoto {
  name: string;
  jpeg: Buffer;
  board: MeasuringBoard;
  focal35Mm: number;
}

/** The same photograph at four times the px, as a phone of 12 megapixels would store it. */
export async function enlarged(photo: TimedPhoto): Promise<TimedPhoto> {
  const jpeg = await sharp(photo.jpeg)
    .resize(4032, 3024, { kernel: 'cubic' })
    .keepExif()
    .jpeg({ quality: 88 })
    .toBuffer();
  return { ...photo, jpeg };
}

export async function timeInNode(photo: TimedPhoto): Promise<StageTimes> {
  const begun = performance.now();
  const { raster } = await decodePhotograph(photo.jpeg);
  const times = newTimes(performance.now() - begun);
  const steps = analysisSteps(raster, photo.board, {
    focal35Mm: photo.focal35Mm,
    otherBoards: SHIPPED_BOARDS,
  });
  await timeStages(steps, readCodes, times);
  return times;
}

/** Times photographs in a web worker of headless Chromium that runs the same core. */
export async function openChromiumTimer(): Promise<{
  time(photo: TimedPhoto): Promise<StageTimes>;
  close(): Promise<void>;
}> {
  const bundled = await build({
    entryPoints: [join(import.meta.dirname, 'stages.worker.ts')],
    bundle: true,
    format: 'iife',
    target: 'es2022',
    write: false,
  });
  const wasm = await readFile(fileURLToPath(import.meta.resolve('zxing-wasm/reader/zxing_reader.wasm')));
  const script = bundled.outputFiles[0]?.text ?? '';
  // A page of its own on loopback: workers need an origin.
  const server = createServer((request, response) => {
    const [type, body] =
      request.url === '/worker.js'
        ? ['text/javascript', script]
        : request.url === '/reader.wasm'
          ? ['application/wasm', wasm]
          : ['text/html', '<!doctype html><title>bench</title>'];
    response.setHeader('Content-Type', type);
    response.end(body);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : 0;
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' });
  const page = await browser.newPage();
  await page.goto(`http://127.0.0.1:${port}/`);
  return {
    async time({ jpeg, board, focal35Mm }) {
      // In the page's own words: the server's types know no browser.
      const text = await page.evaluate<string>(
        `(async ({ base64, board, focal35Mm }) => {
          const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
          window.benchWorker ??= new Worker('/worker.js');
          const answer = new Promise((resolve, reject) => {
            window.benchWorker.onmessage = ({ data }) => resolve(JSON.stringify(data));
            window.benchWorker.onerror = (event) => reject(new Error(event.message));
          });
          window.benchWorker.postMessage({ bytes, board, focal35Mm });
          return answer;
        })(${JSON.stringify({ base64: jpeg.toString('base64'), board, focal35Mm })})`,
      );
      return JSON.parse(text) as StageTimes;
    },
    async close() {
      await browser.close();
      server.close();
    },
  };
}
