import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  LENGTH_STEPS,
  formatMeasured,
  formatSteps,
  mmFromSteps,
  parseSteps,
  stepsFromMm,
  type LengthStepId,
} from './index.ts';

const STEP_IDS = Object.keys(LENGTH_STEPS) as LengthStepId[];

describe('steps of a measured length', () => {
  // Exact conversions of the inch, NIST SP 811 (25.4 mm): worked values for quarter inches.
  it.each([
    [381, 60],
    [380.9, 59],
    [387.35, 61],
    [387.3, 60],
    [393.7, 62],
  ])('%d mm is %d quarter inches, rounded down', (lengthMm, steps) => {
    expect(stepsFromMm(lengthMm, 'quarter-inch', 'down')).toBe(steps);
  });

  it('reaches every step at exactly its length and not a hundredth of a micrometre before', () => {
    for (const step of STEP_IDS) {
      for (let steps = 1; steps <= 400; steps++) {
        const lengthMm = mmFromSteps(steps, step);
        expect(stepsFromMm(lengthMm, step, 'down')).toBe(steps);
        expect(stepsFromMm(lengthMm - 1e-5, step, 'down')).toBe(steps - 1);
      }
    }
  });

  it('takes the upper step when two are as near', () => {
    expect(stepsFromMm(10.5, 'millimetre', 'nearest')).toBe(11);
    expect(stepsFromMm(10.499999, 'millimetre', 'nearest')).toBe(10);
    expect(stepsFromMm(3.175, 'quarter-inch', 'nearest')).toBe(1);
  });

  it.each([NaN, -1, Infinity, 10_001])('refuses %d mm', (lengthMm) => {
    expect(() => stepsFromMm(lengthMm, 'millimetre', 'down')).toThrow(RangeError);
  });
});

describe('steps as people write them', () => {
  it.each([
    [74, 'quarter-inch', '18½'],
    [73, 'quarter-inch', '18¼'],
    [3, 'quarter-inch', '¾'],
    [0, 'quarter-inch', '0'],
    [-1, 'quarter-inch', '−¼'],
    [145, 'eighth-inch', '18⅛'],
    [37, 'half-inch', '18½'],
    [431, 'millimetre', '431'],
    [87, 'half-centimetre', '43.5'],
    [43, 'centimetre', '43'],
  ] as const)('%d steps of a %s read %s', (steps, step, text) => {
    expect(formatSteps(steps, step)).toBe(text);
  });

  it.each([
    ['18¼', 73],
    ['18 1/4', 73],
    ['18-1/4', 73],
    ['18.25', 73],
    ['18,25 in', 73],
    ['18 ½"', 74],
    ['¾', 3],
    ['18', 72],
  ])('%s is read exactly', (text, steps) => {
    expect(parseSteps(text, 'quarter-inch')).toEqual({ ok: true, steps });
  });

  it.each([
    ['', 'not-a-length'],
    ['eighteen', 'not-a-length'],
    ['-3', 'not-a-length'],
    ['1/0', 'not-a-length'],
    ['18.3', 'off-step'],
    ['18⅛', 'off-step'],
    ['99999', 'too-long'],
  ])('%s is refused: %s', (text, code) => {
    expect(parseSteps(text, 'quarter-inch')).toEqual({ ok: false, code });
  });

  it('reads back whatever it writes', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 780 }), fc.constantFrom(...STEP_IDS), (steps, step) => {
        expect(parseSteps(formatSteps(steps, step), step)).toEqual({ ok: true, steps });
      }),
      { seed: 4310 },
    );
  });

  it('writes a measured length in its unit', () => {
    expect(formatMeasured(446.278, 'in')).toBe('17.57');
    expect(formatMeasured(431.24, 'cm')).toBe('43.12');
    expect(formatMeasured(431.24, 'mm')).toBe('431.2');
  });
});
