import { boardLines, boardNumerals, faceLengthMm, textWidthMm, type MeasuringBoard } from '@lauta/core/photo';
import { makeNoise } from './noise.ts';
import { Texture, hexRgb, mix } from './paint.ts';

/** The ruled face as printed; `wornBy` 1 is a little worn, more is dirt and fading. */
export function paintBoard(board: MeasuringBoard, seed: number, wornBy = 1): Texture {
  const texture = new Texture(faceLengthMm(board), board.widthMm, 3);
  const face = hexRgb(board.face);
  const ink = hexRgb(board.ink);
  const noise = makeNoise(seed);
  texture.fill((x, y) => {
    const wear = noise(x / 40, y / 40) - 0.5;
    const grain = noise(x / 3, y / 3) - 0.5;
    const dirt = wornBy > 1 ? Math.max(0, noise(x / 90 + 31, y / 60 + 7) - 0.55) * (wornBy - 1) : 0;
    const light = 1 + 0.09 * wornBy * wear + 0.04 * grain - dirt;
    return [face[0] * light, face[1] * light, face[2] * light * (1 - 0.03 * wear)];
  });
  const print = mix(ink, face, 0.06);
  for (const { xMm, strokeMm, spans } of boardLines(board)) {
    for (const [from = 0, to = 1] of spans) {
      texture.rect(xMm - strokeMm / 2, from * board.widthMm, xMm + strokeMm / 2, to * board.widthMm, print);
    }
  }
  for (const { text, rightMm, centreYMm, heightMm } of boardNumerals(board)) {
    const leftMm = rightMm - textWidthMm(text, heightMm);
    texture.text(text, leftMm, centreYMm + heightMm / 2, heightMm, print);
  }
  return texture;
}
