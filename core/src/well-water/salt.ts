import { requireBetween } from './oxygen.ts';

/** 0.3 to 0.5 per cent of salt without iodine: the usual range for moving fish (Piper et al. 1982; Carmichael & Tomasso 1984). */
export const SALT_PERCENT = { low: 0.3, high: 0.5 } as const;

/** Salt for a well, g: a per cent is ten grams in a litre. */
export function saltG(volumeL: number, percent: number): number {
  requireBetween('volumeL', volumeL, 1, 5000);
  requireBetween('percent', percent, 0, 1);
  return volumeL * percent * 10;
}

/**
 * Share of total ammonia that is un-ionised and harms (Emerson, Russo, Lund & Thurston 1975, Journal of the Fisheries
 * Research Board of Canada 32:2379-2383, whose table takes 273.2 for the freezing point).
 */
export function unionisedShare(celsius: number, ph: number): number {
  requireBetween('celsius', celsius, 0, 40);
  requireBetween('ph', ph, 4, 11);
  const pKa = 0.09018 + 2729.92 / (celsius + 273.2);
  return 1 / (1 + 10 ** (pKa - ph));
}
