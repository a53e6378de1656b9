// Prints the outlines of digits and capitals of a font file: they are kept as vision/data/glyphs.json.
// Run by hand when the plain face should change: node scripts/make-glyphs.mjs FONT.ttf > vision/data/glyphs.json
import { readFileSync } from 'node:fs';
import opentype from 'opentype.js';

const [fontFile] = process.argv.slice(2);
if (!fontFile) throw new Error('usage: node scripts/make-glyphs.mjs FONT.ttf');
const file = readFileSync(fontFile);
const font = opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength));
const capHeight = font.charToGlyph('H').getBoundingBox().y2;
const round = (/** @type {number} */ value) => Math.round((value / capHeight) * 1000) / 1000;

/** @type {Record<string, { advance: number, contours: number[][] }>} */
const glyphs = {};
for (const letter of '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ') {
  const glyph = font.charToGlyph(letter);
  /** @type {number[][]} */
  const contours = [];
  /** @type {number[]} */
  let contour = [];
  let [x, y] = [0, 0];
  for (const step of glyph.path.commands) {
    if (step.type === 'M') contour = [round(step.x), round(step.y)];
    else if (step.type === 'L') contour.push(round(step.x), round(step.y));
    else if (step.type === 'Q') {
      for (let i = 1; i <= 5; i++) {
        const t = i / 5;
        const at = (/** @type {number} */ a, /** @type {number} */ b, /** @type {number} */ c) =>
          (1 - t) ** 2 * a + 2 * t * (1 - t) * b + t * t * c;
        contour.push(round(at(x, step.x1, step.x)), round(at(y, step.y1, step.y)));
      }
    } else if (step.type === 'Z') contours.push(contour);
    if (step.type !== 'Z') [x, y] = [step.x, step.y];
  }
  glyphs[letter] = { advance: round(glyph.advanceWidth ?? 0), contours };
}
process.stdout.write(
  JSON.stringify({
    source: 'Liberation Sans Bold (SIL Open Font License 1.1); outlines in cap heights, y up',
    glyphs,
  }) + '\n',
);
