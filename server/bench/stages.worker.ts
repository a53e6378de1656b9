import { openCodeReader } from '@lauta/vision/codes';
import { SHIPPED_BOARDS, analysisSteps, type CodeReader, type MeasuringBoard } from '@lauta/vision';
import { newTimes, timeStages, type StageTimes } from './timeStages.ts';

interface Asked {
  bytes: Uint8Array;
  board: MeasuringBoard;
  focal35Mm: number;
}

interface Canvas {
  getContext(kind: '2d', options: { willReadFrequently: boolean }): Context;
}
interface Context {
  drawImage(picture: Bitmap, x: number, y: number): void;
  getImageData(x: number, y: number, width: number, height: number): { data: Uint8ClampedArray };
}
interface Bitmap {
  width: number;
  height: number;
}
/** What this worker uses of its browser: the server's types know none of it. */
interface WorkerScope {
  onmessage: ((event: { data: Asked }) => void) | null;
  postMessage(message: unknown): void;
  createImageBitmap(blob: Blob, options: { colorSpaceConversion: 'none' }): Promise<Bitmap>;
  OffscreenCanvas: new (width: number, height: number) => Canvas;
}
const scope = globalThis as unknown as WorkerScope;

scope.onmessage = ({ data }) => {
  void run(data).then((times) => scope.postMessage(times));
};

async function run({ bytes, board, focal35Mm }: Asked): Promise<StageTimes> {
  const begun = performance.now();
  const bitmap = await scope.createImageBitmap(new Blob([new Uint8Array(bytes)], { type: 'image/jpeg' }), {
    colorSpaceConversion: 'none',
  });
  const context = new scope.OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d', {
    willReadFrequently: true,
  });
  context.drawImage(bitmap, 0, 0);
  const raster = {
    widthPx: bitmap.width,
    heightPx: bitmap.height,
    data: context.getImageData(0, 0, bitmap.width, bitmap.height).data,
  };
  const times = newTimes(performance.now() - begun);
  reader ??= openCodeReader(await (await fetch('/reader.wasm')).arrayBuffer());
  const steps = analysisSteps(raster, board, { focal35Mm, otherBoards: SHIPPED_BOARDS });
  await timeStages(steps, reader, times);
  return times;
}

let reader: CodeReader | null = null;
