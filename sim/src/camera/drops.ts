import { rollDice } from './dice.ts';
import type { Wet } from './scene.ts';

export interface Drops {
  at: (x: number, y: number) => { nx: number; ny: number; dim: number } | null;
}

/** Round drops strewn over the face, found again by a grid of 10 mm. */
export function layDrops(wet: Wet, lengthMm: number, widthMm: number): Drops {
  const dice = rollDice(wet.seed);
  const grid = new Map<number, { x: number; y: number; r: number }[]>();
  const key = (x: number, y: number): number => Math.floor(x / 10) * 1000 + Math.floor(y / 10);
  for (let i = 0; i < wet.drops; i++) {
    const drop = {
      x: dice.between(0, lengthMm),
      y: dice.between(0, widthMm),
      r: 0.6 + 2.6 * dice.next() ** 3,
    };
    for (const ox of [-drop.r, drop.r])
      for (const oy of [-drop.r, drop.r]) {
        const k = key(drop.x + ox, drop.y + oy);
        const list = grid.get(k) ?? [];
        if (!list.includes(drop)) grid.set(k, [...list, drop]);
      }
  }
  return {
    at: (x, y) => {
      for (const drop of grid.get(key(x, y)) ?? []) {
        const dx = (x - drop.x) / drop.r;
        const dy = (y - drop.y) / drop.r;
        const off = Math.hypot(dx, dy);
        if (off < 1) return { nx: 0.7 * dx, ny: 0.7 * dy, dim: 0.92 - 0.25 * off ** 4 };
      }
      return null;
    },
  };
}
