import { findBoard } from '@lauta/core/photo';
import { drawScene, renderScene, rollDice, writeExif } from '@lauta/sim/camera';
import { DEMO_EVENT } from '@lauta/sim/demo';
import { serveCalls, type Port } from '../../workers/calls.ts';
import type { CameraCalls } from './cameraProtocol.ts';

const SIZE_PX = { widthPx: 1600, heightPx: 1200 };

/** The simulated camera: a photograph as a phone would store it. */
serveCalls<CameraCalls>(self as unknown as Port, {
  async photograph(shot, _signal, tell) {
    const board = findBoard(shot.boardId);
    if (!board) throw new RangeError(`boardId: unknown ${shot.boardId}`);
    const { look, lengthMm, identifier } = shot;
    const { raster, truth } = renderScene(
      drawScene(shot.seed, { board, look, lengthMm, identifier, ...SIZE_PX }),
      tell,
    );
    const canvas = new OffscreenCanvas(raster.widthPx, raster.heightPx);
    const context = canvas.getContext('2d');
    if (!context) throw new Error('canvas: expected a 2d context');
    context.putImageData(
      new ImageData(new Uint8ClampedArray(raster.data), raster.widthPx, raster.heightPx),
      0,
      0,
    );
    const plain = await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.9 });
    const dice = rollDice(shot.seed);
    const taken = new Date(shot.takenAt);
    const jpeg = writeExif(new Uint8Array(await plain.arrayBuffer()), {
      takenLocal: shot.takenLocal.replaceAll('-', ':').replace('T', ' '),
      offset: shot.offset,
      focal35Mm: truth.focal35Mm,
      device: 'simulated camera',
      position: {
        latitude: DEMO_EVENT.position.latitude + dice.between(-0.012, 0.012),
        longitude: DEMO_EVENT.position.longitude + dice.between(-0.02, 0.02),
      },
      takenUtc: {
        date: shot.takenAt.slice(0, 10).replaceAll('-', ':'),
        hour: taken.getUTCHours(),
        minute: taken.getUTCMinutes(),
        second: taken.getUTCSeconds(),
      },
    });
    return { jpeg: new Blob([new Uint8Array(jpeg)], { type: 'image/jpeg' }) };
  },
});
