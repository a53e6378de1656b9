export { INFRACTIONS, type Infraction } from './infractions.ts';
export {
  RULE_SHEET_VERSION,
  TIE_BREAKS,
  applyPenalties,
  findSpecies,
  isLengthSheet,
  isWeightSheet,
  stepsReached,
  type FishPenalty,
  type LengthMeasure,
  type LengthSheet,
  type Measure,
  type Penalty,
  type PenaltyRule,
  type PenaltySum,
  type RuleSheet,
  type Slot,
  type SpeciesRule,
  type TieBreak,
  type WeighInRules,
  type WeightMeasure,
  type WeightSheet,
} from './ruleSheet.ts';
export { keptRules } from './keptRules.ts';
export { waysToLose, type WayToLose } from './waysToLose.ts';
export { stepsOutlook, type StepsOutlook } from './outlook.ts';
export { sheetOfVersion, versionInForce, type RuleBook } from './ruleBook.ts';
export { upcastRuleSheet } from './upcast.ts';
export { bagLimits, fitsLimits, isInSlot, isShort, type BagLimit, type KeptFish } from './bagLimits.ts';
