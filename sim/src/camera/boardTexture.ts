import { boardLines, boardNumerals, faceLengthMm, type MeasuringBoard } from '@lauta/core/photo';
import { makeNoise } from './noise.ts';
import { Texture, hexRgb, mix, textWidthMm } from './paint.ts';

/** The ruled face as printed, a little worn. */
export function paintBoard(board: MeasuringBoard, seed: number): Texture {
  const texture = new Texture(faceLengthMm(board), board.widthMm, 3);
  const face = hexRgb(board.face);
  const ink = hexRgb(board.ink);
  const noise = makeNoise(seed);
  texture.fill((x, y) => {
    const wear = noise(x / 40, y / 40) - 0.5;
    const grain = noise(x / 3, y / 3) - 0.5;
    const light = 1 + 0.09 * wear + 0.04 * grain;
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
