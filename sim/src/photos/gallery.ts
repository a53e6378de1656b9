import {
  FLANK_ACROSS,
  FLANK_ALONG,
  FLANK_COLUMNS,
  FLANK_ROWS,
  HIDDEN,
  describeFlank,
  type IndexedFish,
} from '@lauta/vision/same-fish';
import { SHIPPED_BOARDS } from '@lauta/vision';
import { drawRangedScene, rollDice, seedFor, skinLuma } from '../camera/index.ts';

/** Skin is looked at up to here across the fish, as a share of the length: a body's half height, less its edge. */
const HALF_SHARE = 0.08;

/** A fish of the simulator's as it would be kept, straight from its skin: for galleries of thousands. */
export function galleryFish(seed: number): IndexedFish {
  // The fish is the one that photographs of this seed show.
  const { fish } = drawRangedScene(seed, { boards: SHIPPED_BOARDS, fishOf: seed }).scene;
  if (!fish) throw new RangeError(`seed: expected a scene with a fish, got ${seed}`);
  const lumaAt = skinLuma(fish);
  const dice = rollDice(seedFor(seed, 'gallery'));
  const slope = dice.between(-0.6, 0.6);
  const px: [number, number][] = [];
  const light = new Float32Array(FLANK_COLUMNS * FLANK_ROWS).fill(NaN);
  for (let row = 0; row < FLANK_ROWS; row++) {
    const across = FLANK_ACROSS[0] + ((row + 0.5) / FLANK_ROWS) * (FLANK_ACROSS[1] - FLANK_ACROSS[0]);
    for (let column = 0; column < FLANK_COLUMNS; column++) {
      const s = FLANK_ALONG[0] + ((column + 0.5) / FLANK_COLUMNS) * (FLANK_ALONG[1] - FLANK_ALONG[0]);
      if (Math.abs(across) > HALF_SHARE * fish.look.depth * (s < 0.6 ? 1 : 1 - 1.7 * (s - 0.6))) continue;
      light[row * FLANK_COLUMNS + column] =
        Math.log(lumaAt(s, across) + 6) + slope * s + 0.02 * dice.normal();
    }
  }
  const flank = describeFlank({ light, frame: { columns: 0, rows: 0, px } });
  if (flank.every((value) => value === HIDDEN)) throw new RangeError(`seed: no skin was drawn for ${seed}`);
  return { id: `gallery ${seed}`, lengthMm: fish.lengthMm, sigmaMm: 0.8, flank };
}
