export { mergedHandling, type TimedBy } from './mergedHandling.ts';
export {
  WATER_STEPS,
  clockOf,
  mainStep,
  filledIn,
  mended,
  nextSteps,
  returnedInTime,
  tapped,
  untapped,
  type CatchClock,
  type ClockPhase,
  type Lift,
  type TapRefusal,
  type WaterEvent,
  type WaterStep,
} from './catchClock.ts';
export { LEFT_WITH, type Handling, type LeftWith } from './handling.ts';
export {
  HAZARDS,
  HOOK_ADVICE_CODES,
  HOOK_PLACES,
  hazardOf,
  hookAdvice,
  type Hazard,
  type HazardId,
  type HookAdvice,
  type HookAdviceCode,
  type HookPlace,
} from './hazards.ts';
export {
  FORGOTTEN_SECONDS,
  GUESSED_MASSES_G,
  airLimitSeconds,
  clockState,
  fightLimitSeconds,
  isBoardHot,
  isLiftForbidden,
  restSeconds,
  type ClockState,
  type WaterConditions,
} from './limits.ts';
export {
  SCHOOLS,
  SCHOOL_PLACES,
  schoolsAt,
  schoolsFirstAt,
  sideOf,
  type ChosenSchools,
  type KnownSchool,
  type SchoolId,
  type SchoolPlace,
  type SideOf,
} from './schools.ts';
export {
  SIGNS_SEEN,
  VITALITY_SIGNS,
  judgeVitality,
  type SignSeen,
  type Vitality,
  type VitalitySign,
} from './vitality.ts';
export { liftFinding, type LiftFinding } from './liftFinding.ts';
