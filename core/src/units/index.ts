export {
  LENGTH_STEPS,
  MM_PER_INCH,
  formatMeasured,
  formatSteps,
  mmFromSteps,
  parseSteps,
  stepsFromMm,
  type LengthRefusal,
  type LengthStepId,
  type LengthUnit,
  type ParsedSteps,
  type Rounding,
} from './length.ts';
export { G_PER_POUND } from './mass.ts';
