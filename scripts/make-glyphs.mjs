// Prints the outlines of digits and capitals of a font file: they are kept as vision/data/glyphs.json.
// Run by hand when the plain face should change: node scripts/make-glyphs.mjs FONT.ttf > vision/data/glyphs.json
import { readFileSync } from 'node:fs';
import opentype from 'opentype.js';
import { outlineOf } from './machine/outlines.mjs';

const [fontFile] = process.argv.slice(2);
if (!fontFile) throw new Error('usage: node scripts/make-glyphs.mjs FONT.ttf');
const file = readFileSync(fontFile);
const font = opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength));
const capHeight = font.charToGlyph('H').getBoundingBox().y2;

/** @type {Record<string, { advance: number, contours: number[][] }>} */
const glyphs = {};
for (const letter of '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ')
  glyphs[letter] = outlineOf(font.charToGlyph(letter), capHeight, { decimals: 3, pieces: 5 });
process.stdout.write(
  JSON.stringify({
    source: 'Liberation Sans Bold (SIL Open Font License 1.1); outlines in cap heights, y up',
    glyphs,
  }) + '\n',
);
