import { Matrix, solve } from 'ml-matrix';

/** How blocks of one flank fit on another, each under each shift about the whole's. */
export interface BlockFits {
  /** How far the shifts go along and across, cells. */
  reach: readonly [number, number];
  /** The blocks' middles along and across the flank, −0.5 to 0.5. */
  places: readonly (readonly [number, number])[];
  /** Correlations: blocks, then shifts across, then shifts along; NaN where too little is known. */
  alike: Float64Array;
  /** What the two blocks have at all, in the same order. */
  energy: Float64Array;
}

/** Terms: the whole, and what grows evenly along (stretch, turn) and across (shear). */
const TERMS = 3;
/** What a block that is a cell away from the even shift loses, in correlation, round by round: first each goes its own way. */
const PULLS = [0.005, 0.01, 0.02, 0.04, 0.06] as const;
/**
 * Keeps what grows small where few blocks tell, as shares of the blocks' weight. Our own choice, by simulated pairs: a
 * fish's bow is gone when its flank is straightened, and a freer shift explains other fish as well.
 */
const RIDGE = [0.001, 0.02, 0.02] as const;

/**
 * The even shift by which one flank lies otherwise than the other: least squares through the places where the blocks fit,
 * each drawn towards the shift of the round before.
 * @returns the shift at each block, cells along and across beside the whole's
 */
export function fitEvenShift(fits: BlockFits): (block: number) => readonly [number, number] {
  const { reach, places, alike, energy } = fits;
  const [columns, rows] = [2 * reach[0] + 1, 2 * reach[1] + 1];
  const terms = places.map(([along, across]) => [1, along, across]);
  let even = places.map((): [number, number] => [0, 0]);
  for (const pull of PULLS) {
    const left = Matrix.zeros(TERMS, TERMS);
    const right = Matrix.zeros(TERMS, 2);
    let all = 0;
    for (let i = 0; i < places.length; i++) {
      const [evenX, evenY] = even[i];
      let most = -Infinity;
      let found = -1;
      for (let row = 0; row < rows; row++) {
        const across = (row - reach[1] - evenY) ** 2;
        for (let column = 0; column < columns; column++) {
          const at = (i * rows + row) * columns + column;
          const gain = alike[at] - pull * (across + (column - reach[0] - evenX) ** 2);
          if (gain > most) [most, found] = [gain, at];
        }
      }
      const value = found < 0 ? 0 : alike[found];
      if (value <= 0) continue;
      const weight = value * value * energy[found];
      const dx = (found % columns) - reach[0];
      const dy = (Math.floor(found / columns) % rows) - reach[1];
      const own = terms[i];
      for (let p = 0; p < TERMS; p++) {
        const part = weight * own[p];
        for (let q = 0; q < TERMS; q++) left.set(p, q, left.get(p, q) + part * own[q]);
        right.set(p, 0, right.get(p, 0) + part * dx);
        right.set(p, 1, right.get(p, 1) + part * dy);
      }
      all += weight;
    }
    if (all === 0) break;
    for (let p = 0; p < TERMS; p++) left.set(p, p, left.get(p, p) + RIDGE[p] * all);
    const curve = solve(left, right);
    even = terms.map((own): [number, number] => [
      own.reduce((sum, term, p) => sum + term * curve.get(p, 0), 0),
      own.reduce((sum, term, p) => sum + term * curve.get(p, 1), 0),
    ]);
  }
  return (block) => even[block];
}
