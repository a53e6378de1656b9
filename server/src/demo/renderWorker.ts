import sharp from 'sharp';
import { writeExif } from '@lauta/vision/exif-writer';
import { findBoard } from '@lauta/vision';
import {
  drawScene,
  renderScene,
  rollDice,
  seedFor,
  withFault,
  type PhotoFault,
  type Scene,
} from '@lauta/sim/camera';
import type { PhotographOrder, RenderedFile } from './demoCamera.ts';

/** Renders one photograph, on a thread of its own. */
export async function render(order: PhotographOrder): Promise<RenderedFile> {
  const board = findBoard(order.boardId);
  if (!board) throw new RangeError(`boardId: unknown ${order.boardId}`);
  const drawn = drawScene(order.seed, {
    board,
    look: order.look,
    lengthMm: order.lengthMm,
    identifier: order.identifier,
    widthPx: order.widthPx,
    heightPx: order.heightPx,
    ...(order.fishOf === undefined ? {} : { fishSeed: seedFor(order.fishOf, 'fish') }),
  });
  const scene = order.fault ? faulty(drawn, order, order.fault) : drawn;
  const { raster, truth } = renderScene(scene);
  const jpeg = await sharp(raster.data, {
    raw: { width: raster.widthPx, height: raster.heightPx, channels: 4 },
  })
    .jpeg({ quality: 88 })
    .toBuffer();
  return { jpeg: writeExif(jpeg, { ...order.notes, focal35Mm: truth.focal35Mm }), truth };
}

function faulty(scene: Scene, { seed, identifier }: PhotographOrder, fault: PhotoFault): Scene {
  const { board } = scene;
  const ranged = {
    scene,
    jpegQuality: 88,
    hasHand: scene.hand !== null,
    expected: identifier,
    claimedBoard: board,
  };
  return withFault(ranged, fault, rollDice(seedFor(seed, 'fault'))).scene;
}
