import { HIDDEN, type FlankDescriptor } from './describe.ts';
import { likenessOf, type KnownFlank, type Likeness } from './likeness.ts';
import { FLANK_COLUMNS, FLANK_ROWS } from './straighten.ts';

/** A fish among those that are compared with. */
export interface IndexedFish extends KnownFlank {
  id: string;
}

export interface Candidate {
  id: string;
  likeness: Likeness;
}

/** Cells of the coarse pattern by which most are passed over. */
const BY = 4;
const COLUMNS = FLANK_COLUMNS / BY;
const ROWS = FLANK_ROWS / BY;
const SHIFTS = [-2, -1, 0, 1, 2];
const ROW_SHIFTS = [-1, 0, 1];
const FIRST_SHIFTS = [0];
const LOOKED_AT_AGAIN = 400;
/** Lengths farther apart than this share are not compared. */
const LENGTH_SPAN = 0.08;
/** So many of the likeliest are compared in full. */
const COMPARED = 12;

interface Coarse {
  pattern: Int8Array;
  known: Uint8Array;
}

/** Earlier fish, kept so that ten thousand are searched in a fraction of a second. */
export class FlankIndex {
  private readonly fish: IndexedFish[] = [];
  private readonly coarse: Coarse[] = [];

  get size(): number {
    return this.fish.length;
  }

  add(fish: IndexedFish): void {
    this.fish.push(fish);
    this.coarse.push(coarsen(fish.flank));
  }

  /** The likeliest of the fish of about this length, best first. */
  search(asked: KnownFlank, most: number, isWanted: (id: string) => boolean = () => true): Candidate[] {
    const own = coarsen(asked.flank);
    const near: { at: number; alike: number }[] = [];
    this.fish.forEach((fish, at) => {
      if (Math.abs(fish.lengthMm / asked.lengthMm - 1) > LENGTH_SPAN || !isWanted(fish.id)) return;
      near.push({ at, alike: coarseLikeness(own, this.coarse[at] as Coarse, FIRST_SHIFTS, FIRST_SHIFTS) });
    });
    near.sort((a, b) => b.alike - a.alike);
    // The first look allows hardly any shift: the likeliest get a second one.
    const again = near.slice(0, LOOKED_AT_AGAIN).map(({ at }) => ({
      at,
      alike: coarseLikeness(own, this.coarse[at] as Coarse, SHIFTS, ROW_SHIFTS),
    }));
    again.sort((a, b) => b.alike - a.alike);
    return again
      .slice(0, Math.max(COMPARED, most))
      .map(({ at }): Candidate => {
        const fish = this.fish[at] as IndexedFish;
        return { id: fish.id, likeness: likenessOf(asked, fish) };
      })
      .sort((a, b) => b.likeness.score - a.likeness.score)
      .slice(0, most);
  }
}

function coarsen(flank: FlankDescriptor): Coarse {
  const pattern = new Int8Array(COLUMNS * ROWS);
  const known = new Uint8Array(COLUMNS * ROWS);
  for (let row = 0; row < ROWS; row++) {
    for (let column = 0; column < COLUMNS; column++) {
      let [sum, count] = [0, 0];
      for (let r = 0; r < BY; r++) {
        for (let c = 0; c < BY; c++) {
          const value = flank[(row * BY + r) * FLANK_COLUMNS + column * BY + c] as number;
          if (value === HIDDEN) continue;
          sum += value;
          count++;
        }
      }
      if (count < (BY * BY) / 2) continue;
      pattern[row * COLUMNS + column] = Math.round(sum / count);
      known[row * COLUMNS + column] = 1;
    }
  }
  return { pattern, known };
}

/** Best correlation over small shifts, of what both show. */
function coarseLikeness(
  a: Coarse,
  b: Coarse,
  shifts: readonly number[],
  rowShifts: readonly number[],
): number {
  let best = -1;
  for (const dy of rowShifts) {
    for (const dx of shifts) {
      let [n, saa, sbb, sab] = [0, 0, 0, 0];
      for (let row = Math.max(0, -dy); row < Math.min(ROWS, ROWS - dy); row++) {
        for (let column = Math.max(0, -dx); column < Math.min(COLUMNS, COLUMNS - dx); column++) {
          const i = row * COLUMNS + column;
          const j = i + dy * COLUMNS + dx;
          if (!(a.known[i] && b.known[j])) continue;
          const p = a.pattern[i] as number;
          const q = b.pattern[j] as number;
          n++;
          saa += p * p;
          sbb += q * q;
          sab += p * q;
        }
      }
      if (n < LEAST_COMMON) continue;
      // What is alike over a wide part counts more than over a small one.
      best = Math.max(
        best,
        (sab / Math.sqrt((saa + 1) * (sbb + 1))) * Math.min(1, Math.sqrt(n / WIDE_COMMON)),
      );
    }
  }
  return best;
}

const LEAST_COMMON = 30;
const WIDE_COMMON = 140;
