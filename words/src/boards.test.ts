import { describe, expect, it } from 'vitest';
import { SHIPPED_BOARDS, type MeasuringBoard } from '@lauta/vision';
import { keyOf, rulingWords } from './boards.ts';

describe('a board in words', () => {
  it('tells length, breadth, lines and numerals', () => {
    const [birch, , slate] = SHIPPED_BOARDS as [MeasuringBoard, MeasuringBoard, MeasuringBoard];
    expect(rulingWords(birch)).toBe(
      '30 in long, 6.0 in wide; lines every inch, every half inch, every quarter inch; numerals every inch, in 2 rows.',
    );
    expect(rulingWords(slate)).toContain('lines every 5 cm, every centimetre, every half centimetre');
  });
});

describe('a key out of a name', () => {
  it.each([
    ['Alder 24, eighth inch', 'alder-24-eighth-inch'],
    ['  Ålänge ½  ', 'alange-1-2'],
    ['"../etc"', 'etc'],
    ['漁', ''],
    ['x'.repeat(60), 'x'.repeat(40)],
    [`${'x'.repeat(39)} y`, 'x'.repeat(39)],
  ])('%s', (name, key) => {
    expect(keyOf(name)).toBe(key);
  });
});
