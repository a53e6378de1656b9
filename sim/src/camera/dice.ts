import { seededDice } from '@lauta/core/dice';

/** Seeded dice: the same seed gives the same scene on every machine. */
export interface Dice {
  /** Uniform in [0, 1). */
  next(): number;
  between(low: number, high: number): number;
  whole(low: number, high: number): number;
  chance(share: number): boolean;
  pick<T>(items: readonly T[]): T;
  /** Normal with mean 0 and standard deviation 1 (Box-Muller). */
  normal(): number;
}

export function rollDice(seed: number): Dice {
  const next = seededDice(seed);
  return {
    next,
    between: (low, high) => low + (high - low) * next(),
    whole: (low, high) => low + Math.floor((high - low + 1) * next()),
    chance: (share) => next() < share,
    pick: (items) => {
      const item = items[Math.floor(next() * items.length)];
      if (item === undefined) throw new RangeError('items: expected one or more, got none');
      return item;
    },
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
  };
}

/** A seed of its own for each named part, so that a change to one part leaves the others as they were. */
export function seedFor(seed: number, part: string): number {
  let hash = (seed ^ 0x9e3779b9) >>> 0;
  for (const letter of part) hash = Math.imul(hash ^ letter.charCodeAt(0), 0x01000193) >>> 0;
  return hash;
}
