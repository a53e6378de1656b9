import { writeExif } from '@lauta/vision/exif-writer';
import {
  drawBoardKind,
  drawEmptyBoard,
  drawScene,
  renderScene,
  rollDice,
  type Scene,
} from '@lauta/sim/camera';
import { DEMO_EVENT } from '@lauta/sim/demo';
import { shotNotes } from './shotNotes.ts';
import { ownPort, serveCalls, type OnProgress } from '../workers/calls.ts';
import type { CameraCalls, ShotTime } from './cameraCalls.ts';

const SIZE_PX = { widthPx: 1600, heightPx: 1200 };
/** A board to be described is photographed larger. */
const BOARD_SIZE_PX = { widthPx: 2000, heightPx: 1500 };

/** The simulated camera: a photograph as a phone would store it. */
serveCalls<CameraCalls>(ownPort(), {
  async photograph({ board, look, lengthMm, identifier, ...shot }, _signal, tell) {
    return develop(drawScene(shot.seed, { board, look, lengthMm, identifier, ...SIZE_PX }), shot, tell);
  },

  async photographUnknownBoard({ seed, ...shot }, _signal, tell) {
    const { scene } = drawEmptyBoard(seed, drawBoardKind(seed), BOARD_SIZE_PX);
    return develop(scene, { seed, ...shot }, tell);
  },
});

async function develop(
  scene: Scene,
  { seed, takenAtMs, zone }: ShotTime & { seed: number },
  tell: OnProgress,
): Promise<{ jpeg: Blob }> {
  const { raster, truth } = renderScene(scene, tell);
  const canvas = new OffscreenCanvas(raster.widthPx, raster.heightPx);
  const context = canvas.getContext('2d');
  if (!context) throw new Error('canvas: expected a 2d context');
  context.putImageData(
    new ImageData(new Uint8ClampedArray(raster.data), raster.widthPx, raster.heightPx),
    0,
    0,
  );
  const plain = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.9 });
  const dice = rollDice(seed);
  const position = {
    latitude: DEMO_EVENT.position.latitude + dice.between(-0.012, 0.012),
    longitude: DEMO_EVENT.position.longitude + dice.between(-0.02, 0.02),
  };
  const notes = shotNotes(takenAtMs, zone, {
    focal35Mm: truth.focal35Mm,
    device: 'simulated camera',
    position,
  });
  const jpeg = writeExif(new Uint8Array(await plain.arrayBuffer()), notes);
  return { jpeg: new Blob([new Uint8Array(jpeg)], { type: 'image/jpeg' }) };
}
