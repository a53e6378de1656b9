import { parentPort } from 'node:worker_threads';
import sharp from 'sharp';
import { findBoard } from '@lauta/core/photo';
import { drawScene, renderScene, writeExif } from '@lauta/sim/camera';
import type { PhotographOrder, RenderedFile } from './demoPhotographs.ts';

/** Renders one photograph after the other on a thread of its own. */
parentPort?.on('message', ({ id, order }: { id: number; order: PhotographOrder }) => {
  render(order).then(
    (rendered) => parentPort?.postMessage({ id, rendered }),
    (error: unknown) => parentPort?.postMessage({ id, error: String(error) }),
  );
});

async function render(order: PhotographOrder): Promise<RenderedFile> {
  const board = findBoard(order.boardId);
  if (!board) throw new RangeError(`boardId: unknown ${order.boardId}`);
  const scene = drawScene(order.seed, {
    board,
    look: order.look,
    lengthMm: order.lengthMm,
    identifier: order.identifier,
    widthPx: order.widthPx,
    heightPx: order.heightPx,
  });
  const { raster, truth } = renderScene(scene);
  const jpeg = await sharp(raster.data, {
    raw: { width: raster.widthPx, height: raster.heightPx, channels: 4 },
  })
    .jpeg({ quality: 88 })
    .toBuffer();
  return { jpeg: writeExif(jpeg, { ...order.notes, focal35Mm: truth.focal35Mm }), truth };
}
