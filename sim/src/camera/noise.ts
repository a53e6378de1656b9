import { rollDice } from './dice.ts';

const SIDE = 256;

/** Smooth random heights in [0, 1] over a plane that repeats every 256 units, summed over octaves. */
export function makeNoise(seed: number): (x: number, y: number) => number {
  const dice = rollDice(seed);
  const lattice = Float32Array.from({ length: SIDE * SIDE }, () => dice.next());
  return (x, y) =>
    (smoothAt(lattice, x, y) * 4 +
      smoothAt(lattice, 2 * x + 37, 2 * y + 11) * 2 +
      smoothAt(lattice, 4 * x + 5, 4 * y + 71)) /
    7;
}

/** Without closures and calls: a picture asks some ten million times. */
function smoothAt(lattice: Float32Array, x: number, y: number): number {
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const fx = x - x0;
  const fy = y - y0;
  const u = fx * fx * (3 - 2 * fx);
  const v = fy * fy * (3 - 2 * fy);
  const left = x0 & (SIDE - 1);
  const right = (x0 + 1) & (SIDE - 1);
  const above = (y0 & (SIDE - 1)) * SIDE;
  const below = ((y0 + 1) & (SIDE - 1)) * SIDE;
  const a = lattice[above + left];
  const c = lattice[below + left];
  const top = a + (lattice[above + right] - a) * u;
  return top + (c + (lattice[below + right] - c) * u - top) * v;
}
