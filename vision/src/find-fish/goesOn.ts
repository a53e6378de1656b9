import { cellAt } from '../grid/planeGrid.ts';
import { lumaOf } from '../image/luma.ts';
import type { Coverage } from './coverage.ts';
import type { BareView } from './printedInk.ts';
import type { TailTip } from './tail.ts';

/** How far a tail's own shade is looked for at most, mm. */
const MOST_MM = 150;
/** So much darker or lighter than the bare face, natural logs, is not the face's own grain. */
const SHADE = 0.18;
/** In a column so much must differ, mm across and as a share of the tail's height. */
const LEAST_ACROSS_MM = 3;
const LEAST_SHARE = 0.12;
/** Printed lines and bright rays interrupt it for no longer, mm. */
const GAP_MM = 4;
const DARK = 6;

/**
 * How far beyond a tip something goes on without a break that is darker (or lighter) than the bare face, mm. A tail
 * lies one to three millimetres over the face, so that its own shadow reaches a few millimetres: what goes on farther
 * is another shadow, or the tail itself, whose colour is a shade of the board's.
 */
export function goesOnMm(view: BareView, { face }: Coverage, tip: TailTip, endMm: number): number {
  const acrossMm = tip.edge.map(([, yMm]) => yMm);
  const [fromMm, toMm] = [Math.min(...acrossMm), Math.max(...acrossMm)];
  const stepMm = 1 / view.cellsPerMm;
  let reachedMm = 0;
  for (let offMm = 1; offMm < MOST_MM && tip.xMm + offMm < endMm; offMm += stepMm) {
    const counts = { seen: 0, darker: 0, lighter: 0 };
    for (let yMm = fromMm; yMm <= toMm; yMm += stepMm) {
      const cell = cellAt(view, tip.xMm + offMm, yMm);
      if (!view.inPhoto[cell] || view.bare[cell] === 0) continue;
      const shade = Math.log((lumaIn(view.rgb, cell) + DARK) / (lumaIn(face, cell) + DARK));
      counts.seen++;
      if (shade < -SHADE) counts.darker++;
      if (shade > SHADE) counts.lighter++;
    }
    // Under printed lines nothing is told.
    if (counts.seen < 4) continue;
    const least = Math.max(LEAST_ACROSS_MM * view.cellsPerMm, LEAST_SHARE * counts.seen);
    if (Math.max(counts.darker, counts.lighter) >= least) reachedMm = offMm;
    else if (offMm - reachedMm > GAP_MM) break;
  }
  return reachedMm;
}

function lumaIn(rgb: ArrayLike<number>, cell: number): number {
  return lumaOf(rgb[3 * cell], rgb[3 * cell + 1], rgb[3 * cell + 2]);
}
