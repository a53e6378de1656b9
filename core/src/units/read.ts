import {
  HEAVIEST_G,
  LENGTH_STEPS,
  MASS_STEPS,
  isMassStep,
  type LengthUnit,
  type MassUnit,
  type StepId,
} from './step.ts';
import { EIGHTHS } from './formatSteps.ts';

/** How a number may have been meant. */
export type ReadAs = 'length' | 'pounds-and-ounces' | 'pounds' | 'ounces' | 'kilograms' | 'grams';

/** One way to read what was typed. */
export interface Reading {
  as: ReadAs;
  steps: number;
  /** False where the value lies between two steps; `steps` is then the lower one. */
  isExact: boolean;
}

export type SizeRefusal =
  'not-a-length' | 'not-a-weight' | 'off-step' | 'too-long' | 'too-heavy' | 'other-kind';
export type ParsedSteps =
  | { ok: true; steps: number }
  | { ok: false; code: SizeRefusal }
  /** It can be meant in more than one way: the person says which. */
  | { ok: false; code: 'ambiguous'; readings: Reading[] };

/**
 * Steps from what a person typed. Lengths: `18¼`, `18 1/4`, `18-1/4`, `18.25`, `18,25`, with or without `in`, `"`,
 * `cm`, `mm`. Weights: `3-4`, `3 lb 4 oz`, `3 lb 4`, `52 oz`, `3.25`, `3,25 lb`, `1.474 kg`, `1474 g`.
 * Exact: decimal digits are read as a fraction, never as a float. What lies between two steps is refused; what can be
 * meant in two ways (`3.4` where pounds and ounces count, a weight in the other system) is asked about.
 */
export function parseSteps(text: string, step: StepId): ParsedSteps {
  const bare = text.trim();
  return isMassStep(step) ? parseMassSteps(bare, step) : parseLengthSteps(bare, step);
}

/** Whole multiples of a small unit, over a denominator. */
interface Rational {
  numerator: bigint;
  denominator: bigint;
}

// Lengths --------------------------------------------------------------------------------------------------------

const LENGTH_NM: Record<LengthUnit, bigint> = { in: 25_400_000n, cm: 10_000_000n, mm: 1_000_000n };
const LONGEST_NM = 10_000_000_000n;

function parseLengthSteps(text: string, step: keyof typeof LENGTH_STEPS): ParsedSteps {
  if (/(lbs?|oz|ounces?|pounds?|kg|g)\.?$/i.test(text)) return { ok: false, code: 'other-kind' };
  const unitText = /\s*(in|inch|inches|"|″|cm|mm)$/i.exec(text);
  const value = parseRational(unitText ? text.slice(0, unitText.index) : text);
  if (value === null) return { ok: false, code: 'not-a-length' };
  const own = LENGTH_STEPS[step].unit;
  const written = lengthUnit(unitText?.[1]) ?? own;
  const reading = stepsOf(value, LENGTH_NM[written], BigInt(LENGTH_STEPS[step].stepNm));
  if (value.numerator * LENGTH_NM[written] > LONGEST_NM * value.denominator)
    return { ok: false, code: 'too-long' };
  if (isMetric(written) !== isMetric(own) && !reading.isExact) {
    return { ok: false, code: 'ambiguous', readings: [{ as: 'length', ...reading }] };
  }
  return reading.isExact ? { ok: true, steps: reading.steps } : { ok: false, code: 'off-step' };
}

const isMetric = (unit: LengthUnit): boolean => unit !== 'in';

function lengthUnit(written: string | undefined): LengthUnit | null {
  if (written === undefined) return null;
  const small = written.toLowerCase();
  return small === 'cm' || small === 'mm' ? small : 'in';
}

// Weights --------------------------------------------------------------------------------------------------------

const UNIT_NG = {
  pounds: 453_592_370_000n,
  ounces: 28_349_523_125n,
  kilograms: 1_000_000_000_000n,
  grams: 1_000_000_000n,
} as const;
const HEAVIEST_NG = BigInt(HEAVIEST_G) * UNIT_NG.grams;

interface Meant {
  as: ReadAs;
  /** Nanograms. */
  mass: Rational;
}

function parseMassSteps(text: string, step: keyof typeof MASS_STEPS): ParsedSteps {
  if (/(in|inch|inches|"|″|cm|mm)$/i.test(text)) return { ok: false, code: 'other-kind' };
  const stepNg = BigInt(MASS_STEPS[step].stepNg);
  const meant = massesMeant(text, MASS_STEPS[step].unit);
  if (meant.length === 0) return { ok: false, code: 'not-a-weight' };
  const possible = meant.filter(({ mass }) => mass.numerator <= HEAVIEST_NG * mass.denominator);
  if (possible.length === 0) return { ok: false, code: 'too-heavy' };
  const readings = possible.map(({ as, mass }): Reading => ({ as, ...stepsOf(mass, 1n, stepNg) }));
  const [first, ...others] = readings;
  if (!first) return { ok: false, code: 'too-heavy' };
  if (others.some((one) => one.steps !== first.steps || one.isExact !== first.isExact))
    return { ok: false, code: 'ambiguous', readings };
  if (first.isExact) return { ok: true, steps: first.steps };
  return isForeign(first.as, MASS_STEPS[step].unit)
    ? { ok: false, code: 'ambiguous', readings }
    : { ok: false, code: 'off-step' };
}

/** Whether a weight was written in the other system than the event's, where it can only be converted and rounded. */
function isForeign(as: ReadAs, unit: MassUnit): boolean {
  const metric = as === 'kilograms' || as === 'grams';
  return metric !== (unit === 'kg') || (unit === 'lb' && as !== 'pounds');
}

/** A weight as a scale shows it, in grams; where it can be meant in several ways, each of them. */
export type ParsedMass =
  | { ok: true; massG: number; as: ReadAs }
  | { ok: false; code: 'not-a-weight' | 'too-heavy' }
  | { ok: false; code: 'ambiguous'; readings: { as: ReadAs; massG: number }[] };

/**
 * A scale's reading from what a person typed, to whatever digit the scale shows; no step is asked of it.
 * @param unit what a number without a unit is in
 */
export function parseMass(text: string, unit: MassUnit): ParsedMass {
  const meant = massesMeant(text.trim(), unit);
  if (meant.length === 0) return { ok: false, code: 'not-a-weight' };
  const readings = meant
    .filter(({ mass }) => mass.numerator <= HEAVIEST_NG * mass.denominator)
    .map(({ as, mass }) => ({ as, massG: Number(mass.numerator) / Number(mass.denominator) / 1e9 }));
  const [first, ...others] = readings;
  if (!first) return { ok: false, code: 'too-heavy' };
  if (others.some((one) => Math.abs(one.massG - first.massG) > 1e-6))
    return { ok: false, code: 'ambiguous', readings };
  return { ok: true, ...first };
}

const POUND_WORD = String.raw`(?:lbs?|pounds?|#)\.?`;
const OUNCE_WORD = String.raw`(?:oz|ounces?)\.?`;
const NUMBER = String.raw`[\d.,/⅛¼⅜½⅝¾⅞]+(?: \d{1,3}\/\d{1,3})?`;
const POUNDS_OUNCES = new RegExp(
  `^(\\d{1,4})\\s*${POUND_WORD}\\s*,?\\s*(${NUMBER})\\s*(?:${OUNCE_WORD})?$`,
  'i',
);
const HYPHENED = new RegExp(`^(\\d{1,4})\\s*[-–]\\s*(${NUMBER})$`);
const WITH_UNIT = new RegExp(`^(${NUMBER})\\s*(${POUND_WORD}|${OUNCE_WORD}|kgs?|grams?|g)$`, 'i');

function massesMeant(text: string, unit: MassUnit): Meant[] {
  const pair = POUNDS_OUNCES.exec(text);
  if (pair) return poundsAndOunces(pair[1] ?? '', pair[2] ?? '');
  const hyphened = HYPHENED.exec(text);
  if (hyphened) {
    const both = poundsAndOunces(hyphened[1] ?? '', hyphened[2] ?? '');
    // 3-1/4: three pounds and a quarter of one, or of an ounce?
    const mixed = parseRational(text);
    return mixed ? [...both, meantIn('pounds', mixed)] : both;
  }
  const written = WITH_UNIT.exec(text);
  if (written) {
    const value = parseRational(written[1] ?? '');
    return value ? [meantIn(unitNamed(written[2] ?? ''), value)] : [];
  }
  const value = parseRational(text);
  if (!value) return [];
  if (unit === 'lb') return [meantIn('pounds', value)];
  if (unit === 'kg') return isManyGrams(text) ? [meantIn('kilograms', value), meantIn('grams', value)] : [meantIn('kilograms', value)]; // prettier-ignore
  return [...decimalOunces(text), meantIn('pounds', value)];
}

/** A bare `1474` where kilograms count. */
const isManyGrams = (text: string): boolean => /^\d{3,6}$/.test(text);

/** `3.4` where pounds and ounces count: three pounds and four ounces, or four tenths of a pound? */
function decimalOunces(text: string): Meant[] {
  const parts = /^(\d{1,4})[.,](\d{1,2})$/.exec(text);
  // With a digit that no ounces begin with, such as 3.04 or 3.25, it can only be a decimal.
  if (!parts || /^0\d|^00?$/.test(parts[2] ?? '')) return [];
  return poundsAndOunces(parts[1] ?? '', parts[2] ?? '');
}

function poundsAndOunces(pounds: string, ounces: string): Meant[] {
  const rest = parseRational(ounces);
  if (!rest || rest.numerator >= 16n * rest.denominator) return [];
  return [
    {
      as: 'pounds-and-ounces',
      mass: {
        numerator: (16n * BigInt(pounds) * rest.denominator + rest.numerator) * UNIT_NG.ounces,
        denominator: rest.denominator,
      },
    },
  ];
}

function unitNamed(written: string): Exclude<ReadAs, 'length' | 'pounds-and-ounces'> {
  const small = written.toLowerCase();
  if (small.startsWith('k')) return 'kilograms';
  if (small.startsWith('g')) return 'grams';
  return small.startsWith('o') ? 'ounces' : 'pounds';
}

function meantIn(as: keyof typeof UNIT_NG, { numerator, denominator }: Rational): Meant {
  return { as, mass: { numerator: numerator * UNIT_NG[as], denominator } };
}

// Numbers --------------------------------------------------------------------------------------------------------

function stepsOf(
  { numerator, denominator }: Rational,
  unit: bigint,
  step: bigint,
): { steps: number; isExact: boolean } {
  const size = numerator * unit;
  const per = denominator * step;
  return { steps: Number(size / per), isExact: size % per === 0n };
}

const GLYPH_EIGHTHS = new Map<string, bigint>(EIGHTHS.map((glyph, eighths) => [glyph, BigInt(eighths)]));

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
