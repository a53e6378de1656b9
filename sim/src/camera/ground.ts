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
    case 'plate':
      return (x, y) => {
        // Raised lozenges, each second one turned, as on a metal deck.
        const column = Math.floor(x / 15);
        const row = Math.floor(y / 15);
        const dx = x - (column + 0.5) * 15;
        const dy = y - (row + 0.5) * 15;
        const way = (column + row) % 2 === 0 ? 1 : -1;
        const along = (dx + way * dy) * Math.SQRT1_2;
        const across = (dx - way * dy) * Math.SQRT1_2;
        const raised = (along / 7.5) ** 2 + (across / 2.2) ** 2;
        const light = 0.9 + 0.3 * noise(x / 70, y / 70) + (raised < 1 ? 0.22 * (across > 0 ? 1 : -0.8) : 0);
        return [128 * light, 131 * light, 138 * light];
      };
    case 'gravel':
      return (x, y) => mix([58, 54, 48], [196, 188, 172], noise(x / 6, y / 6));
    case 'corrugated':
      return (x, y) => {
        const wave = 0.82 + 0.18 * Math.sin((x + 0.15 * y) / 5.5) + 0.12 * (noise(x / 50, y / 50) - 0.5);
        return [176 * wave, 78 * wave, 40 * wave];
      };
    case 'carpet':
      return (x, y) => mix([64, 70, 78], [104, 110, 116], noise(x / 2.4, y / 2.4));
  }
}
