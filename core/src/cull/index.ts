export { bestBag, type AboardFish } from './bestBag.ts';
export {
  HANGING_SHARE,
  RULE_GAP_G,
  adviseCull,
  thumbRule,
  type BeamAdvice,
  type CullAdvice,
  type CullOptions,
  type ReleaseOdds,
  type ThumbRule,
} from './advise.ts';
export {
  BEAM_OUTCOMES,
  USUAL_BEAM,
  outcomeProbability,
  posteriorOf,
  type Beam,
  type BeamOutcome,
  type Comparison,
  type MassGuess,
  type MassReading,
  type Posterior,
  type WeighedFish,
} from './posterior.ts';
