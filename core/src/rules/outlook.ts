import { LENGTH_STEPS, mmFromSteps } from '../units/index.ts';
import { stepsReached, type LengthMeasure } from './ruleSheet.ts';

/** What a measured length gives under a sheet, and how sure that is. */
export interface StepsOutlook {
  steps: number;
  /** How far the length is past the place where these steps are reached, mm. */
  marginMm: number;
  /** Whether the margin is wider than twice the standard uncertainty (about 97.7 %, normal, one side: GUM G.1.3). */
  isSafe: boolean;
  /** What is lacking to the next step, mm. */
  nextLacksMm: number;
}

const COVERAGE = 2;

/** What an angler needs to know before letting the fish go. */
export function stepsOutlook(measure: LengthMeasure, lengthMm: number, sigmaMm: number): StepsOutlook {
  const steps = stepsReached(measure, lengthMm);
  const halfStepMm = LENGTH_STEPS[measure.step].stepNm / 2e6;
  const thresholdMm = (count: number): number =>
    mmFromSteps(count, measure.step) - (measure.rounding === 'nearest' ? halfStepMm : 0);
  const marginMm = lengthMm - thresholdMm(steps);
  return {
    steps,
    marginMm,
    isSafe: steps === 0 || marginMm >= COVERAGE * sigmaMm,
    nextLacksMm: thresholdMm(steps + 1) - lengthMm,
  };
}
