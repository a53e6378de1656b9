/** What a check says of a photograph, its file, its way here: nothing to see, look yourself, wrong. People decide. */
export const TONES = ['clear', 'look', 'fault'] as const;
export type Tone = (typeof TONES)[number];
export { distanceM, type Position } from './position.ts';
