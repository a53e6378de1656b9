import { describe, expect, it } from 'vitest';
import type { Coverage } from './coverage.ts';
import { goesOnMm } from './goesOn.ts';
import type { BareView } from './printedInk.ts';
import type { TailTip } from './tail.ts';

const [COLUMNS, ROWS] = [300, 40];
const FACE = 200;

/** A face of one colour, a mm a cell, with shades from and to along it, rows 10 to 30. */
function shaded(...shades: { fromMm: number; toMm: number; light: number }[]): [BareView, Coverage] {
  const count = COLUMNS * ROWS;
  const rgb = new Float32Array(3 * count).fill(FACE);
  for (const { fromMm, toMm, light } of shades)
    for (let row = 10; row < 30; row++)
      rgb.fill(FACE * light, 3 * (row * COLUMNS + fromMm), 3 * (row * COLUMNS + toMm));
  const view: BareView = {
    columns: COLUMNS,
    rows: ROWS,
    cellsPerMm: 1,
    fromXMm: 0,
    fromYMm: 0,
    rgb,
    inPhoto: new Uint8Array(count).fill(1),
    bare: new Float32Array(count).fill(1),
    inkLight: new Float32Array(count).fill(NaN),
  };
  const face = new Float32Array(3 * count).fill(FACE);
  return [view, { odds: new Float32Array(count), board: new Uint8Array(count), face, brightest: FACE }];
}

const tip: TailTip = {
  xMm: 100,
  yMm: 20,
  scatterMm: 0,
  contrast: 9,
  inNumeral: false,
  blindMm: 0,
  likeShadow: false,
  edge: Array.from({ length: 20 }, (_, i) => [100, 10.5 + i] as const),
};

describe('what goes on beyond a tail’s tip', () => {
  it('is nothing on a bare face', () => {
    expect(goesOnMm(...shaded(), tip, 290)).toBe(0);
  });

  it.each([
    ['darker', 0.7],
    ['lighter', 1.25],
  ])('is %s than the face, and told to its end', (_, light) => {
    expect(goesOnMm(...shaded({ fromMm: 95, toMm: 141, light }), tip, 290)).toBeCloseTo(40, -0.5);
  });

  it('is not the face’s own grain', () => {
    expect(goesOnMm(...shaded({ fromMm: 95, toMm: 141, light: 0.88 }), tip, 290)).toBe(0);
  });

  it('goes on over a printed line, and not over a hand’s breadth', () => {
    const line = shaded({ fromMm: 95, toMm: 115, light: 0.6 }, { fromMm: 118, toMm: 130, light: 0.6 });
    expect(goesOnMm(...line, tip, 290)).toBeGreaterThan(27);
    const apart = shaded({ fromMm: 95, toMm: 108, light: 0.6 }, { fromMm: 160, toMm: 200, light: 0.6 });
    expect(goesOnMm(...apart, tip, 290)).toBeLessThan(9);
  });

  it('ends with the face', () => {
    expect(goesOnMm(...shaded({ fromMm: 95, toMm: 300, light: 0.6 }), tip, 130)).toBeLessThan(30);
  });

  it('is nothing beside the tail’s rows', () => {
    const [view, coverage] = shaded({ fromMm: 95, toMm: 141, light: 0.6 });
    const above: TailTip = { ...tip, edge: [[100, 2] as const, [100, 8] as const] };
    expect(goesOnMm(view, coverage, above, 290)).toBe(0);
  });
});
