import { isLengthSheet, isWeightSheet, type RuleSheet, type WeighInRules } from '@lauta/core/rules';
import {
  gFromSteps,
  isMassStep,
  mmFromSteps,
  stepsFromG,
  stepsFromMm,
  type MassStepId,
  type StepId,
} from '@lauta/core/units';

/** A quarter pound, which many events take for a dead fish. */
const DEAD_FISH_G = 113.4;
const PER_LATE_MINUTE_G = 453.59237;

/**
 * The same sheet in another step: least sizes and deductions stay as they were, to the nearest step. From length to
 * weight and back they can't: the sheet then begins with the trade's common values.
 */
export function restep(sheet: RuleSheet, step: StepId): RuleSheet {
  const { rounding } = sheet.measure;
  if (isMassStep(step)) {
    if (!isWeightSheet(sheet)) return byWeight(sheet, step);
    const from = sheet.measure.step;
    const convert = (steps: number): number => stepsFromG(gFromSteps(steps, from), step, 'nearest');
    return {
      ...resized(sheet, convert),
      measure: { kind: 'weight', step, rounding },
      weighIn: sheet.weighIn && weighInResized(sheet.weighIn, convert),
    };
  }
  if (!isLengthSheet(sheet)) {
    return {
      ...cleared(sheet),
      measure: { kind: 'length', step, rounding },
      boards: ['birch-30in'],
      weighIn: undefined,
    };
  }
  const from = sheet.measure.step;
  return {
    ...resized(sheet, (steps) => stepsFromMm(mmFromSteps(steps, from), step, 'nearest')),
    measure: { kind: 'length', step, rounding },
  };
}

function byWeight(sheet: RuleSheet, step: MassStepId): RuleSheet {
  const dead = stepsFromG(DEAD_FISH_G, step, 'nearest');
  return {
    ...cleared(sheet),
    measure: { kind: 'weight', step, rounding: sheet.measure.rounding },
    boards: [],
    bagPeriod: 'day',
    weighIn: {
      deadFish: { kind: 'deduction', steps: dead },
      shortFish: { kind: 'not-counted', steps: dead },
      overLimit: { penalty: { kind: 'not-counted', steps: 0 }, takenOut: 'largest' },
      late: {
        graceMinutes: 0,
        stepsPerMinute: stepsFromG(PER_LATE_MINUTE_G, step, 'nearest'),
        refusedAfterMinutes: 15,
      },
      deadMayBeCulled: false,
      twoPeople: false,
    },
    tieBreaks: ['biggest-fish', 'more-alive'],
  };
}

const cleared = (sheet: RuleSheet): RuleSheet => ({
  ...sheet,
  species: sheet.species.map((one) => ({ ...one, minimumSteps: null })),
  penalties: [],
});

function resized(sheet: RuleSheet, convert: (steps: number) => number): RuleSheet {
  return {
    ...sheet,
    species: sheet.species.map((one) => ({
      ...one,
      minimumSteps: one.minimumSteps === null ? null : convert(one.minimumSteps),
    })),
    penalties: sheet.penalties.map(({ infraction, penalty }) => ({
      infraction,
      penalty:
        penalty.kind === 'deduction'
          ? { kind: 'deduction', steps: Math.max(1, convert(penalty.steps)) }
          : penalty,
    })),
  };
}

function weighInResized(rules: WeighInRules, convert: (steps: number) => number): WeighInRules {
  const penalty = (one: WeighInRules['deadFish']): WeighInRules['deadFish'] =>
    one.kind === 'disqualification' ? one : { ...one, steps: convert(one.steps) };
  return {
    ...rules,
    deadFish: penalty(rules.deadFish),
    shortFish: penalty(rules.shortFish),
    overLimit: { ...rules.overLimit, penalty: penalty(rules.overLimit.penalty) },
    late: { ...rules.late, stepsPerMinute: convert(rules.late.stepsPerMinute) },
  };
}
