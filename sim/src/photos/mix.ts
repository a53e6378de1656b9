import { PHOTO_FAULTS, type PhotoFault } from '../camera/index.ts';

/** One photograph in three is without a fault, the others have each fault in turn. */
export function mixedFault(seed: number): PhotoFault | null {
  if (seed % 3 === 0) return null;
  const turn = Math.floor(seed / 3) * 2 + (seed % 3) - 1;
  return PHOTO_FAULTS[turn % PHOTO_FAULTS.length] ?? null;
}
