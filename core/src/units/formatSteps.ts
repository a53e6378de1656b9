import {
  G_PER_OUNCE,
  G_PER_POUND,
  LENGTH_STEPS,
  MASS_STEPS,
  MM_PER_INCH,
  isMassStep,
  requireWhole,
  type LengthUnit,
  type MassUnit,
  type StepId,
} from './step.ts';

export const EIGHTHS = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞'] as const;

/**
 * Steps as the trade writes them, without the unit: `18½`, `¾`, `431`, `43.5`; weights as `3-4` (pounds and ounces),
 * `3.25`, `1.47`. Negative counts carry a minus sign.
 */
export function formatSteps(steps: number, step: StepId): string {
  requireWhole(steps);
  const sign = steps < 0 ? '−' : '';
  const count = Math.abs(steps);
  const { unit, stepsPerUnit } = isMassStep(step) ? MASS_STEPS[step] : LENGTH_STEPS[step];
  const whole = Math.floor(count / stepsPerUnit);
  const rest = count % stepsPerUnit;
  if (unit === 'lb-oz') return `${sign}${whole}-${rest}`;
  if (unit === 'lb' || unit === 'kg') {
    const digits = stepsPerUnit === 1000 ? 3 : 2;
    return `${sign}${whole}.${String(rest).padStart(digits, '0')}`;
  }
  if (unit !== 'in') return sign + (stepsPerUnit === 2 ? `${whole}.${rest * 5}` : String(whole));
  const fraction = EIGHTHS[(rest * 8) / stepsPerUnit] ?? '';
  return sign + (whole === 0 && fraction !== '' ? fraction : `${whole}${fraction}`);
}

/** A measured length with two decimals of an inch or of a centimetre, or one of a millimetre; no unit. */
export function formatMeasured(lengthMm: number, unit: LengthUnit): string {
  if (unit === 'in') return (lengthMm / MM_PER_INCH).toFixed(2);
  if (unit === 'cm') return (lengthMm / 10).toFixed(2);
  return lengthMm.toFixed(1);
}

/**
 * A measured weight with its unit, finer than any event scores: `3 lb 4.2 oz`, `3.263 lb`, `1.480 kg`.
 * Ounces are rounded before they are carried, so that none reads 16.0.
 */
export function formatMass(massG: number, unit: MassUnit): string {
  const sign = massG < 0 ? '−' : '';
  const size = Math.abs(massG);
  if (unit === 'kg') return `${sign}${(size / 1000).toFixed(3)} kg`;
  if (unit === 'lb') return `${sign}${(size / G_PER_POUND).toFixed(3)} lb`;
  const tenths = Math.round((size / G_PER_OUNCE) * 10);
  const pounds = Math.floor(tenths / 160);
  const ounces = ((tenths % 160) / 10).toFixed(1);
  return pounds === 0 ? `${sign}${ounces} oz` : `${sign}${pounds} lb ${ounces} oz`;
}

/** A small difference of weights, or a doubt, in ounces or grams. */
export function formatSmallMass(massG: number, unit: MassUnit): string {
  if (unit === 'kg') return `${Math.round(massG)} g`;
  if (unit === 'lb') return `${(massG / G_PER_POUND).toFixed(2)} lb`;
  return `${(massG / G_PER_OUNCE).toFixed(1)} oz`;
}
