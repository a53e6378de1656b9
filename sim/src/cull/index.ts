export {
  CULL_METHODS,
  simulateDay,
  type CullMethod,
  type CullTally,
  type DayOutcome,
} from './simulateDay.ts';
export { figuresOf, type MethodFigures, type QualityFigures } from './figures.ts';
