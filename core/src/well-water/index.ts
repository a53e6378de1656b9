export {
  LEAST_MG_L,
  USUAL_ACTIVITY,
  minutesUntil,
  oxygenAfter,
  oxygenInTheEnd,
  oxygenUseMgPerHour,
  pressureAtm,
  saturationMgL,
  type Range,
  type WellWater,
} from './oxygen.ts';
export {
  FURTHEST_CELSIUS,
  MOST_CELSIUS_PER_HOUR,
  WARM_CELSIUS,
  iceKg,
  planCooling,
  type CoolingPlan,
} from './ice.ts';
export { SALT_PERCENT, saltG, unionisedShare } from './salt.ts';
