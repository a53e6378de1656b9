export { BEAM, SCALE_KINDS, type ScaleQuality } from './kinds.ts';
export { buildScale, hangOnBeam, type SimulatedScale } from './readings.ts';
