export {
  FREE_TREBLE,
  HAZARD_CAUTION,
  HAZARD_WORDS,
  HOOK_ADVICE_WORDS,
  UNHOOKING,
  type HazardWords,
} from './hazards.ts';
export { PREPARE_WORDS, type PrepareWords } from './prepare.ts';
export { schoolWords } from './schools.ts';
export { SIGN_WORDS } from './vitality.ts';
