import { describe, expect, it } from 'vitest';
import { TAPE_TOLERANCE_MM, readTape } from './index.ts';

const marks = (...inches: number[]) =>
  inches.map((inch, i) => ({ tapeMm: 25.4 * inch, photographId: String(i) }));
const lengthOf = (inches: number[], offsetInch = 1): number | string => {
  const read = readTape(marks(...inches), 25.4 * offsetInch);
  return read.ok ? read.value.apparentMm / 25.4 : read.code;
};

describe('a tape in the water', () => {
  // A grip about an inch from the nose: an uncorrected tape reads long by it (common practice, no source).
  it('reads 40 in where two readings of 41 in agree and the grip sits an inch from the nose', () => {
    expect(lengthOf([41, 41])).toBeCloseTo(40, 9);
  });

  it('takes the two of three that agree best, and keeps all three', () => {
    const read = readTape(marks(41.25, 43, 41), 25.4);
    expect(read.ok && read.value.taken).toEqual([0, 2]);
    expect(read.ok && read.value.marks).toHaveLength(3);
    expect(read.ok && read.value.apparentMm / 25.4).toBeCloseTo(40.125, 9);
  });

  it('takes the later of pairs that agree alike', () => {
    const read = readTape(marks(40, 40, 41, 41), 0);
    expect(read.ok && read.value.taken).toEqual([2, 3]);
  });

  it('asks for another reading as long as no two agree within a quarter inch', () => {
    expect(TAPE_TOLERANCE_MM).toBeCloseTo(25.4 / 4, 9);
    expect(lengthOf([41, 41.26])).toBe('readings-differ');
    expect(lengthOf([41, 41.25])).toBeCloseTo(40.125, 9);
    expect(lengthOf([41])).toBe('one-reading');
  });

  it('refuses an offset that cannot be a grip’s, or that leaves no fish', () => {
    expect(lengthOf([41, 41], 10)).toBe('offset-too-long');
    expect(lengthOf([2, 2], 3)).toBe('offset-too-long');
  });

  it('is as doubtful as its readings differ', () => {
    const near = readTape(marks(41, 41), 25.4);
    const apart = readTape(marks(41, 41.25), 25.4);
    expect(near.ok && apart.ok && apart.value.sigmaMm >= near.value.sigmaMm).toBe(true);
    // Root of the sum of squares (GUM 5.1.2) of 3 mm and 2 mm.
    expect(near.ok && near.value.sigmaMm).toBeCloseTo(Math.sqrt(13), 9);
  });
});
