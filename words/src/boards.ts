import { MM_PER_INCH } from '@lauta/core/units';
import type { LearnTrouble, LearntBoard } from '@lauta/vision';

const FRACTIONS: Record<string, string> = {
  '0.5': 'half', '0.25': 'quarter', '0.125': 'eighth', '0.0625': 'sixteenth',
}; // prettier-ignore

/** How wide a board is, in the unit of its own ruling. */
export function widthWords(widthMm: number, unit: 'in' | 'cm'): string {
  return unit === 'in'
    ? `${(widthMm / MM_PER_INCH).toFixed(1)} in wide`
    : `${(widthMm / 10).toFixed(1)} cm wide`;
}

/** What a profile says of a board, in a sentence. */
export function rulingWords({
  unit,
  scaleLength,
  widthMm,
  lines,
  numerals,
}: Pick<LearntBoard, 'unit' | 'scaleLength' | 'widthMm' | 'lines' | 'numerals'>): string {
  const word = unit === 'in' ? 'inch' : 'centimetre';
  const stepWords = (every: number): string => {
    const fraction = every === 1 ? '' : FRACTIONS[String(every)];
    if (fraction === undefined) return `every ${every} ${unit}`;
    return fraction === '' ? `every ${word}` : `every ${fraction} ${word}`;
  };
  const rows = numerals.centresAt.length === 1 ? 'one row' : `${numerals.centresAt.length} rows`;
  return `${scaleLength} ${unit} long, ${widthWords(widthMm, unit)}; lines ${lines.map(({ every }) => stepWords(every)).join(', ')}; numerals ${stepWords(numerals.every)}, in ${rows}.`;
}

/** Why no profile came of a photograph, and what to do. */
export const LEARN_TROUBLE_WORDS: Record<LearnTrouble, string> = {
  'too-small': 'The picture is too small to find the lines. Use the camera’s normal size.',
  'marks-unusable':
    'The marks make no two lines seen from above. The lower number lies nearer to the stop; far is the edge away from you.',
  'no-lines':
    'No lines are seen where they are marked. Put each mark on the line itself, as near as the loupe allows.',
  'no-scale':
    'The lines between the marks do not fall on whole steps. Look at the numbers, the unit, and whether each mark lies on its own line.',
  'no-numerals':
    'No numerals can be read beside the lines. They must stand left of their line, upright as seen from the marked near edge; without them no zero can be told.',
};

/** A key out of a name: what a file or an address can hold. */
export function keyOf(name: string): string {
  return name
    .normalize('NFKD')
    .replaceAll(/\p{M}+/gu, '')
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-+|-+$/g, '')
    .slice(0, 40)
    .replace(/-+$/, '');
}
