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
