export { DEMO_WATERS, IN_REED_BAY } from './waters.ts';
export {
  BOAT_CUP,
  BOAT_CUP_SHEET,
  planBenchScale,
  planWeighIn,
  planWell,
  type PlannedBag,
} from './boatCup.ts';
export { DEMO_ANGLERS, DEMO_OFFICIALS, type DemoPerson } from './people.ts';
export {
  DEMO_EVENT,
  DEMO_SEED,
  DEMO_SHEET,
  demoId,
  planDemo,
  type DemoCatch,
  type DemoCustody,
  type DemoDecision,
} from './scenario.ts';
