import {
  boardLines,
  boardNumerals,
  faceLengthMm,
  glyphOf,
  mmPerUnit,
  type Glyph,
  type MeasuringBoard,
} from '@lauta/vision';
import { makeNoise } from './noise.ts';
import { numeralFont, scratch, stick, wearInk, type Print } from './print.ts';
import { Texture, hexRgb, mix } from './rgb.ts';

/** The ruled face as it lies there: its material, its print, and what has become of both. */
export function paintBoard(
  board: MeasuringBoard,
  seed: number,
  wornBy = 1,
  print: Print | null = null,
): Texture {
  const texture = paintFace(board, seed, wornBy);
  const bare = print ? texture.data.slice() : null;
  printOn(texture, board, print);
  if (!print || !bare) return texture;
  wearInk(texture, bare, print);
  scratch(texture, print, hexRgb(board.face));
  stick(texture, print.stickers);
  return texture;
}

/** The face before it is printed; `wornBy` 1 is a little worn, more is dirt. */
function paintFace(board: MeasuringBoard, seed: number, wornBy: number): Texture {
  const texture = new Texture(faceLengthMm(board), board.widthMm, 3);
  const face = hexRgb(board.face);
  const noise = makeNoise(seed);
  // Wear and dirt change over centimetres: a value each four texels, and what lies between by straight lines.
  const wearAt = coarse(texture, (x, y) => noise(x / 40, y / 40) - 0.5);
  const dirtAt =
    wornBy > 1
      ? coarse(texture, (x, y) => Math.max(0, noise(x / 90 + 31, y / 60 + 7) - 0.55) * (wornBy - 1))
      : null;
  const { widthPx, heightPx, pxPerMm, data } = texture;
  for (let row = 0, at = 0; row < heightPx; row++) {
    for (let column = 0; column < widthPx; column++, at += 3) {
      const wear = wearAt(column, row);
      const grain = noise((column + 0.5) / pxPerMm / 3, (row + 0.5) / pxPerMm / 3) - 0.5;
      const light = 1 + 0.09 * wornBy * wear + 0.04 * grain - (dirtAt ? dirtAt(column, row) : 0);
      data[at] = face[0] * light;
      data[at + 1] = face[1] * light;
      data[at + 2] = face[2] * light * (1 - 0.03 * wear);
    }
  }
  return texture;
}

function printOn(texture: Texture, board: MeasuringBoard, print: Print | null): void {
  const colour = mix(hexRgb(board.ink), hexRgb(board.face), 0.06);
  for (const { xMm, strokeMm, spans } of boardLines(board)) {
    for (const [from = 0, to = 1] of spans) {
      texture.rect(xMm - strokeMm / 2, from * board.widthMm, xMm + strokeMm / 2, to * board.widthMm, colour);
    }
  }
  const glyphOf = glyphsOf(print);
  const [alongMm, acrossMm] = print?.asideMm ?? [0, 0];
  for (const { text, rightMm, centreYMm, heightMm } of boardNumerals(board)) {
    const narrow = print
      ? print.stretch * Math.min(1, roomMm(board) / advanceMm(text, heightMm, glyphOf))
      : 1;
    const leftMm = rightMm - narrow * advanceMm(text, heightMm, glyphOf);
    texture.text(text, leftMm + alongMm, centreYMm + heightMm / 2 + acrossMm, heightMm, colour, {
      glyphOf,
      narrow,
    });
  }
}

/** Room for a numeral: up to the one before it, mm. */
function roomMm(board: MeasuringBoard): number {
  return board.numerals.every * mmPerUnit(board) - 3;
}

function advanceMm(text: string, heightMm: number, glyphOf: (letter: string) => Glyph): number {
  return [...text].reduce((sum, letter) => sum + glyphOf(letter).advance * heightMm, 0);
}

function glyphsOf(print: Print | null): (letter: string) => Glyph {
  if (!print?.font) return glyphOf;
  const { glyphs } = numeralFont(print.font);
  // A half inch has a point, which is taken from the plain face.
  return (letter) => glyphs[letter] ?? glyphOf(letter);
}

const COARSE = 4;

/** A smooth value of each texel, worked out at each fourth both ways. */
function coarse(
  { widthPx, heightPx, pxPerMm }: Texture,
  valueAt: (xMm: number, yMm: number) => number,
): (column: number, row: number) => number {
  const columns = Math.ceil(widthPx / COARSE) + 1;
  const rows = Math.ceil(heightPx / COARSE) + 1;
  const values = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      values[row * columns + column] = valueAt(
        (column * COARSE + 0.5) / pxPerMm,
        (row * COARSE + 0.5) / pxPerMm,
      );
  return (column, row) => {
    const at = ((row / COARSE) | 0) * columns + ((column / COARSE) | 0);
    const right = (column % COARSE) / COARSE;
    const low = (row % COARSE) / COARSE;
    const above = values[at] + (values[at + 1] - values[at]) * right;
    const below = at + columns;
    return above + (values[below] + (values[below + 1] - values[below]) * right - above) * low;
  };
}
