import { clamp, type Texture } from './rgb.ts';

/** The colour last sampled, overwritten by the next: millions of samples a picture would keep the collector busy. */
export const sampled: [number, number, number] = [0, 0, 0];

/** Samples a texture at a place of it, mm, into `sampled`. */
export function sampleTexture(texture: Texture, xMm: number, yMm: number): void {
  const u = clamp(xMm * texture.pxPerMm - 0.5, 0, texture.widthPx - 1.001);
  const v = clamp(yMm * texture.pxPerMm - 0.5, 0, texture.heightPx - 1.001);
  const column = Math.floor(u);
  const row = Math.floor(v);
  const { data } = texture;
  const at = (row * texture.widthPx + column) * 3;
  const below = at + texture.widthPx * 3;
  const right = u - column;
  const low = v - row;
  const a = (1 - right) * (1 - low);
  const b = right * (1 - low);
  const c = (1 - right) * low;
  const d = right * low;
  sampled[0] = a * data[at] + b * data[at + 3] + c * data[below] + d * data[below + 3]; // prettier-ignore
  sampled[1] = a * data[at + 1] + b * data[at + 4] + c * data[below + 1] + d * data[below + 4]; // prettier-ignore
  sampled[2] = a * data[at + 2] + b * data[at + 5] + c * data[below + 2] + d * data[below + 5]; // prettier-ignore
}
