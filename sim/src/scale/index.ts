export { BEAM } from './beam.ts';
export { buildScale, hangOnBeam, type SimulatedScale } from './simulatedScale.ts';
export { ScaleStream, type Hanging, type StreamOptions } from './stream.ts';
