import { HIDDEN, coarserFlank, type FlankDescriptor } from './describe.ts';
import { isSimilarLength, likenessOf, type KnownFlank, type Likeness } from './likeness.ts';
import { FLANK_COLUMNS, FLANK_ROWS } from './straighten.ts';

/** A fish among those that are compared with. */
export interface IndexedFish extends KnownFlank {
  id: string;
}

export interface Candidate {
  id: string;
  likeness: Likeness;
}

/** A pass over the fish that are left: how coarse the pattern, how it may be shifted, how many go on. */
interface Pass {
  by: number;
  /** Cells of the coarse pattern. */
  shifts: readonly number[];
  rowShifts: readonly number[];
  /** Into how many parts along the fish it is cut, each of which may be shifted otherwise: a fish may be stretched. */
  parts: number;
  /** So many go on; without a number as many as there is time left for. */
  goOn: number | null;
}

/** The numbers: our own choice, by simulated pairs (docs/measured.md). */
const PASSES: readonly Pass[] = [
  { by: 4, shifts: [-2, -1, 0, 1, 2], rowShifts: [-1, 0, 1], parts: 1, goOn: 100 },
  { by: 2, shifts: [-4, -3, -2, -1, 0, 1, 2, 3, 4], rowShifts: [-2, 0, 2], parts: 5, goOn: null },
];

/**
 * What a search may cost, in pairs of cells that are multiplied: a sixth of a second on a machine of 2026. Where few fish
 * are of about one length, more of them are compared in full: what the passes put behind is not lost then.
 */
const WORK = 18e6;
const FULL_WORK = 420_000;
const LEAST_FULL = 8;

function workOf({ by, shifts, rowShifts }: Pass, fish: number): number {
  return (fish * FLANK_COLUMNS * FLANK_ROWS * shifts.length * rowShifts.length) / (by * by);
}

/** Earlier fish, kept so that ten thousand are searched in a fraction of a second. */
export class FlankIndex {
  private readonly fish: IndexedFish[] = [];
  /** The patterns of each pass. */
  private readonly patterns: Int8Array[][] = PASSES.map(() => []);

  get size(): number {
    return this.fish.length;
  }

  add(fish: IndexedFish): void {
    this.fish.push(fish);
    PASSES.forEach(({ by }, pass) => this.patterns[pass]?.push(coarserFlank(fish.flank, by)));
  }

  /** The likeliest of the fish of about this length, best first. */
  search(asked: KnownFlank, most: number, isWanted: (id: string) => boolean = () => true): Candidate[] {
    let left = this.fish.flatMap((fish, at) =>
      isSimilarLength(asked, fish) && isWanted(fish.id) ? [at] : [],
    );
    let work = WORK;
    PASSES.forEach((pass, number) => {
      const after = work - workOf(pass, left.length);
      const goOn = Math.max(pass.goOn ?? Math.max(LEAST_FULL, Math.floor(after / FULL_WORK)), most);
      if (left.length <= goOn) return;
      work = after;
      const own = coarserFlank(asked.flank, pass.by);
      const patterns = this.patterns[number];
      left = left
        .map((at) => ({ at, alike: coarseLikeness(own, patterns[at], pass) }))
        .sort((a, b) => b.alike - a.alike)
        .slice(0, goOn)
        .map(({ at }) => at);
    });
    return left
      .map((at): Candidate => {
        const fish = this.fish[at];
        return { id: fish.id, likeness: likenessOf(asked, fish) };
      })
      .sort((a, b) => b.likeness.logOdds - a.likeness.logOdds)
      .slice(0, most);
  }
}

/** A part counts when both show this share of all cells in it. */
const LEAST_COMMON = 0.015;
/** What a part loses for each cell that it is shifted, squared, where there are several: they are of one fish. */
const SHIFT_COSTS = 0.01;

/** Best correlation of each part over small shifts, of what both show; their mean by what the parts have at all. */
function coarseLikeness(a: FlankDescriptor, b: FlankDescriptor, pass: Pass): number {
  const { by, shifts, rowShifts, parts } = pass;
  const [columns, rows] = [FLANK_COLUMNS / by, FLANK_ROWS / by];
  const least = LEAST_COMMON * columns * rows;
  let [sum, weight] = [0, 0];
  for (let part = 0; part < parts; part++) {
    const [from, to] = [(part * columns) / parts, ((part + 1) * columns) / parts];
    let best = -Infinity;
    let energy = 0;
    for (const dy of rowShifts) {
      const [top, bottom] = [Math.max(0, -dy), Math.min(rows, rows - dy)];
      for (const dx of shifts) {
        const [left, right] = [Math.max(from, -dx), Math.min(to, columns - dx)];
        const shift = dy * columns + dx;
        let n = 0;
        let saa = 0;
        let sbb = 0;
        let sab = 0;
        for (let row = top; row < bottom; row++) {
          const end = row * columns + right;
          for (let i = row * columns + left; i < end; i++) {
            const p = a[i];
            const q = b[i + shift];
            if (p === HIDDEN || q === HIDDEN) continue;
            // Whole numbers throughout: that is several times as quick.
            n = (n + 1) | 0;
            saa = (saa + Math.imul(p, p)) | 0;
            sbb = (sbb + Math.imul(q, q)) | 0;
            sab = (sab + Math.imul(p, q)) | 0;
          }
        }
        if (n < least) continue;
        const both = Math.sqrt((saa + 1) * (sbb + 1));
        const alike = sab / both - (parts > 1 ? SHIFT_COSTS * (dx * dx + dy * dy) : 0);
        if (alike > best) [best, energy] = [alike, both];
      }
    }
    if (best === -Infinity) continue;
    sum += best * energy;
    weight += energy;
  }
  return weight > 0 ? sum / weight : -1;
}
