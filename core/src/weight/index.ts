export {
  GUESS_WITHIN,
  judgeWeight,
  standardWeightsG,
  weightRange,
  type WeightRange,
  type WeightFit,
} from './standardWeight.ts';
