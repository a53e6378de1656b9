import { G_PER_OUNCE } from '../units/index.ts';
import { roundingVariance, type ScaleKind } from './errorModel.ts';
import { toleranceG, type AccuracyClass } from './tolerance.ts';

/**
 * Three honesties of a hanging scale, from a good one to a spring in the sun, to begin with until checks say more. Our
 * own assumptions; a scale without a class mark has no tolerance that anybody promised.
 */
export const SCALE_KINDS = {
  good: {
    divisionG: 5,
    capacityG: 25_000,
    repeatabilityG: 4,
    gainSigma: 0.003,
    zeroSigmaG: 4,
    driftGPerRootHour: 2,
  },
  usual: {
    divisionG: G_PER_OUNCE / 2,
    capacityG: 22_680,
    repeatabilityG: 14,
    gainSigma: 0.008,
    zeroSigmaG: 10,
    driftGPerRootHour: 5,
  },
  poor: {
    divisionG: 2 * G_PER_OUNCE,
    capacityG: 11_340,
    repeatabilityG: 30,
    gainSigma: 0.02,
    zeroSigmaG: 25,
    driftGPerRootHour: 12,
  },
} as const satisfies Record<string, ScaleKind>;

export type ScaleQuality = keyof typeof SCALE_KINDS;

/**
 * What an accuracy class says of a scale before anybody checks it: its tolerances read as two standard deviations, the
 * smallest one as scatter and rounding, the one at full load as gain. Our own reading; the zero is set within a quarter of
 * a division (OIML R 76-1, 4.5.2, from memory), and is thought to walk by as much in an hour.
 */
export function kindOfClass(accuracyClass: AccuracyClass, divisionG: number, capacityG: number): ScaleKind {
  const one = toleranceG(accuracyClass, divisionG, 0) / 2;
  return {
    divisionG,
    capacityG,
    repeatabilityG: Math.sqrt(one ** 2 - roundingVariance(divisionG)),
    gainSigma: toleranceG(accuracyClass, divisionG, capacityG) / 2 / capacityG,
    zeroSigmaG: divisionG / 4,
    driftGPerRootHour: divisionG / 4,
  };
}
