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
  goOn: number;
}

const PASSES: readonly Pass[] = [
  { by: 4, shifts: [-2, -1, 0, 1, 2], rowShifts: [-1, 0, 1], goOn: 120 },
  { by: 2, shifts: [-4, -2, 0, 2, 4], rowShifts: [-2, 0, 2], goOn: 16 },
];

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
    PASSES.forEach((pass, number) => {
      const goOn = Math.max(pass.goOn, most);
      if (left.length <= goOn) return;
      const own = coarserFlank(asked.flank, pass.by);
      const patterns = this.patterns[number] as readonly Int8Array[];
      left = left
        .map((at) => ({ at, alike: coarseLikeness(own, patterns[at] as Int8Array, pass) }))
        .sort((a, b) => b.alike - a.alike)
        .slice(0, goOn)
        .map(({ at }) => at);
    });
    return left
      .map((at): Candidate => {
        const fish = this.fish[at] as IndexedFish;
        return { id: fish.id, likeness: likenessOf(asked, fish) };
      })
      .sort((a, b) => b.likeness.score - a.likeness.score)
      .slice(0, most);
  }
}

/** Shares of all cells that both must show, and above which more of them add nothing. */
const LEAST_COMMON = 0.05;
const WIDE_COMMON = 0.3;

/** Best correlation over small shifts, of what both show. */
function coarseLikeness(a: FlankDescriptor, b: FlankDescriptor, { by, shifts, rowShifts }: Pass): number {
  const [columns, rows] = [FLANK_COLUMNS / by, FLANK_ROWS / by];
  let best = -1;
  for (const dy of rowShifts) {
    for (const dx of shifts) {
      let n = 0;
      let saa = 0;
      let sbb = 0;
      let sab = 0;
      const [top, bottom] = [Math.max(0, -dy), Math.min(rows, rows - dy)];
      const [left, right] = [Math.max(0, -dx), Math.min(columns, columns - dx)];
      const shift = dy * columns + dx;
      for (let row = top; row < bottom; row++) {
        const end = row * columns + right;
        for (let i = row * columns + left; i < end; i++) {
          const p = a[i] as number;
          const q = b[i + shift] as number;
          if (p === HIDDEN || q === HIDDEN) continue;
          n++;
          saa += p * p;
          sbb += q * q;
          sab += p * q;
        }
      }
      const share = n / (columns * rows);
      if (share < LEAST_COMMON) continue;
      // What is alike over a wide part counts more than over a small one.
      const alike = (sab / Math.sqrt((saa + 1) * (sbb + 1))) * Math.min(1, Math.sqrt(share / WIDE_COMMON));
      if (alike > best) best = alike;
    }
  }
  return best;
}
