import { makeNoise } from './noise.ts';
import { mix, type Rgb } from './paint.ts';
import type { Ground } from './scene.ts';

/** What the board lies on, as colour by place in mm. */
export function paintGround(ground: Ground, seed: number): (xMm: number, yMm: number) => Rgb {
  const noise = makeNoise(seed);
  switch (ground) {
    case 'planks':
      return (x, y) => {
        const plank = Math.floor((x + 0.12 * y) / 118);
        const within = (x + 0.12 * y) / 118 - plank;
        const seam = Math.abs(within - 0.5) > 0.485 ? 0.45 : 1;
        const grain = noise(x / 9 + plank * 31, y / 90);
        return mix([112 * seam, 88 * seam, 64 * seam], [168 * seam, 138 * seam, 104 * seam], grain);
      };
    case 'turf':
      return (x, y) => mix([46, 66, 28], [128, 146, 70], noise(x / 9, y / 13));
    case 'hull':
      return (x, y) => mix([196, 92, 38], [222, 116, 54], noise(x / 60, y / 60));
    case 'carpet':
      return (x, y) => mix([64, 70, 78], [104, 110, 116], noise(x / 2.4, y / 2.4));
  }
}
