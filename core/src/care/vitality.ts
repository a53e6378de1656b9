/**
 * Signs that can be seen with the fish in the water. The first three are reflexes of the RAMP method as far as they need
 * no air (Davis 2010, Fish and Fisheries 11:1-11; Raby et al. 2012, J. Appl. Ecol. 49:90-98); the others are the
 * trade's signs that a fish is ready to go (common practice).
 */
export const VITALITY_SIGNS = ['upright', 'gills', 'tail-grab', 'fins', 'pulls'] as const;
export type VitalitySign = (typeof VITALITY_SIGNS)[number];

/** A sign that was not looked for is left out. */
export const SIGNS_SEEN = ['yes', 'no', 'doubtful'] as const;
export type SignSeen = (typeof SIGNS_SEEN)[number];

export interface Vitality {
  tested: number;
  /** Signs that are missing or doubtful. */
  impaired: number;
  /** impaired / tested, 0 to 1; null when nothing was looked at. */
  share: number | null;
  state: 'lively' | 'weak' | 'unknown';
}

/** From this share on a fish is called weak; two signs of five. Our own line: no published one holds for all fish. */
const WEAK_SHARE = 0.4;

/** Share of the signs that are missing. Doubtful counts as missing, what was not tested drops out (Davis 2010). */
export function judgeVitality(signs: Readonly<Partial<Record<VitalitySign, SignSeen>>>): Vitality {
  const seen = VITALITY_SIGNS.flatMap((sign) => signs[sign] ?? []);
  const impaired = seen.filter((one) => one !== 'yes').length;
  if (seen.length === 0) return { tested: 0, impaired: 0, share: null, state: 'unknown' };
  const share = impaired / seen.length;
  return { tested: seen.length, impaired, share, state: share >= WEAK_SHARE ? 'weak' : 'lively' };
}
