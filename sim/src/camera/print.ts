import fontFile from '../../data/numeral-fonts.json' with { type: 'json' };
import type { Glyph } from '@lauta/vision';
import { rollDice } from './dice.ts';
import { makeNoise } from './noise.ts';
import { mix, smoothstep, type Rgb, type Texture } from './rgb.ts';

/** How a face was printed, and what has become of the print. */
export interface Print {
  /** Of the numerals; null is the plain face that the boards are described with. */
  font: string | null;
  /** The numerals' width, as a share of what the font says. */
  stretch: number;
  /** How far all numerals stand beside their places, mm along and across the scale. */
  asideMm: readonly [number, number];
  /** Share of the ink's colour that light has taken. */
  faded: number;
  /** Share of the face where the ink is rubbed off. */
  worn: number;
  scratches: number;
  /** Stuck onto the face, over print and all, mm of the board. */
  stickers: readonly Sticker[];
  seed: number;
}

export interface Sticker {
  xMm: number;
  yMm: number;
  widthMm: number;
  heightMm: number;
  colour: Rgb;
}

export interface NumeralFont {
  name: string;
  glyphs: Record<string, Glyph>;
}

/** Digits of free fonts as outlines; `scripts/make-numeral-fonts.mjs` makes them. */
export const NUMERAL_FONTS: readonly NumeralFont[] = fontFile.fonts;

/** @throws RangeError where there is no font of that name */
export function numeralFont(name: string): NumeralFont {
  const font = NUMERAL_FONTS.find((one) => one.name === name);
  if (!font) throw new RangeError(`font: unknown ${name}`);
  return font;
}

/** Takes from the inked face what is worn: `bare` is the same face before it was printed. */
export function wearInk(inked: Texture, bare: Float32Array, { faded, worn, seed }: Print): void {
  const noise = makeNoise(seed);
  const { widthPx, heightPx, pxPerMm, data } = inked;
  // Noise is about a half, seldom under 0.2 or over 0.8.
  const edge = 0.2 + 0.6 * worn;
  for (let row = 0; row < heightPx; row++) {
    for (let column = 0; column < widthPx; column++) {
      const [x, y] = [column / pxPerMm, row / pxPerMm];
      const rubbed = worn > 0 ? smoothstep(edge + 0.04, edge - 0.04, noise(x / 34, y / 11)) : 0;
      const gone = Math.max(faded, rubbed);
      const at = 3 * (row * widthPx + column);
      for (let i = at; i < at + 3; i++) data[i] += gone * (bare[i] - data[i]);
    }
  }
}

/** Scratches run along the face, most of them: things are pulled over it. */
export function scratch(texture: Texture, { scratches, seed }: Print, face: Rgb): void {
  const dice = rollDice(seed);
  const [widthMm, heightMm] = [texture.widthPx / texture.pxPerMm, texture.heightPx / texture.pxPerMm];
  for (let i = 0; i < scratches; i++) {
    const turn = dice.normal() * 0.5 + (dice.chance(0.2) ? Math.PI / 2 : 0);
    const colour = mix(face, dice.chance(0.5) ? [20, 20, 20] : [235, 235, 230], dice.between(0.2, 0.8));
    const longMm = dice.between(10, 120);
    const half = dice.between(0.15, 0.5);
    const [x, y] = [dice.next() * widthMm, dice.next() * heightMm];
    for (let s = 0; s < longMm; s += half) {
      const [u, v] = [x + s * Math.cos(turn), y + s * Math.sin(turn) + 0.6 * Math.sin(s / 9)];
      texture.rect(u - half, v - half, u + half, v + half, colour);
    }
  }
}

export function stick(texture: Texture, stickers: readonly Sticker[]): void {
  for (const { xMm, yMm, widthMm, heightMm, colour } of stickers)
    texture.rect(xMm - widthMm / 2, yMm - heightMm / 2, xMm + widthMm / 2, yMm + heightMm / 2, colour);
}
