import { makeNoise } from './noise.ts';
import type { Rgb } from './rgb.ts';
import type { Ground } from './scene.ts';

/** Writes the colour of a place, mm, into an array: a picture asks millions of times. */
type ColourAt = (xMm: number, yMm: number, into: [number, number, number]) => void;

/** What the board lies on, as colour by place. */
export function paintGround(ground: Ground, seed: number): ColourAt {
  const noise = makeNoise(seed);
  switch (ground) {
    case 'planks':
      return (x, y, into) => {
        const plank = Math.floor((x + 0.12 * y) / 118);
        const within = (x + 0.12 * y) / 118 - plank;
        const seam = Math.abs(within - 0.5) > 0.485 ? 0.45 : 1;
        const grain = noise(x / 9 + plank * 31, y / 90);
        into[0] = 112 * seam + (168 * seam - 112 * seam) * grain;
        into[1] = 88 * seam + (138 * seam - 88 * seam) * grain;
        into[2] = 64 * seam + (104 * seam - 64 * seam) * grain;
      };
    case 'turf':
      return between([46, 66, 28], [128, 146, 70], (x, y) => noise(x / 9, y / 13));
    case 'hull':
      return between([196, 92, 38], [222, 116, 54], (x, y) => noise(x / 60, y / 60));
    case 'plate':
      return (x, y, into) => {
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
        into[0] = 128 * light;
        into[1] = 131 * light;
        into[2] = 138 * light;
      };
    case 'gravel':
      return between([58, 54, 48], [196, 188, 172], (x, y) => noise(x / 6, y / 6));
    case 'corrugated':
      return (x, y, into) => {
        const wave = 0.82 + 0.18 * Math.sin((x + 0.15 * y) / 5.5) + 0.12 * (noise(x / 50, y / 50) - 0.5);
        into[0] = 176 * wave;
        into[1] = 78 * wave;
        into[2] = 40 * wave;
      };
    case 'carpet':
      return between([64, 70, 78], [104, 110, 116], (x, y) => noise(x / 2.4, y / 2.4));
  }
}

function between(dark: Rgb, light: Rgb, shareAt: (x: number, y: number) => number): ColourAt {
  return (x, y, into) => {
    const share = shareAt(x, y);
    into[0] = dark[0] + (light[0] - dark[0]) * share;
    into[1] = dark[1] + (light[1] - dark[1]) * share;
    into[2] = dark[2] + (light[2] - dark[2]) * share;
  };
}
