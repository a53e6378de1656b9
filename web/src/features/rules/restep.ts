import type { RuleSheet } from '@lauta/core/rules';
import { mmFromSteps, stepsFromMm, type LengthStepId } from '@lauta/core/units';

/** The same sheet in another step: least lengths and deductions stay as long as they were, to the nearest step. */
export function restep(sheet: RuleSheet, step: LengthStepId): RuleSheet {
  const from = sheet.measure.step;
  const convert = (steps: number): number => stepsFromMm(mmFromSteps(steps, from), step, 'nearest');
  return {
    ...sheet,
    measure: { ...sheet.measure, step },
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
