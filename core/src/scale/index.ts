export {
  errorModelOf,
  noiseVarianceOf,
  roundingVariance,
  type ErrorModel,
  type Repeat,
  type ScaleCheck,
  type ScaleKind,
  type ScaleRecord,
  type Shown,
} from './errorModel.ts';
export {
  isScaleAct,
  scaleRefusal,
  takeScaleAct,
  type NamedScale,
  type ScaleAct,
  type Scales,
} from './acts.ts';
export { SCALE_KINDS, kindOfClass, type ScaleQuality } from './kinds.ts';
export { ACCURACY_CLASSES, leastLoadG, toleranceG, type AccuracyClass } from './tolerance.ts';
export { judgeScale, withinTolerance, type ScaleStanding } from './scaleStanding.ts';
export { formatScaleLine, lineSplitter, parseScaleLine, type ScaleLine } from './scaleLine.ts';
export { RESTLESS_MS, STEADY_MS, scaleState, type ScaleSample, type ScaleState } from './steady.ts';
