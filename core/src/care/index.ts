export {
  CLOCK_PHASES,
  WATER_STEPS,
  clockOf,
  mended,
  nextSteps,
  tapped,
  untapped,
  type CatchClock,
  type ClockPhase,
  type Lift,
  type TapRefusal,
  type WaterEvent,
  type WaterStep,
} from './catchClock.ts';
export type { Handling } from './handling.ts';
export {
  FREE_TREBLE,
  HAZARDS,
  HAZARD_CAUTION,
  HOOK_PLACES,
  UNHOOKING,
  hazardOf,
  hookAdvice,
  type Hazard,
  type HazardId,
  type HookAdvice,
  type HookPlace,
} from './hazards.ts';
export {
  FORGOTTEN_SECONDS,
  airLimitSeconds,
  clockVerdict,
  fightLimitSeconds,
  isBoardHot,
  isLiftForbidden,
  type ClockVerdict,
  type WaterConditions,
} from './limits.ts';
export { GUESSED_POUNDS, G_PER_POUND } from './mass.ts';
export {
  SCHOOLS,
  SCHOOL_PLACES,
  schoolsAt,
  sideOf,
  type ChosenSchools,
  type School,
  type SchoolId,
  type SchoolPlace,
  type SideOf,
} from './schools.ts';
export {
  SIGNS_SEEN,
  SIGN_WORDS,
  VITALITY_SIGNS,
  judgeVitality,
  type SignSeen,
  type Vitality,
  type VitalitySign,
} from './vitality.ts';
