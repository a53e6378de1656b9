import {
  LENGTH_STEPS,
  MASS_STEPS,
  gFromSteps,
  isMassStep,
  mmFromSteps,
  type StepId,
} from '@lauta/core/units';

export interface Axis {
  /** The axis ends here, in whole steps. */
  endSteps: number;
  ticks: { steps: number; share: number; label: string | null }[];
}

/** Units between numbers: the smallest of these that leaves at most a dozen. */
const SPACINGS = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000];
const MOST_NUMBERS = 12;
const SHORTEST_MM = 500;
const LIGHTEST_G = 2500;

/** One ruled axis for all bars, a little longer than the longest of them. */
export function rulerAxis(longestSteps: number, step: StepId): Axis {
  const { stepsPerUnit } = isMassStep(step) ? MASS_STEPS[step] : LENGTH_STEPS[step];
  const leastSteps = Math.ceil(
    isMassStep(step) ? LIGHTEST_G / gFromSteps(1, step) : SHORTEST_MM / mmFromSteps(1, step),
  );
  const units = Math.max(longestSteps * 1.02, leastSteps) / stepsPerUnit;
  const spacing = SPACINGS.find((one) => units / one <= MOST_NUMBERS) ?? Math.ceil(units / MOST_NUMBERS);
  const minor = spacing % 5 === 0 ? spacing / 5 : spacing / 2;
  const endSteps = Math.ceil(units / minor) * minor * stepsPerUnit;
  const count = Math.round(endSteps / stepsPerUnit / minor);
  const perNumber = Math.round(spacing / minor);
  return {
    endSteps,
    ticks: Array.from({ length: count + 1 }, (_, i) => ({
      steps: i * minor * stepsPerUnit,
      share: i / count,
      label: i % perNumber === 0 ? String(i * minor) : null,
    })),
  };
}
