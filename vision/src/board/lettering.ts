import glyphFile from '../../data/glyphs.json' with { type: 'json' };

/** A letter's outline as closed polygons (x0, y0, x1, y1, …) in cap heights, y up from the baseline. */
export interface Glyph {
  advance: number;
  contours: readonly (readonly number[])[];
}

const GLYPHS = glyphFile.glyphs as Record<string, Glyph>;

export function glyphOf(letter: string): Glyph {
  const glyph = GLYPHS[letter];
  if (!glyph) throw new RangeError(`letter: expected 0-9 or A-Z, got ${JSON.stringify(letter)}`);
  return glyph;
}

/** Width of a text whose capitals are `heightMm` tall, mm. */
export function textWidthMm(text: string, heightMm: number): number {
  return [...text].reduce((sum, letter) => sum + glyphOf(letter).advance * heightMm, 0);
}

/** Where a horizontal line crosses polygons, from left to right: in at even places, out at odd ones. */
export function crossingsAt(outline: readonly (readonly number[])[], y: number): number[] {
  const crossings: number[] = [];
  for (const contour of outline) {
    const count = contour.length;
    for (let i = 0; i < count; i += 2) {
      const x0 = contour[i];
      const y0 = contour[i + 1];
      const x1 = contour[(i + 2) % count];
      const y1 = contour[(i + 3) % count];
      if (y0 <= y !== y1 <= y) crossings.push(x0 + ((y - y0) * (x1 - x0)) / (y1 - y0));
    }
  }
  return crossings.sort((a, b) => a - b);
}
