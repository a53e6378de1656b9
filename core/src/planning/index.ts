export {
  CRAFTS,
  GATE_STEPS,
  PREPARE_GROUPS,
  PREPARE_ITEMS,
  SELF_CHECKS,
  movedStep,
  prepareList,
  readinessOf,
  routineOf,
  type Craft,
  type GateStep,
  type PrepareGroup,
  type PrepareItem,
  type PrepareItemId,
  type Readiness,
  type SelfCheck,
} from './prepare.ts';
export { judgeTestShot, type TestShot } from './testShot.ts';
