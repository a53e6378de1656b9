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
export { SCALE_KINDS, type ScaleQuality } from './kinds.ts';
export { judgeScale, type ScaleVerdict } from './verdict.ts';
export { formatScaleLine, lineSplitter, parseScaleLine, type ScaleLine } from './protocol.ts';
export { RESTLESS_MS, STEADY_MS, scaleState, type ScaleSample, type ScaleState } from './steady.ts';
