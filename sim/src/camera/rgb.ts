import { crossingsAt, glyphOf, type Glyph } from '@lauta/vision';

export type Rgb = readonly [number, number, number];

export function hexRgb(hex: string): Rgb {
  const value = Number.parseInt(hex.slice(1), 16);
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255];
}

export function mix(a: Rgb, b: Rgb, share: number): Rgb {
  return [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share, a[2] + (b[2] - a[2]) * share];
}

export const clamp = (value: number, low: number, high: number): number =>
  value < low ? low : value > high ? high : value;

export function smoothstep(from: number, to: number, value: number): number {
  const t = clamp((value - from) / (to - from), 0, 1);
  return t * t * (3 - 2 * t);
}

/** How text is drawn. */
export interface Lettering {
  glyphOf: (letter: string) => Glyph;
  /** The letters' width, as a share of their own. */
  narrow: number;
}

/** A flat picture in mm: colours 0-255 as floats, three a cell. */
export class Texture {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly data: Float32Array;
  readonly pxPerMm: number;

  constructor(widthMm: number, heightMm: number, pxPerMm: number) {
    this.pxPerMm = pxPerMm;
    this.widthPx = Math.ceil(widthMm * pxPerMm);
    this.heightPx = Math.ceil(heightMm * pxPerMm);
    this.data = new Float32Array(this.widthPx * this.heightPx * 3);
  }

  fill(colourAt: (xMm: number, yMm: number) => Rgb): void {
    let at = 0;
    for (let row = 0; row < this.heightPx; row++) {
      for (let column = 0; column < this.widthPx; column++) {
        const colour = colourAt((column + 0.5) / this.pxPerMm, (row + 0.5) / this.pxPerMm);
        this.data[at++] = colour[0];
        this.data[at++] = colour[1];
        this.data[at++] = colour[2];
      }
    }
  }

  /** Paints a rectangle; its edges cover cells in part. */
  rect(x0Mm: number, y0Mm: number, x1Mm: number, y1Mm: number, colour: Rgb): void {
    const scale = this.pxPerMm;
    const [x0, y0, x1, y1] = [x0Mm * scale, y0Mm * scale, x1Mm * scale, y1Mm * scale];
    for (let row = Math.max(0, Math.floor(y0)); row < Math.min(this.heightPx, Math.ceil(y1)); row++) {
      const high = Math.min(y1, row + 1) - Math.max(y0, row);
      for (
        let column = Math.max(0, Math.floor(x0));
        column < Math.min(this.widthPx, Math.ceil(x1));
        column++
      ) {
        this.blend(column, row, colour, high * (Math.min(x1, column + 1) - Math.max(x0, column)));
      }
    }
  }

  /** Paints text whose baseline runs from (xMm, yMm) to the right, capitals `heightMm` tall, in other letters or narrowed. */
  text(
    text: string,
    xMm: number,
    yMm: number,
    heightMm: number,
    colour: Rgb,
    lettering: Partial<Lettering> = {},
  ): void {
    const { glyphOf: shapeOf = glyphOf, narrow = 1 } = lettering;
    let penMm = xMm;
    for (const letter of text) {
      const glyph = shapeOf(letter);
      this.glyph(glyph.contours, penMm, yMm, heightMm, narrow, colour);
      penMm += glyph.advance * heightMm * narrow;
    }
  }

  private glyph(
    contours: readonly (readonly number[])[],
    xMm: number,
    yMm: number,
    heightMm: number,
    narrow: number,
    colour: Rgb,
  ): void {
    const scale = this.pxPerMm;
    const lines = 4;
    const outline = contours.map((contour) =>
      contour.map((value, i) =>
        i % 2 === 0 ? (xMm + value * heightMm * narrow) * scale : (yMm - value * heightMm) * scale,
      ),
    );
    const places = outline.flatMap((contour) => contour.filter((_, i) => i % 2 === 0));
    const left = Math.max(0, Math.floor(Math.min(...places)));
    const right = Math.min(this.widthPx, Math.ceil(Math.max(...places)));
    const cover = new Float32Array(this.widthPx);
    const top = Math.floor((yMm - heightMm * 1.05) * scale);
    const bottom = Math.ceil((yMm + heightMm * 0.1) * scale);
    for (let row = Math.max(0, top); row < Math.min(this.heightPx, bottom); row++) {
      cover.fill(0);
      for (let line = 0; line < lines; line++) {
        const crossings = crossingsAt(outline, row + (line + 0.5) / lines);
        for (let i = 0; i + 1 < crossings.length; i += 2) {
          const from = crossings[i];
          const to = crossings[i + 1];
          for (let column = Math.floor(from); column < Math.ceil(to); column++) {
            const part = Math.min(to, column + 1) - Math.max(from, column);
            if (column >= 0 && column < this.widthPx) cover[column] = cover[column] + part / lines;
          }
        }
      }
      for (let column = left; column < right; column++) {
        const share = cover[column];
        if (share > 0) this.blend(column, row, colour, Math.min(1, share));
      }
    }
  }

  private blend(column: number, row: number, colour: Rgb, share: number): void {
    const at = (row * this.widthPx + column) * 3;
    for (let channel = 0; channel < 3; channel++) {
      const under = this.data[at + channel];
      this.data[at + channel] = under + (colour[channel] - under) * share;
    }
  }
}
