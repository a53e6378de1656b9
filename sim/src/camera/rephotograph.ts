import { fitHomography, mapPoint, type Quad, type Raster } from '@lauta/vision';
import { rollDice } from './dice.ts';
import type { Rephotograph } from './scene.ts';

/**
 * A picture shown on a screen and photographed from it: the screen's own grid of red, green and blue stripes beats
 * with the camera's px, its black is not black, its frame may show.
 */
export function rephotograph(shown: Raster, { seed, columns }: Rephotograph): Raster {
  const { widthPx, heightPx } = shown;
  const dice = rollDice(seed);
  const margin = (): number => dice.between(-0.04, 0.06);
  const corner = (x: number, y: number): [number, number] => [
    (x + (x === 0 ? margin() : -margin())) * widthPx,
    (y + (y === 0 ? margin() : -margin())) * heightPx,
  ];
  const corners: Quad = [corner(0, 0), corner(1, 0), corner(1, 1), corner(0, 1)];
  const toScreen = fitHomography(corners, [[0, 0], [1, 0], [1, 1], [0, 1]]); // prettier-ignore
  const rows = (columns * heightPx) / widthPx;
  const [black, stripe, line] = [dice.between(14, 34), dice.between(0.25, 0.5), dice.between(0.1, 0.3)];
  const [haze, hazeX, hazeY] = [dice.between(0, 26), dice.next(), dice.next()];
  const data = new Uint8ClampedArray(widthPx * heightPx * 4);
  for (let row = 0; row < heightPx; row++) {
    for (let column = 0; column < widthPx; column++) {
      const at = (row * widthPx + column) * 4;
      const [u, v] = mapPoint(toScreen, [column, row]);
      const reflected = haze * Math.exp(-((u - hazeX) ** 2 + (v - hazeY) ** 2) / 0.12);
      data[at + 3] = 255;
      if (u < 0 || v < 0 || u >= 1 || v >= 1) {
        for (let channel = 0; channel < 3; channel++) data[at + channel] = 16 + reflected;
        continue;
      }
      const x = Math.min(widthPx - 1, Math.floor(u * widthPx));
      const y = Math.min(heightPx - 1, Math.floor(v * heightPx));
      const scan = 1 - line * (0.5 + 0.5 * Math.cos(2 * Math.PI * v * rows));
      for (let channel = 0; channel < 3; channel++) {
        const mask = 1 - stripe * (0.5 + 0.5 * Math.cos(2 * Math.PI * (u * columns + channel / 3)));
        const lit = shown.data[(y * widthPx + x) * 4 + channel];
        data[at + channel] = black + reflected + lit * (1 - black / 255) * mask * scan * 1.15;
      }
    }
  }
  return { widthPx, heightPx, data };
}
