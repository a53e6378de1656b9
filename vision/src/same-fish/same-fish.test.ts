import { seededDice } from '@lauta/core/dice';
import { describe, expect, it } from 'vitest';
import { standsApart } from './compare.ts';
import { coarserFlank } from './describe.ts';
import { isSimilarLength } from './likeness.ts';
import {
  FLANK_COLUMNS,
  FLANK_ROWS,
  FlankIndex,
  HIDDEN,
  compareFlanks,
  describeFlank,
  flankPattern,
  flankPlace,
  keepFlank,
  likenessOf,
  type Flank,
  type FlankDescriptor,
  type FlankFrame,
} from './index.ts';

const FRAME: FlankFrame = {
  columns: FLANK_COLUMNS / 8 + 1,
  rows: FLANK_ROWS / 8 + 1,
  px: Array.from({ length: (FLANK_COLUMNS / 8 + 1) * (FLANK_ROWS / 8 + 1) }, (_, i) => {
    const column = i % (FLANK_COLUMNS / 8 + 1);
    const row = Math.floor(i / (FLANK_COLUMNS / 8 + 1));
    return [100 + 16 * column, 300 + 16 * row] as const;
  }),
};

interface Look {
  /** How far the whole lies otherwise, cells. */
  dx?: number;
  dy?: number;
  /** How much further across it lies at both ends than in the middle, and along at the tail than at the head, cells. */
  bow?: number;
  stretch?: number;
  /** Light that falls off along the fish, logs. */
  slope?: number;
  contrast?: number;
  noise?: number;
  /** Columns that a hand hides. */
  hand?: readonly [number, number];
}

/** A flank of random blotches: each seed is an individual. */
function flankOf(individual: number, look: Look = {}): Flank {
  const { dx = 0, dy = 0, bow = 0, stretch = 0, slope = 0, contrast = 1, noise = 0, hand } = look;
  const dice = seededDice(individual);
  const blotches = Array.from({ length: 70 }, () => ({
    x: dice() * FLANK_COLUMNS,
    y: dice() * FLANK_ROWS,
    r: 2 + 4 * dice(),
    dark: 0.3 + 0.5 * dice(),
  }));
  const grain = seededDice(individual * 7 + 1 + dx);
  const light = new Float32Array(FLANK_COLUMNS * FLANK_ROWS);
  for (let row = 0; row < FLANK_ROWS; row++) {
    for (let column = 0; column < FLANK_COLUMNS; column++) {
      const along = column / FLANK_COLUMNS - 0.5;
      const [x, y] = [column - dx - stretch * along, row - dy - 4 * bow * along * along];
      let value = 4.4 + 0.02 * (row - FLANK_ROWS / 2) + (slope * column) / FLANK_COLUMNS;
      for (const blotch of blotches)
        if (Math.hypot(x - blotch.x, (y - blotch.y) * 1.2) < blotch.r) value -= contrast * blotch.dark;
      value += noise * (grain() + grain() - 1);
      light[row * FLANK_COLUMNS + column] = hand && column >= hand[0] && column < hand[1] ? NaN : value;
    }
  }
  return { light, frame: FRAME };
}

const described = (individual: number, look: Look = {}): FlankDescriptor =>
  describeFlank(flankOf(individual, look));

describe('a flank’s pattern', () => {
  it('is the same in other light, in other contrast and under noise', () => {
    const plain = described(1);
    for (const look of [{ slope: 1.2 }, { contrast: 0.6 }, { noise: 0.08 }])
      expect(compareFlanks(plain, described(1, look))?.alike).toBeGreaterThan(0.85);
  });

  it('is found again where the fish lies otherwise, and says by how much', () => {
    const match = compareFlanks(described(2), described(2, { dx: 6, dy: -3, noise: 0.05 }));
    expect(match?.alike).toBeGreaterThan(0.8);
    const offs = (match?.places ?? []).slice(0, 10).map(({ from, to }) => [to[0] - from[0], to[1] - from[1]]);
    for (const [x, y] of offs) {
      expect(Math.abs((x ?? NaN) - 6)).toBeLessThanOrEqual(1);
      expect(Math.abs((y ?? NaN) + 3)).toBeLessThanOrEqual(1);
    }
  });

  it('agrees with itself on one even shift, stretched and a little bowed too; another fish does not', () => {
    const fish = described(2);
    for (const look of [{ bow: 1 }, { stretch: 4 }, { bow: -1, stretch: -3, dx: 3, noise: 0.2 }]) {
      const match = compareFlanks(fish, described(2, look));
      expect(match?.agreeing, JSON.stringify(look)).toBeGreaterThan(0.8);
      expect(match?.alike, JSON.stringify(look)).toBeGreaterThan(0.6);
    }
    for (let other = 11; other < 31; other++)
      expect(compareFlanks(fish, described(other))?.agreeing).toBeLessThan(0.6);
  });

  it('leaves out what a hand hides', () => {
    const held = described(3, { hand: [40, 90] });
    expect(held[45]).toBe(HIDDEN);
    const match = compareFlanks(described(3), held);
    expect(match?.alike).toBeGreaterThan(0.8);
    expect(match?.shared).toBeLessThan(0.8);
    expect(compareFlanks(described(3), described(3, { hand: [0, FLANK_COLUMNS] }))).toBeNull();
  });

  it('is as alike in each place as the whole block’s covariance says, summed cell by cell', () => {
    const [a, b] = [described(8), described(8, { dx: 3, dy: 1, noise: 0.4, hand: [60, 75] })];
    const places = compareFlanks(a, b)?.places ?? [];
    expect(places.length).toBeGreaterThan(40);
    for (const { from, to, alike } of places.filter((place) => place.alike !== 0)) {
      const pairs: [number, number][] = [];
      for (let row = -6; row < 6; row++) {
        // Every second column is looked at.
        for (let column = -10; column < 10; column += 2) {
          const p = a[(from[1] + row) * FLANK_COLUMNS + from[0] + column] ?? HIDDEN;
          const q = b[(to[1] + row) * FLANK_COLUMNS + to[0] + column] ?? HIDDEN;
          if (p !== HIDDEN && q !== HIDDEN) pairs.push([p, q]);
        }
      }
      const mean = (of: 0 | 1): number => pairs.reduce((sum, pair) => sum + pair[of], 0) / pairs.length;
      const [meanA, meanB] = [mean(0), mean(1)];
      const sum = (of: (p: number, q: number) => number): number =>
        pairs.reduce((total, [p, q]) => total + of(p - meanA, q - meanB), 0);
      // 60 a cell is the floor under which a block says little: our own choice.
      const energy = Math.sqrt(sum((p) => p * p) * sum((_, q) => q * q)) + 60 * pairs.length;
      expect(alike).toBeCloseTo(sum((p, q) => p * q) / energy, 9);
    }
  });

  it('is compared alike whichever is named first', () => {
    const [a, b] = [described(8), described(8, { dx: 3, bow: 1, noise: 0.3, hand: [60, 75] })];
    const [one, other] = [compareFlanks(a, b), compareFlanks(b, a)];
    expect(one?.alike).toBe(other?.alike);
    expect(one?.agreeing).toBe(other?.agreeing);
    expect(one?.places.map(({ from, to }) => [from, to])).toEqual(
      other?.places.map(({ from, to }) => [to, from]),
    );
  });

  it('of another individual is not alike', () => {
    for (let other = 11; other < 31; other++) {
      const match = compareFlanks(described(10), described(other));
      expect(match?.alike).toBeLessThan(0.6);
    }
  });

  it('is kept in base64 without loss, and its cells are found in the photograph again', () => {
    const flank = flankOf(4);
    const kept = keepFlank(flank);
    expect(flankPattern(kept?.pattern ?? '')).toEqual(describeFlank(flank));
    expect(keepFlank(null)).toBeNull();
    // The frame above is 2 px a cell from (100, 300).
    const [x, y] = flankPlace(FRAME, 37, 21);
    expect(x).toBeCloseTo(100 + 74, 6);
    expect(y).toBeCloseTo(300 + 42, 6);
  });
});

describe('a coarser pattern', () => {
  const plain = (value: number): FlankDescriptor =>
    new Int8Array(FLANK_COLUMNS * FLANK_ROWS).fill(value) as FlankDescriptor;

  it('holds means, rounded, in as many fewer cells', () => {
    const flank = plain(0);
    // The upper left square of four by four: eight times 10 and eight times 21.
    for (let row = 0; row < 4; row++)
      for (let column = 0; column < 4; column++) flank[row * FLANK_COLUMNS + column] = column < 2 ? 10 : 21;
    const coarse = coarserFlank(flank, 4);
    expect(coarse.length).toBe((FLANK_COLUMNS * FLANK_ROWS) / 16);
    expect([coarse[0], coarse[1], coarse[FLANK_COLUMNS / 4]]).toEqual([16, 0, 0]);
  });

  it.each([
    [1, 7],
    [2, 7],
    [3, HIDDEN],
    [4, HIDDEN],
  ])('of four cells of which %i are hidden is %i', (hidden, value) => {
    const flank = plain(7);
    [0, 1, FLANK_COLUMNS, FLANK_COLUMNS + 1].slice(0, hidden).forEach((cell) => (flank[cell] = HIDDEN));
    expect(coarserFlank(flank, 2)[0]).toBe(value);
  });

  it('by one is the pattern itself', () => {
    const flank = described(12);
    expect(coarserFlank(flank, 1)).toBe(flank);
  });
});

describe('lengths that may be one fish’s', () => {
  const of = (lengthMm: number, sigmaMm: number) => ({ lengthMm, sigmaMm, flank: new Int8Array() as FlankDescriptor }); // prettier-ignore

  it('lie within 3.5 standard uncertainties of their difference, 0.6 % of the length among them', () => {
    // hypot(3, 4, 0.006 · 500 = 3) = 5.83 mm; 3.5 of them are 20.4 mm.
    expect(isSimilarLength(of(500, 3), of(480, 4))).toBe(true);
    expect(isSimilarLength(of(500, 3), of(479, 4))).toBe(false);
  });

  it('lie within 8 %, however unsure', () => {
    expect(isSimilarLength(of(500, 90), of(539, 90))).toBe(true);
    expect(isSimilarLength(of(500, 90), of(541, 90))).toBe(false);
    expect(isSimilarLength(of(500, 90), of(459, 90))).toBe(false);
  });

  it('make two flanks less likely one fish the farther they are apart', () => {
    const flank = described(21);
    const other = described(21, { noise: 0.5, dx: 2 });
    const odds = [400, 403, 406, 409].map(
      (lengthMm) =>
        likenessOf({ lengthMm: 400, sigmaMm: 1, flank }, { lengthMm, sigmaMm: 1, flank: other }).logOdds,
    );
    expect(odds).toEqual([...odds].sort((a, b) => b - a));
    expect(new Set(odds).size).toBe(4);
  });
});

describe('whether it is the same fish', () => {
  const fish = (individual: number, lengthMm: number, look: Look = {}) => ({
    lengthMm,
    sigmaMm: 0.8,
    flank: described(individual, look),
  });

  it('needs both length and pattern', () => {
    expect(likenessOf(fish(5, 400), fish(5, 401.5, { slope: 0.8, dx: 3 }))).toMatchObject({
      answer: 'same',
    });
    expect(likenessOf(fish(5, 400), fish(5, 430))).toMatchObject({ answer: 'different', score: 0 });
    expect(likenessOf(fish(5, 400), fish(6, 401)).answer).toBe('different');
  });

  it('is left to people when a hand hides the flank', () => {
    const hidden = fish(5, 400, { hand: [10, FLANK_COLUMNS] });
    expect(likenessOf(fish(5, 400), hidden)).toMatchObject({ answer: 'look', match: null });
  });

  it('is not said of bars that are alike in any place', () => {
    const barred = (individual: number): FlankDescriptor => {
      const dice = seededDice(individual);
      const light = new Float32Array(FLANK_COLUMNS * FLANK_ROWS);
      // A bar every eight cells, and little of its own.
      for (let i = 0; i < light.length; i++)
        light[i] = 4.4 + 0.4 * Math.sin((2 * Math.PI * (i % FLANK_COLUMNS)) / 8) + 0.05 * dice();
      return describeFlank({ light, frame: FRAME });
    };
    const [a, b] = [barred(31), barred(32)].map((flank) => ({ lengthMm: 400, sigmaMm: 1, flank }));
    if (!a || !b) throw new Error('expected two fish');
    expect(compareFlanks(a.flank, b.flank)?.alike).toBeGreaterThan(0.9);
    expect(likenessOf(a, b).answer).not.toBe('same');
    // Blotches fit in their place alone, bars anywhere along the fish.
    expect(standsApart(a.flank, b.flank)).toBeLessThan(0.1);
    expect(standsApart(described(31), described(31, { dx: 3, noise: 0.1 }))).toBeGreaterThan(0.3);
  });

  it('tells one photograph stored anew from two photographs of one fish', () => {
    expect(likenessOf(fish(7, 400), fish(7, 400.1)).isSamePhoto).toBe(true);
    expect(likenessOf(fish(7, 400), fish(7, 401.5, { slope: 0.9, dx: 5, noise: 0.2 })).isSamePhoto).toBe(
      false,
    );
  });
});

describe('a search among earlier fish', () => {
  const index = new FlankIndex();
  for (let i = 0; i < 240; i++)
    index.add({ id: `fish ${i}`, lengthMm: 380 + (i % 40), sigmaMm: 1, flank: described(1000 + i) });

  it('ranks the same fish first', () => {
    for (const i of [3, 77, 140, 201]) {
      const asked = { lengthMm: 380 + (i % 40) + 0.8, sigmaMm: 1, flank: described(1000 + i, { dx: 4, dy: 2, slope: 0.7, noise: 0.1 }) }; // prettier-ignore
      const [first, second] = index.search(asked, 3);
      expect(first?.id).toBe(`fish ${i}`);
      expect(first?.likeness.answer).toBe('same');
      expect(second?.likeness.answer).not.toBe('same');
    }
  });

  it('finds it where the fish is stretched, and where a hand leaves but a part of it', () => {
    for (const look of [
      { stretch: 5 },
      { hand: [0, 100] as const },
      { bow: 1, stretch: -3, hand: [60, 160] as const },
    ]) {
      const asked = { lengthMm: 380 + 37, sigmaMm: 1, flank: described(1037, look) };
      expect(index.search(asked, 1)[0]?.id, JSON.stringify(look)).toBe('fish 37');
    }
  });

  it('passes over what is more than 8 % longer or shorter, and what nobody asks for', () => {
    const asked = { lengthMm: 500, sigmaMm: 1, flank: described(1003) };
    expect(index.search(asked, 3)).toEqual([]);
    expect(index.search({ ...asked, lengthMm: 383 }, 3, (id) => id !== 'fish 3')[0]?.id).not.toBe('fish 3');
  });
});
