/**
 * The steps in which events score, as whole numbers of a small unit, so that sums and conversions are exact:
 * 1 in = 25.4 mm, 1 lb = 453.59237 g, 1 oz = 1/16 lb (NIST SP 811, Appendix B.8).
 */

export const LENGTH_STEPS = {
  'eighth-inch': { unit: 'in', stepNm: 3_175_000, stepsPerUnit: 8 },
  'quarter-inch': { unit: 'in', stepNm: 6_350_000, stepsPerUnit: 4 },
  'half-inch': { unit: 'in', stepNm: 12_700_000, stepsPerUnit: 2 },
  millimetre: { unit: 'mm', stepNm: 1_000_000, stepsPerUnit: 1 },
  'half-centimetre': { unit: 'cm', stepNm: 5_000_000, stepsPerUnit: 2 },
  centimetre: { unit: 'cm', stepNm: 10_000_000, stepsPerUnit: 1 },
} as const;

/** `lb-oz` is written as pounds and ounces, `3-4`. */
export const MASS_STEPS = {
  ounce: { unit: 'lb-oz', stepNg: 28_349_523_125, stepsPerUnit: 16 },
  'hundredth-pound': { unit: 'lb', stepNg: 4_535_923_700, stepsPerUnit: 100 },
  'ten-gram': { unit: 'kg', stepNg: 10_000_000_000, stepsPerUnit: 100 },
  gram: { unit: 'kg', stepNg: 1_000_000_000, stepsPerUnit: 1000 },
} as const;

export type LengthStepId = keyof typeof LENGTH_STEPS;
export type LengthUnit = (typeof LENGTH_STEPS)[LengthStepId]['unit'];
export type MassStepId = keyof typeof MASS_STEPS;
export type MassUnit = (typeof MASS_STEPS)[MassStepId]['unit'];
export type StepId = LengthStepId | MassStepId;

/** `down` gives the last step reached, `nearest` the closer one and the upper one when both are as close. */
export type Rounding = 'down' | 'nearest';

export function isMassStep(step: StepId): step is MassStepId {
  return Object.hasOwn(MASS_STEPS, step);
}

/** What stands behind a number of steps. Pounds and ounces carry theirs within the number. */
export function unitOf(step: StepId): 'in' | 'mm' | 'cm' | 'lb' | 'kg' {
  const unit = isMassStep(step) ? MASS_STEPS[step].unit : LENGTH_STEPS[step].unit;
  return unit === 'lb-oz' ? 'lb' : unit;
}

export const MM_PER_INCH = 25.4;
/** International avoirdupois pound in grams, exact. */
export const G_PER_POUND = 453.59237;
export const G_PER_OUNCE = 28.349523125;

const NM_PER_MM = 1e6;
const NG_PER_G = 1e9;
const LONGEST_MM = 10_000;
/** A bag or a sling with all in it; more is a slip of the finger. */
export const HEAVIEST_G = 500_000;

/**
 * Whole steps of a measured length.
 * The length is first taken to the nanometre, so that 387.35 mm is exactly 15¼ in and not a hair under it.
 * @param lengthMm finite, 0 to 10,000 mm
 * @throws RangeError for any other length
 */
export function stepsFromMm(lengthMm: number, step: LengthStepId, rounding: Rounding): number {
  if (!Number.isFinite(lengthMm) || lengthMm < 0 || lengthMm > LONGEST_MM) {
    throw new RangeError(`lengthMm: expected 0 to ${LONGEST_MM}, got ${lengthMm}`);
  }
  return countOf(Math.round(lengthMm * NM_PER_MM), LENGTH_STEPS[step].stepNm, rounding);
}

/**
 * Whole steps of a weight, which is first taken to the nanogram, so that 4.5359237 g is a hundredth of a pound.
 * @param massG finite, 0 to 500,000 g
 * @throws RangeError for any other weight
 */
export function stepsFromG(massG: number, step: MassStepId, rounding: Rounding): number {
  if (!Number.isFinite(massG) || massG < 0 || massG > HEAVIEST_G) {
    throw new RangeError(`massG: expected 0 to ${HEAVIEST_G}, got ${massG}`);
  }
  return countOf(Math.round(massG * NG_PER_G), MASS_STEPS[step].stepNg, rounding);
}

function countOf(whole: number, stepWhole: number, rounding: Rounding): number {
  return rounding === 'down'
    ? Math.floor(whole / stepWhole)
    : Math.floor((2 * whole + stepWhole) / (2 * stepWhole));
}

/** The length in mm at which a count of steps is reached exactly. */
export function mmFromSteps(steps: number, step: LengthStepId): number {
  requireWhole(steps);
  return (steps * LENGTH_STEPS[step].stepNm) / NM_PER_MM;
}

/** The weight in g at which a count of steps is reached exactly. */
export function gFromSteps(steps: number, step: MassStepId): number {
  requireWhole(steps);
  return (steps * MASS_STEPS[step].stepNg) / NG_PER_G;
}

export function requireWhole(steps: number): void {
  if (!Number.isSafeInteger(steps)) throw new RangeError(`steps: expected a whole number, got ${steps}`);
}
