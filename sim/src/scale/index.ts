export { BEAM } from './beam.ts';
export { buildScale, hangOnBeam, type SimulatedScale } from './readings.ts';
export { ScaleStream, type Hanging, type StreamOptions } from './stream.ts';
