import { seededDice } from '@lauta/core/dice';
import { describe, expect, it } from 'vitest';
import { shiftBetween } from './track.ts';
import { smoothTones, type Tones } from './tones.ts';

const WIDTH = 480;
const HEIGHT = 360;

/** A picture by a brightness for each place; a hand that moved by (dx, dy) sees the same places elsewhere. */
function picture(at: (x: number, y: number) => number, dx = 0, dy = 0): Tones {
  const data = new Float32Array(WIDTH * HEIGHT);
  for (let y = 0; y < HEIGHT; y++) for (let x = 0; x < WIDTH; x++) data[y * WIDTH + x] = at(x - dx, y - dy);
  return smoothTones({ widthPx: WIDTH, heightPx: HEIGHT, data });
}

const BLOTCH_PX = 14;
const COLUMNS = 80;

/** Blotches without an order, as ground has them. */
function ground(seed: number): (x: number, y: number) => number {
  const dice = seededDice(seed);
  const values = Array.from({ length: COLUMNS * COLUMNS }, () => dice());
  return (x, y) => {
    const column = Math.floor(x / BLOTCH_PX) + 20;
    const row = Math.floor(y / BLOTCH_PX) + 20;
    return values[row * COLUMNS + column] ?? 0.5;
  };
}

/** A ruled face: a line every few px, all alike, between two ends. */
function ruled(everyPx: number): (x: number, y: number) => number {
  return (x, y) => {
    const isFace = x > 60 && x < 400 && y > 130 && y < 240;
    return isFace && ((x % everyPx) + everyPx) % everyPx < 2 ? 0.2 : isFace ? 1 : 0.5;
  };
}

const MOVES = [[0, 0], [1, -1], [5, 3], [-9, 7], [14, -11], [-16, 0]] as const; // prettier-ignore

describe('how far a picture moved', () => {
  it.each(MOVES)('is found on plain ground: %i, %i px', (dx, dy) => {
    const at = ground(3);
    expect(shiftBetween(picture(at), picture(at, dx, dy))).toEqual([dx, dy]);
  });

  // Lines of almost the coarse samples' distance (6 px) beat with them if they are not smoothed first.
  it.each([5, 6.35, 6.7, 7.3, 12].flatMap((every) => MOVES.map(([dx, dy]) => [every, dx, dy] as const)))(
    'is found on lines every %f px, which look alike: %i, %i px',
    (every, dx, dy) => {
      const [sx, sy] = shiftBetween(picture(ruled(every)), picture(ruled(every), dx, dy));
      expect(Math.abs(sx - dx)).toBeLessThanOrEqual(1);
      expect(Math.abs(sy - dy)).toBeLessThanOrEqual(1);
    },
  );

  it('is the same there and back', () => {
    const at = ground(8);
    const [before, after] = [picture(at), picture(at, 11, -6)];
    expect(shiftBetween(before, after)).toEqual([11, -6]);
    expect(shiftBetween(after, before)).toEqual([-11, 6]);
  });
});
