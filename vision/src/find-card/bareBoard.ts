import type { Pattern } from '../find-board/pattern.ts';
import type { LineEvidence } from '../find-fish/lineEvidence.ts';

const ABOUT_MM = 12;
/** A line piece that is seen this clearly lies bare. */
const SEEN = 0.5;
const MOST_BARE = 0.4;

/** Tells whether the face about a place lies bare: most of the lines that are printed there are seen. */
export function bareBoard(evidence: LineEvidence, pattern: Pattern): (xMm: number, yMm: number) => boolean {
  return (xMm, yMm) => {
    let looked = 0;
    let seen = 0;
    pattern.lines.forEach((line, index) => {
      if (Math.abs(line.xMm - xMm) > ABOUT_MM) return;
      const from = Math.max(0, Math.floor((yMm - ABOUT_MM) / evidence.rowMm));
      const to = Math.min(evidence.rows - 1, Math.floor((yMm + ABOUT_MM) / evidence.rowMm));
      for (let row = from; row <= to; row++) {
        const value = evidence.seen[index * evidence.rows + row];
        if (value < 0) continue;
        looked++;
        if (value > SEEN) seen++;
      }
    });
    return looked >= 4 && seen > MOST_BARE * looked;
  };
}
