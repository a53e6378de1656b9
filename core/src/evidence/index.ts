export { TONES, worstOf, type Finding, type Reason, type Tone } from './finding.ts';
export { distanceM, type Position } from './position.ts';
