// Prints the digits of many free fonts as outlines: they are kept as sim/data/numeral-fonts.json, from which simulated
// boards are printed. Run by hand: node scripts/make-numeral-fonts.mjs > sim/data/numeral-fonts.json
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import opentype from 'opentype.js';
import { outlineOf } from './machine/outlines.mjs';

/** Package and weights of each. */
const FONTS = {
  'alfa-slab-one': [400], anton: [400], 'archivo-black': [400], arvo: [400, 700], barlow: [500, 800],
  'barlow-condensed': [500, 700], 'bebas-neue': [400], 'big-shoulders-display': [600], bitter: [600],
  'black-ops-one': [400], bungee: [400], 'chakra-petch': [500], comfortaa: [600], 'courier-prime': [400, 700],
  dosis: [500], 'exo-2': [500, 800], 'fira-sans-condensed': [500], 'fjalla-one': [400], 'ibm-plex-mono': [500],
  'jetbrains-mono': [500], lato: [400, 900], montserrat: [500, 800], 'noto-sans': [400, 700], nunito: [600],
  'open-sans': [400, 700], oswald: [400, 600], 'passion-one': [400], 'patrick-hand': [400],
  'pt-sans': [400, 700], quantico: [400], quicksand: [600], rajdhani: [600], roboto: [400, 700], 'roboto-slab': [400, 700],
  'russo-one': [400], 'saira-extra-condensed': [600], 'saira-stencil-one': [400], 'share-tech-mono': [400],
  'source-sans-3': [600], 'space-mono': [400], 'stardos-stencil': [400], teko: [500], 'titillium-web': [600],
  ubuntu: [500], 'varela-round': [400],
}; // prettier-ignore

const dir = mkdtempSync(join(tmpdir(), 'lauta-fonts-'));
try {
  const packages = Object.keys(FONTS).map((name) => `@fontsource/${name}@5`);
  execFileSync(
    'npm',
    ['install', '--prefix', dir, '--no-save', '--ignore-scripts', '--no-audit', '--no-fund', ...packages],
    { stdio: ['ignore', 'ignore', 'inherit'] },
  );
  const fonts = Object.entries(FONTS).flatMap(([name, weights]) => {
    const home = join(dir, 'node_modules/@fontsource', name);
    const { version, license } = JSON.parse(readFileSync(join(home, 'package.json'), 'utf8'));
    return weights.map((weight) => {
      const [file] = readdirSync(join(home, 'files')).filter((one) =>
        one.endsWith(`-latin-${weight}-normal.woff`),
      );
      if (!file) throw new Error(`${name}: no weight ${weight}`);
      const bytes = readFileSync(join(home, 'files', file));
      const font = opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
      // As high as the board says: some fonts have digits lower than capitals.
      const height = font.charToGlyph('1').getBoundingBox().y2;
      const glyphs = Object.fromEntries(
        [...'0123456789'].map((digit) => [
          digit,
          outlineOf(font.charToGlyph(digit), height, { decimals: 2, pieces: 3 }),
        ]),
      );
      return {
        name: `${name}-${weight}`,
        source: `@fontsource/${name} ${version}`,
        licence: license,
        glyphs,
      };
    });
  });
  process.stdout.write(JSON.stringify({ fonts }) + '\n');
} finally {
  rmSync(dir, { recursive: true });
}
