export { fillBag, completedAtMs, type Bag } from './bag.ts';
export {
  scoreFish,
  type Decision,
  type FishScore,
  type NotCounting,
  type ScoringCatch,
} from './scoreFish.ts';
export { rankEntrants, type RankOptions, type Score, type Standing } from './rankEntrants.ts';
