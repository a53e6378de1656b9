export {
  GUESS_WITHIN,
  judgeWeight,
  standardWeightsG,
  weightRange,
  type WeightRange,
  type WeightVerdict,
} from './standardWeight.ts';
