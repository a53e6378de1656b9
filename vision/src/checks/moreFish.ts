import { findingOf, type Finding } from '../findings/findings.ts';
import type { Quad } from '../geometry/point.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import { columnStart, rowStart } from '../grid/planeGrid.ts';
import type { Check } from './check.ts';

export const moreFish: Check<'fish'> = {
  ids: ['more-fish'],
  live: null,
  judge: ({ seen, cardsMm }) => [moreFishFinding(seen, cardsMm)],
};

/** A second fish is at least so long and so thick, mm. */
const LEAST_LONG_MM = 105;
const LEAST_THICK_MM = 9;
/** Whether something long lies on the face beside the fish. */
export function moreFishFinding(seen: SeenCatch, cardsMm: readonly Quad[]): Finding {
  const { fish, toPhoto } = seen;
  const { view, pieces, piece } = fish;
  const isCard = (xMm: number, yMm: number): boolean =>
    cardsMm.some((card) => {
      const [xs, ys] = [card.map(([x]) => x), card.map(([, y]) => y)];
      return (
        xMm > Math.min(...xs) - 8 &&
        xMm < Math.max(...xs) + 8 &&
        yMm > Math.min(...ys) - 8 &&
        yMm < Math.max(...ys) + 8
      );
    });
  for (const other of pieces) {
    if (other.label === piece.label) continue;
    const longMm = (other.toColumn - other.fromColumn + 1) / view.cellsPerMm;
    const areaMm2 = other.area / view.cellsPerMm ** 2;
    if (longMm < LEAST_LONG_MM || areaMm2 / longMm < LEAST_THICK_MM) continue;
    const xMm = columnStart(view, (other.fromColumn + other.toColumn) / 2);
    const yMm = rowStart(view, (other.fromRow + other.toRow) / 2);
    if (isCard(xMm, yMm)) continue;
    return findingOf('more-fish', 'look', 0.55, { code: 'long-thing-beside' }, toPhoto(xMm, yMm), {
      value: longMm,
      unit: 'mm',
    });
  }
  return findingOf('more-fish', 'clear', 0.8, { code: 'one-fish' });
}
