import type { NamedScale } from './acts.ts';
import { errorModelOf, type ScaleCheck, type ScaleRecord } from './errorModel.ts';
import { toleranceG } from './tolerance.ts';

/** What a scale's checks say of it, at one weight and now. */
export interface ScaleStanding {
  /** What it shows over the true weight, g; negative where it reads light. */
  readsHeavyG: number;
  /** Standard uncertainty of one fish's weight by it, g. */
  sigmaG: number;
  /** Whether two standard uncertainties stay within the event's step. */
  isGoodEnough: boolean;
  /** Which way it errs by more than its own doubt; null where it can't be told from true. */
  errs: 'light' | 'heavy' | null;
  /** Hours since it was last checked; null when it never was. */
  hoursSinceCheck: number | null;
  /** No check yet today, or none since long: it is due. */
  isDue: boolean;
}

/** After so long the sun and the cold have moved the zero. Common practice, no source: checked each morning. */
const DUE_HOURS = 12;
const MS_PER_HOUR = 3_600_000;
const COVERAGE = 2;
/** Units are turned into grams and back. */
const HAIR_G = 1e-6;

/**
 * Judges a scale for weighing a fish.
 * @param massG about what is to be weighed
 * @param stepG the event's step
 */
export function judgeScale(record: ScaleRecord, massG: number, stepG: number, nowMs: number): ScaleStanding {
  const model = errorModelOf(record);
  const shown = { readG: massG, atMs: nowMs };
  const biasG = model.biasG(shown);
  const biasSigmaG = Math.sqrt(Math.max(0, model.biasCovariance(shown, shown)));
  const sigmaG = Math.sqrt(biasSigmaG ** 2 + model.noiseVariance);
  const lastMs = record.checks.reduce<number | null>(
    (last, { atMs }) => (last === null || atMs > last ? atMs : last),
    null,
  );
  const hoursSinceCheck = lastMs === null ? null : (nowMs - lastMs) / MS_PER_HOUR;
  return {
    readsHeavyG: biasG,
    sigmaG,
    isGoodEnough: COVERAGE * sigmaG <= stepG,
    errs: Math.abs(biasG) <= COVERAGE * biasSigmaG ? null : biasG > 0 ? 'heavy' : 'light',
    hoursSinceCheck,
    isDue: hoursSinceCheck === null || hoursSinceCheck > DUE_HOURS,
  };
}

/**
 * Whether a check kept the tolerance of the scale's class at that load; an empty scale has to show nothing at all.
 * @returns null where the scale bears no class mark
 */
export function withinTolerance(
  { kind: { divisionG }, accuracyClass }: Pick<NamedScale, 'kind' | 'accuracyClass'>,
  { trueG, readG }: Pick<ScaleCheck, 'trueG' | 'readG'>,
): boolean | null {
  if (accuracyClass === null) return null;
  const off = Math.abs(readG - trueG);
  // Half a division is what a display rounds away.
  if (trueG === 0) return off < divisionG / 2;
  return off <= toleranceG(accuracyClass, divisionG, trueG) + HAIR_G;
}
