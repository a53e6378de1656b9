import { rollDice } from './dice.ts';

const SIDE = 256;

/** Smooth random heights in [0, 1] over a plane that repeats every 256 units, summed over octaves. */
export function makeNoise(seed: number): (x: number, y: number) => number {
  const dice = rollDice(seed);
  const lattice = Float32Array.from({ length: SIDE * SIDE }, () => dice.next());
  const at = (x: number, y: number): number => lattice[(y & (SIDE - 1)) * SIDE + (x & (SIDE - 1))] as number;
  const smooth = (x: number, y: number): number => {
    const x0 = Math.floor(x);
    const y0 = Math.floor(y);
    const fx = x - x0;
    const fy = y - y0;
    const u = fx * fx * (3 - 2 * fx);
    const v = fy * fy * (3 - 2 * fy);
    const top = at(x0, y0) * (1 - u) + at(x0 + 1, y0) * u;
    const bottom = at(x0, y0 + 1) * (1 - u) + at(x0 + 1, y0 + 1) * u;
    return top * (1 - v) + bottom * v;
  };
  return (x, y) =>
    (smooth(x, y) * 4 + smooth(2 * x + 37, 2 * y + 11) * 2 + smooth(4 * x + 5, 4 * y + 71)) / 7;
}
