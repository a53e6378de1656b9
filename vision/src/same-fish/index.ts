export { compareFlanks, type FlankMatch } from './compare.ts';
export { HIDDEN, describeFlank, type FlankDescriptor } from './describe.ts';
export { FlankIndex, type Candidate, type IndexedFish } from './flankIndex.ts';
export {
  SAME_ANSWERS as SAME_VERDICTS,
  likenessOf,
  type KnownFlank,
  type Likeness,
  type LikenessReasons,
  type SameAnswer as SameVerdict,
} from './likeness.ts';
export {
  FLANK_ACROSS,
  FLANK_ALONG,
  FLANK_COLUMNS,
  FLANK_ROWS,
  flankPlace,
  straightenFlank,
  type Flank,
  type FlankFrame,
} from './straighten.ts';
export { flankPattern, keepFlank, type KeptFlank } from './keptFlank.ts';
