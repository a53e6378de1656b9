import { adviseLive, lookLive, type LiveTrack } from '@lauta/vision/live';
import type { Raster } from '@lauta/vision';
import { lookPortrait } from '@lauta/vision/portrait';
import { ownPort, serveCalls } from '../workers/calls.ts';
import type { LiveCalls } from './liveLook.ts';

let track: LiveTrack | null = null;
/** A search takes long: where nothing was found one way, the next frame is searched the other way. */
let isStandingAsked = false;
/** One for all frames. */
let canvas: OffscreenCanvas | null = null;

serveCalls<LiveCalls>(ownPort(), {
  look({ frame, board, options }) {
    const raster = rasterOf(frame);
    const seen = lookLive(raster, board, track, { ...options, way: isStandingAsked ? 'standing' : 'lying' });
    track = seen.track;
    if (!track) isStandingAsked = !isStandingAsked;
    return { sight: seen.sight, advice: adviseLive(seen.sight, raster) };
  },
  portrait({ frame }) {
    return lookPortrait(rasterOf(frame));
  },
});

function rasterOf(frame: ImageBitmap): Raster {
  const { width: widthPx, height: heightPx } = frame;
  if (canvas?.width !== widthPx || canvas.height !== heightPx)
    canvas = new OffscreenCanvas(widthPx, heightPx);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('canvas: expected a 2d context');
  context.drawImage(frame, 0, 0);
  frame.close();
  return { widthPx, heightPx, data: context.getImageData(0, 0, widthPx, heightPx).data };
}
