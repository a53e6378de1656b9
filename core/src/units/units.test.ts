import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  G_PER_OUNCE,
  G_PER_POUND,
  LENGTH_STEPS,
  MASS_STEPS,
  formatMass,
  formatMeasured,
  formatSteps,
  gFromSteps,
  mmFromSteps,
  parseMass,
  parseSteps,
  stepsFromG,
  stepsFromMm,
  type LengthStepId,
  type MassStepId,
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

const MASS_STEP_IDS = Object.keys(MASS_STEPS) as MassStepId[];

describe('steps of a weight', () => {
  it('are exact: an ounce is a sixteenth of the pound of 453.59237 g (NIST SP 811, B.8)', () => {
    expect(gFromSteps(16, 'ounce')).toBe(G_PER_POUND);
    expect(gFromSteps(1, 'ounce')).toBe(G_PER_OUNCE);
    expect(gFromSteps(100, 'hundredth-pound')).toBe(G_PER_POUND);
    expect(gFromSteps(100, 'ten-gram')).toBe(1000);
  });

  it('are reached at exactly their weight and not a microgram before', () => {
    for (const step of MASS_STEP_IDS) {
      for (let steps = 1; steps <= 800; steps++) {
        const massG = gFromSteps(steps, step);
        expect(stepsFromG(massG, step, 'down')).toBe(steps);
        expect(stepsFromG(massG - 1e-6, step, 'down')).toBe(steps - 1);
      }
    }
  });

  it('take the upper step when two are as near', () => {
    expect(stepsFromG(15, 'ten-gram', 'nearest')).toBe(2);
    expect(stepsFromG(14.9, 'ten-gram', 'nearest')).toBe(1);
  });

  it.each([NaN, -1, Infinity, 500_001])('refuse %d g', (massG) => {
    expect(() => stepsFromG(massG, 'ounce', 'down')).toThrow(RangeError);
  });

  it('add up without a float: 3-4, 2-15, 4-1, 3-9 and 5-2 are 18-15 (303/16 lb, by hand)', () => {
    const steps = ['3-4', '2-15', '4-1', '3-9', '5-2'].map((text) => {
      const parsed = parseSteps(text, 'ounce');
      return parsed.ok ? parsed.steps : NaN;
    });
    expect(formatSteps(steps.reduce((sum, one) => sum + one), 'ounce')).toBe('18-15'); // prettier-ignore
  });
});

describe('weights as people write them', () => {
  it.each([
    ['3-4', 'ounce', 52],
    ['3 lb 4 oz', 'ounce', 52],
    ['3lb4oz', 'ounce', 52],
    ['3 lbs 4', 'ounce', 52],
    ['3 pounds, 4 ounces', 'ounce', 52],
    ['52 oz', 'ounce', 52],
    ['3.25', 'ounce', 52],
    ['3,25 lb', 'ounce', 52],
    ['3¼', 'ounce', 52],
    ['3 1/4', 'ounce', 52],
    ['3', 'ounce', 48],
    ['0-9', 'ounce', 9],
    ['3.25', 'hundredth-pound', 325],
    ['3-4', 'hundredth-pound', 325],
    ['3,27 lb', 'hundredth-pound', 327],
    ['0.29', 'hundredth-pound', 29],
    ['1.47', 'ten-gram', 147],
    ['1470 g', 'ten-gram', 147],
    ['1.474 kg', 'gram', 1474],
  ] as const)('%s in %ss is %d', (text, step, steps) => {
    expect(parseSteps(text, step)).toEqual({ ok: true, steps });
  });

  it('which can be meant in two ways are asked about, each way with its steps', () => {
    expect(parseSteps('3.4', 'ounce')).toEqual({
      ok: false,
      code: 'ambiguous',
      readings: [
        { as: 'pounds-and-ounces', steps: 52, isExact: true },
        { as: 'pounds', steps: 54, isExact: false },
      ],
    });
    expect(parseSteps('3-1/4', 'ounce')).toMatchObject({ ok: false, code: 'ambiguous' });
    expect(parseSteps('250', 'gram')).toMatchObject({ code: 'ambiguous', readings: [{ as: 'kilograms' }, { as: 'grams', steps: 250 }] }); // prettier-ignore
    // 1474 kg is no fish.
    expect(parseSteps('1474', 'gram')).toEqual({ ok: true, steps: 1474 });
  });

  it('of the other system are converted only when a person agrees', () => {
    // 1.5 kg is 52.9 oz (GNU units: 1.5 kg / ounce = 52.910943).
    expect(parseSteps('1.5 kg', 'ounce')).toEqual({
      ok: false,
      code: 'ambiguous',
      readings: [{ as: 'kilograms', steps: 52, isExact: false }],
    });
    expect(parseSteps('3 lb 4 oz', 'ten-gram')).toMatchObject({
      code: 'ambiguous',
      readings: [{ steps: 147 }],
    });
    expect(parseSteps('46 cm', 'quarter-inch')).toMatchObject({
      code: 'ambiguous',
      readings: [{ steps: 72 }],
    });
    expect(parseSteps('50.8 cm', 'quarter-inch')).toEqual({ ok: true, steps: 80 });
  });

  it.each([
    ['', 'ounce', 'not-a-weight'],
    ['-3', 'ounce', 'not-a-weight'],
    ['3-17', 'ounce', 'not-a-weight'],
    ['heavy', 'ounce', 'not-a-weight'],
    ['18 in', 'ounce', 'other-kind'],
    ['3.255', 'hundredth-pound', 'off-step'],
    ['1.475', 'ten-gram', 'off-step'],
    ['99999', 'ounce', 'too-heavy'],
    ['3 lb', 'quarter-inch', 'other-kind'],
  ] as const)('%s in %ss is refused: %s', (text, step, code) => {
    expect(parseSteps(text, step)).toEqual({ ok: false, code });
  });

  it('read back from whatever was written', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 4000 }), fc.constantFrom(...MASS_STEP_IDS), (steps, step) => {
        expect(parseSteps(formatSteps(steps, step), step)).toEqual({ ok: true, steps });
      }),
      { seed: 4310 },
    );
  });

  // Strings 0.01 to 30.00 of which parseFloat(s) * 100 is not whole for 144: read by their digits they are.
  it('keep every hundredth of a pound', () => {
    for (let steps = 1; steps <= 3000; steps++) {
      expect(parseSteps((steps / 100).toFixed(2), 'hundredth-pound')).toEqual({ ok: true, steps });
    }
  });

  it('off a scale keep all its digits', () => {
    expect(parseMass('3 lb 4.5 oz', 'lb-oz')).toEqual({
      ok: true,
      as: 'pounds-and-ounces',
      massG: 52.5 * G_PER_OUNCE,
    });
    expect(parseMass('1.4755', 'kg')).toMatchObject({ ok: true, massG: 1475.5 });
    expect(parseMass('3.4', 'lb-oz')).toMatchObject({ ok: false, code: 'ambiguous' });
    expect(parseMass('x', 'kg')).toEqual({ ok: false, code: 'not-a-weight' });
    expect(parseMass('900 kg', 'kg')).toEqual({ ok: false, code: 'too-heavy' });
  });

  it('measured, read with their unit', () => {
    expect(formatMass(52 * G_PER_OUNCE, 'lb-oz')).toBe('3 lb 4.0 oz');
    expect(formatMass(15.96 * G_PER_OUNCE, 'lb-oz')).toBe('1 lb 0.0 oz');
    expect(formatMass(1474.2, 'kg')).toBe('1.474 kg');
    expect(formatMass(-14.2, 'lb-oz')).toBe('−0.5 oz');
  });
});
