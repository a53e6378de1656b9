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
