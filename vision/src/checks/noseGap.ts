import { findingOf, type Finding } from '../findings/findings.ts';
import { NOSE_HEIGHT_SHARE } from '../see-catch/headView.ts';
import type { NoseSeen } from '../see-catch/nose.ts';
import type { SeenCatch } from '../see-catch/seenCatch.ts';
import type { Check } from './check.ts';

export const noseGap: Check<'fish'> = {
  ids: ['nose-gap'],
  live: 'nose',
  judge: ({ seen, nose, head }) => [noseFinding(seen, nose, head.axisMm)],
};

/** Fewer mm than this are not told from a nose that touches; from so many on a person looks. */
const LEAST_GAP_MM = 4.5;
const LEAST_LOOK_MM = 3.9;

export function noseFinding(seen: SeenCatch, nose: NoseSeen | null, axisMm: number): Finding {
  const check = 'nose-gap';
  if (!nose) return findingOf(check, 'clear', 0.3, { code: 'camera-over-stop' });
  const { gapMm, leastGapMm, sigmaMm } = nose;
  const place = seen.toPhoto(Math.max(0, gapMm), axisMm, NOSE_HEIGHT_SHARE * seen.farMm);
  const isApart = gapMm > Math.max(LEAST_GAP_MM, 2.6 * sigmaMm);
  const isApartAtLeast = leastGapMm > Math.max(0.7 * LEAST_GAP_MM, 1.5 * sigmaMm);
  const measure = { value: Math.max(0, gapMm), unit: 'mm' } as const;
  if (isApart && isApartAtLeast)
    return findingOf(check, 'fault', 0.9, { code: 'nose-apart' }, place, measure);
  if (isApart || gapMm > Math.max(LEAST_LOOK_MM, 1.7 * sigmaMm))
    return findingOf(check, 'look', 0.5, { code: 'nose-in-dark' }, place, measure);
  return findingOf(check, 'clear', gapMm < 2 * sigmaMm ? 0.9 : 0.6, { code: 'nose-touches' }, null, measure);
}
