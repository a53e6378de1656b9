import { rgbOfHex, type Pattern } from '../find-board/pattern.ts';
import { medianOf } from '../image/median.ts';
import { chromaOf, type CardView } from './cardView.ts';
import { columnMiddle, rowMiddle } from '../grid/planeGrid.ts';

/** Fewer bare cells of the face tell nothing of the light. */
const LEAST_CELLS = 40;
/** Of the face each so-manieth cell both ways is enough. */
const STEP = 4;
/** No light that a camera lets through so unevenly is believed. */
const MOST_GAIN = 1.8;
/** Mirrored sky makes a coloured face paler than its profile says: so much of the gain is tried. */
const SHARES = [0.5, 1];
/** Haze and mirrored sky change a dark face more than the light does: brightness (0-255) from which a face is believed. */
const LIGHT_FACE = 110;
const MOST_GAIN_DARK = 1.2;

/**
 * The view with its chroma as in white light: the bare face's colour is known from its profile, so what it differs by is
 * the light, or the camera's balance (von Kries 1902: a gain for each channel). A card is white in any light; what is white
 * as the picture shows it stays so.
 */
export function inWhiteLight(
  view: CardView,
  pattern: Pattern,
  isBare: (xMm: number, yMm: number) => boolean,
): CardView {
  const gains = gainsOf(view, pattern, isBare);
  if (!gains) return view;
  const [red, blue] = gains;
  const chroma = view.chroma.slice();
  for (const share of SHARES) {
    const [r, b] = [red ** share, blue ** share];
    for (let i = 0; i < chroma.length; i++) {
      const so = chromaOf(r * view.rgb[3 * i], view.rgb[3 * i + 1], b * view.rgb[3 * i + 2]); // prettier-ignore
      if (so < chroma[i]) chroma[i] = so;
    }
  }
  return { ...view, chroma };
}

function gainsOf(
  view: CardView,
  { board, lengthMm, widthMm }: Pattern,
  isBare: (xMm: number, yMm: number) => boolean,
): [number, number] | null {
  const seen: [number[], number[], number[]] = [[], [], []];
  const { columns, rows, rgb, inPhoto } = view;
  for (let row = 0; row < rows; row += STEP) {
    const yMm = rowMiddle(view, row);
    if (yMm < 0 || yMm > widthMm) continue;
    for (let column = 0; column < columns; column += STEP) {
      const xMm = columnMiddle(view, column);
      const i = row * columns + column;
      if (xMm < 0 || xMm > lengthMm || !inPhoto[i] || !isBare(xMm, yMm)) continue;
      for (const channel of [0, 1, 2] as const) seen[channel].push(rgb[3 * i + channel]);
    }
  }
  if (seen[0].length < LEAST_CELLS) return null;
  // Most of a face is bare of ink.
  const face = rgbOfHex(board.face);
  const ratios = face.map((value, channel) => (value + 4) / (medianOf(seen[channel]) + 4));
  const most = Math.min(...face) > LIGHT_FACE ? MOST_GAIN : MOST_GAIN_DARK;
  const of = (channel: 0 | 1 | 2): number => Math.min(most, Math.max(1 / most, ratios[channel] / ratios[1]));
  return [of(0), of(2)];
}
