export { INFRACTIONS, type Infraction } from './infractions.ts';
export {
  RULE_SHEET_VERSION,
  TIE_BREAKS,
  applyPenalties,
  findSpecies,
  stepsReached,
  type Measure,
  type Penalty,
  type PenaltyRule,
  type PenaltySum,
  type RuleSheet,
  type SpeciesRule,
  type TieBreak,
} from './ruleSheet.ts';
export { waysToLose, type WayToLose } from './waysToLose.ts';
export { stepsOutlook, type StepsOutlook } from './outlook.ts';
export { sheetOfVersion, versionInForce, type RuleBook } from './ruleBook.ts';
export { upcastRuleSheet } from './upcast.ts';
