import { MASS_STEPS, MM_PER_INCH, isMassStep, unitOf, type LengthStepId, type MassUnit, type StepId } from './step.ts'; // prettier-ignore

/** What an event is measured in; everything beside its scores is written in the same. */
export type UnitSystem = 'us' | 'metric';

/** The one answer to "inches or millimetres, pounds or kilograms" for an event that scores in such steps. */
export function unitSystemOf(step: StepId): UnitSystem {
  const unit = unitOf(step);
  return unit === 'in' || unit === 'lb' ? 'us' : 'metric';
}

/** What weights are written in where an event scores in such steps, of lengths or of weights. */
export function massUnitOf(step: StepId): MassUnit {
  if (isMassStep(step)) return MASS_STEPS[step].unit;
  return unitSystemOf(step) === 'us' ? 'lb-oz' : 'kg';
}

/** In what steps lengths are taken where an event scores in such steps, of lengths or of weights. */
export function lengthStepOf(step: StepId): LengthStepId {
  if (!isMassStep(step)) return step;
  return unitSystemOf(step) === 'us' ? 'quarter-inch' : 'half-centimetre';
}

/**
 * A gap, a doubt or a difference with its unit: `0.24 in`, `6.1 mm`. An eighth of an inch is 0.125, so that hundredths
 * tell enough.
 * @param digits more of them than usual, for what is small even then
 */
export function formatSmallLength(lengthMm: number, step: StepId, digits = 0): string {
  return unitSystemOf(step) === 'us'
    ? `${(lengthMm / MM_PER_INCH).toFixed(2 + digits)} in`
    : `${lengthMm.toFixed(1 + digits)} mm`;
}

/** A temperature with its unit, from degrees Celsius: whole degrees Fahrenheit, or tenths of Celsius. */
export function formatTemperature(celsius: number, step: StepId): string {
  return unitSystemOf(step) === 'us' ? `${Math.round(fahrenheitOf(celsius))} °F` : `${celsius.toFixed(1)} °C`;
}

/** NIST SP 811, Appendix B.8: t/°F = 1.8 t/°C + 32. */
export function fahrenheitOf(celsius: number): number {
  return 1.8 * celsius + 32;
}

/** The reverse of `fahrenheitOf`. */
export function celsiusOf(fahrenheit: number): number {
  return (fahrenheit - 32) / 1.8;
}
