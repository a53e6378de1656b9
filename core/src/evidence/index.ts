/** What a check says of a photograph, its file, its way here: nothing to see, look yourself, wrong. People decide. */
export const VERDICTS = ['clear', 'look', 'fault'] as const;
export type FindingVerdict = (typeof VERDICTS)[number];
export { distanceM, type Position } from './position.ts';
