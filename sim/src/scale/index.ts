export { BEAM } from './beam.ts';
export { buildScale, hangOnBeam, type SimulatedScale } from './readings.ts';
