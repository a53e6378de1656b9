/**
 * Scored lengths as whole counts of a rule sheet's step.
 * Exact values: 1 in = 25.4 mm (NIST SP 811, Appendix B.8), so every step is a whole number of nanometres.
 */

export const LENGTH_STEPS = {
  'eighth-inch': { unit: 'in', stepNm: 3_175_000, stepsPerUnit: 8 },
  'quarter-inch': { unit: 'in', stepNm: 6_350_000, stepsPerUnit: 4 },
  'half-inch': { unit: 'in', stepNm: 12_700_000, stepsPerUnit: 2 },
  millimetre: { unit: 'mm', stepNm: 1_000_000, stepsPerUnit: 1 },
  'half-centimetre': { unit: 'cm', stepNm: 5_000_000, stepsPerUnit: 2 },
  centimetre: { unit: 'cm', stepNm: 10_000_000, stepsPerUnit: 1 },
} as const;

export type LengthStepId = keyof typeof LENGTH_STEPS;
export type LengthUnit = (typeof LENGTH_STEPS)[LengthStepId]['unit'];

/** `down` gives the last step reached, `nearest` the closer one and the upper one when both are as close. */
export type Rounding = 'down' | 'nearest';

const NM_PER_MM = 1_000_000;
export const MM_PER_INCH = 25.4;

/**
 * Whole steps of a measured length.
 * The length is first taken to the nanometre, so that 387.35 mm is exactly 15¼ in and not a hair under it.
 * @param lengthMm finite, 0 to 10,000 mm
 * @throws RangeError for any other length
 */
export function stepsFromMm(lengthMm: number, step: LengthStepId, rounding: Rounding): number {
  if (!Number.isFinite(lengthMm) || lengthMm < 0 || lengthMm > 10_000) {
    throw new RangeError(`lengthMm: expected 0 to 10000, got ${lengthMm}`);
  }
  const lengthNm = Math.round(lengthMm * NM_PER_MM);
  const { stepNm } = LENGTH_STEPS[step];
  return rounding === 'down'
    ? Math.floor(lengthNm / stepNm)
    : Math.floor((2 * lengthNm + stepNm) / (2 * stepNm));
}

/** The length in mm at which a count of steps is reached exactly. */
export function mmFromSteps(steps: number, step: LengthStepId): number {
  requireWhole(steps);
  return (steps * LENGTH_STEPS[step].stepNm) / NM_PER_MM;
}

const EIGHTHS = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞'] as const;

/** Steps as the trade writes them, without the unit: `18½`, `¾`, `431`, `43.5`. Negative counts carry a minus sign. */
export function formatSteps(steps: number, step: LengthStepId): string {
  requireWhole(steps);
  const sign = steps < 0 ? '−' : '';
  const count = Math.abs(steps);
  const { unit, stepsPerUnit } = LENGTH_STEPS[step];
  const whole = Math.floor(count / stepsPerUnit);
  const rest = count % stepsPerUnit;
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

export type LengthRefusal = 'not-a-length' | 'off-step' | 'too-long';
export type ParsedSteps = { ok: true; steps: number } | { ok: false; code: LengthRefusal };

const GLYPH_EIGHTHS = new Map<string, bigint>(EIGHTHS.map((glyph, eighths) => [glyph, BigInt(eighths)]));

/**
 * Steps from what a person typed: `18¼`, `18 1/4`, `18.25`, `18,25`, with or without `in`, `"`, `cm`, `mm`.
 * Exact: decimal digits are read as a fraction, never as a float. A length between two steps is refused.
 */
export function parseSteps(text: string, step: LengthStepId): ParsedSteps {
  const bare = text.trim().replace(/\s*(in|inch|inches|"|″|cm|mm)$/i, '');
  const value = parseRational(bare);
  if (value === null) return { ok: false, code: 'not-a-length' };
  const numerator = value.numerator * BigInt(LENGTH_STEPS[step].stepsPerUnit);
  if (numerator % value.denominator !== 0n) return { ok: false, code: 'off-step' };
  const steps = numerator / value.denominator;
  if (steps * BigInt(LENGTH_STEPS[step].stepNm) > 10_000n * BigInt(NM_PER_MM)) {
    return { ok: false, code: 'too-long' };
  }
  return { ok: true, steps: Number(steps) };
}

interface Rational {
  numerator: bigint;
  denominator: bigint;
}

function parseRational(text: string): Rational | null {
  const decimal = /^(\d{1,6})(?:[.,](\d{1,6}))?$/.exec(text);
  if (decimal) {
    const digits = decimal[2] ?? '';
    return {
      numerator: BigInt((decimal[1] ?? '') + digits),
      denominator: 10n ** BigInt(digits.length),
    };
  }
  const glyph = /^(\d{0,6})\s*([⅛¼⅜½⅝¾⅞])$/.exec(text);
  if (glyph) {
    const eighths = GLYPH_EIGHTHS.get(glyph[2] ?? '') ?? 0n;
    return { numerator: BigInt(glyph[1] || 0) * 8n + eighths, denominator: 8n };
  }
  const slash = /^(?:(\d{1,6})[ -])?(\d{1,3})\/(\d{1,3})$/.exec(text);
  if (slash) {
    const denominator = BigInt(slash[3] ?? 0);
    const part = BigInt(slash[2] ?? 0);
    if (denominator === 0n || part >= denominator) return null;
    return { numerator: BigInt(slash[1] ?? 0) * denominator + part, denominator };
  }
  return null;
}

function requireWhole(steps: number): void {
  if (!Number.isSafeInteger(steps)) throw new RangeError(`steps: expected a whole number, got ${steps}`);
}
