import { createHash } from 'node:crypto';
import { PHOTOGRAPH_LIMITS } from '@lauta/contract';
import { isJpeg, jpegStructure, jpegTrouble, readExif } from '@lauta/vision';
import { refuse } from '../base/refusal.ts';
import { openDecoder } from './decoder.ts';
import type { Completion } from './photographStore.ts';
import type { AccountId } from '@lauta/core/ids';

const decoder = openDecoder();

const REFUSED_AS = {
  broken: 'picture-broken',
  'too-long': 'picture-too-complex',
  // Its process ended by something else: the sender tries again.
  ended: 'bench-busy',
} as const;

/**
 * Checks a file by its content, from the cheapest question to the dearest, and makes the copies without metadata.
 * Refused: what is not a JPEG, whatever its name; pictures out of bounds; what costs more to decode than any
 * photograph; files that break off.
 */
export async function inspectJpeg(
  accountId: AccountId,
  bytes: Uint8Array,
): Promise<Omit<Completion, 'completedAt'>> {
  if (!isJpeg(bytes)) refuse('not-a-jpeg');
  const structure = jpegStructure(bytes);
  if (!structure) refuse('picture-broken');
  const { maxSidePx, maxPixels, minSidePx } = PHOTOGRAPH_LIMITS;
  const stored = { widthPx: structure.widthPx, heightPx: structure.heightPx };
  const sides = [stored.widthPx, stored.heightPx];
  if (Math.max(...sides) > maxSidePx || stored.widthPx * stored.heightPx > maxPixels) {
    refuse('picture-too-large', { ...stored, maxSidePx, maxPixels });
  }
  if (Math.min(...sides) < minSidePx) refuse('picture-too-small', { ...stored, minSidePx });
  const trouble = jpegTrouble(structure);
  if (trouble) refuse(trouble === 'broken' ? 'picture-broken' : 'picture-too-complex');
  const exif = await readExif(bytes);
  const decoded = await decoder.decode(accountId, bytes, maxPixels);
  if (!decoded.ok) refuse(REFUSED_AS[decoded.code]);
  const { isLying } = decoded.copies;
  return {
    widthPx: isLying ? stored.heightPx : stored.widthPx,
    heightPx: isLying ? stored.widthPx : stored.heightPx,
    exif,
    copies: (['screen', 'thumb'] as const).map((variant) => {
      const made = new Uint8Array(decoded.copies[variant]);
      return { variant, bytes: made, sha256: createHash('sha256').update(made).digest('hex') };
    }),
  };
}
