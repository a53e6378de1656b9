import { drawScene, renderScene, type Scene } from '@lauta/sim/camera';
import type { Raster } from '@lauta/vision';
import { drawPortrait } from '@lauta/sim/portrait';
import { ownPort, serveCalls } from '../workers/calls.ts';
import type { FilmCalls, FilmShot } from './filmProtocol.ts';

const SIZE_PX = { widthPx: 1280, heightPx: 960 };
const MOST_TILT_DEG = 5;
const GAP_MM = 16;
const OPEN_MM = 22;

const CHANGES: Record<Exclude<FilmShot, 'person' | 'person-hand'>, (scene: Scene) => Scene> = {
  board: (scene) => ({ ...scene, fish: null }),
  gap: (scene) => withFish(scene, { noseGapMm: GAP_MM }),
  open: (scene) => withFish(scene, { mouthGapMm: OPEN_MM }),
  good: (scene) => scene,
};

function withFish(scene: Scene, change: Partial<NonNullable<Scene['fish']>>): Scene {
  return { ...scene, fish: scene.fish && { ...scene.fish, ...change } };
}

/** Draws what the simulated camera films. */
serveCalls<FilmCalls>(ownPort(), {
  async shoot({ shot, seed, ...wish }, _signal, tell) {
    if (shot === 'person' || shot === 'person-hand') {
      const fault = shot === 'person' ? null : ('hand-over-flank' as const);
      const { raster } = drawPortrait(seed, { kind: 'held', fault, look: wish.look, ...SIZE_PX });
      tell(1);
      return { picture: await pictureOf(raster), focal35Mm: null };
    }
    const scene = drawScene(seed, { ...wish, ...SIZE_PX, hand: false, maxTiltDeg: MOST_TILT_DEG });
    const { raster, truth } = renderScene(CHANGES[shot](scene), tell);
    return { picture: await pictureOf(raster), focal35Mm: truth.focal35Mm };
  },
});

function pictureOf({ data, widthPx, heightPx }: Raster): Promise<ImageBitmap> {
  return createImageBitmap(new ImageData(new Uint8ClampedArray(data), widthPx, heightPx));
}
