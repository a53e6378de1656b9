import { describe, expect, it } from 'vitest';
import { LENGTH_STEPS, MASS_STEPS, celsiusOf, fahrenheitOf, formatSmallLength, formatTemperature, lengthStepOf, massUnitOf, unitSystemOf, type StepId } from './index.ts'; // prettier-ignore

const STEPS = [...Object.keys(LENGTH_STEPS), ...Object.keys(MASS_STEPS)] as StepId[];

describe('what an event is measured in', () => {
  it('is one answer for lengths and weights of each step', () => {
    const us = STEPS.filter((step) => unitSystemOf(step) === 'us');
    expect(us).toEqual(['eighth-inch', 'quarter-inch', 'half-inch', 'ounce', 'hundredth-pound']);
    for (const step of STEPS) {
      expect(unitSystemOf(lengthStepOf(step)), step).toBe(unitSystemOf(step));
      expect(massUnitOf(step) === 'kg', step).toBe(unitSystemOf(step) === 'metric');
    }
  });

  it('an event’s own steps stay what they are', () => {
    expect(lengthStepOf('eighth-inch')).toBe('eighth-inch');
    expect(massUnitOf('hundredth-pound')).toBe('lb');
  });
});

describe('what stands beside a score', () => {
  // 1 in = 25.4 mm (NIST SP 811, Appendix B.8).
  it.each([
    [6.35, 'quarter-inch', '0.25 in'],
    [6.35, 'ounce', '0.25 in'],
    [6.35, 'centimetre', '6.3 mm'],
    [0, 'gram', '0.0 mm'],
  ] as const)('%s mm for %s is %s', (lengthMm, step, words) => {
    expect(formatSmallLength(lengthMm, step)).toBe(words);
  });

  // Ice, blood heat and boiling water as Fahrenheit's scale has them; the scales meet at -40 (NIST SP 811, B.8).
  it.each([
    [0, 32],
    [37, 98.6],
    [100, 212],
    [-40, -40],
  ])('%s °C are %s °F, and back', (celsius, fahrenheit) => {
    expect(fahrenheitOf(celsius)).toBeCloseTo(fahrenheit, 9);
    expect(celsiusOf(fahrenheit)).toBeCloseTo(celsius, 9);
  });

  it('temperatures are in the event’s unit', () => {
    expect(formatTemperature(22.25, 'ounce')).toBe('72 °F');
    expect(formatTemperature(22.25, 'gram')).toBe('22.3 °C');
  });
});
