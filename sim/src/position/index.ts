export { driftOverMere, type SimulatedFix } from './drift.ts';
