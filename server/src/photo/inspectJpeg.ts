import { createHash } from 'node:crypto';
import pLimit from 'p-limit';
import sharp from 'sharp';
import { PHOTOGRAPH_LIMITS } from '@lauta/contract';
import { isJpeg, readExif } from '@lauta/core/photo';
import { refuse } from '../refusal.ts';
import type { Completion } from './photographStore.ts';

const SCREEN_SIDE_PX = 1600;
const THUMB_SIDE_PX = 320;

/** A full decode takes some 150 MB: two at a time leave the server its memory and a core. */
const decoding = pLimit(2);

/**
 * Checks a file by its content, from the cheapest question to the dearest, and makes the copies without metadata.
 * Refused: what is not a JPEG, whatever its name; pictures out of bounds; files that break off.
 */
export async function inspectJpeg(bytes: Uint8Array): Promise<Omit<Completion, 'completedAt'>> {
  if (!isJpeg(bytes)) refuse('not-a-jpeg');
  const { widthPx, heightPx } = await readHeader(bytes);
  const { maxSidePx, maxPixels, minSidePx } = PHOTOGRAPH_LIMITS;
  if (Math.max(widthPx, heightPx) > maxSidePx || widthPx * heightPx > maxPixels) {
    refuse('picture-too-large', { widthPx, heightPx, maxSidePx, maxPixels });
  }
  if (Math.min(widthPx, heightPx) < minSidePx) refuse('picture-too-small', { widthPx, heightPx, minSidePx });
  const exif = await readExif(bytes);
  const copies = await decoding(() => makeCopies(bytes));
  return { widthPx, heightPx, exif, copies };
}

/** Size of the upright picture, from the header alone. */
async function readHeader(bytes: Uint8Array): Promise<{ widthPx: number; heightPx: number }> {
  try {
    const header = await sharp(bytes, { limitInputPixels: false }).metadata();
    if (header.format !== 'jpeg') refuse('not-a-jpeg');
    const lying = (header.orientation ?? 1) >= 5;
    return lying
      ? { widthPx: header.height, heightPx: header.width }
      : { widthPx: header.width, heightPx: header.height };
  } catch {
    refuse('picture-broken');
  }
}

async function makeCopies(bytes: Uint8Array): Promise<Completion['copies']> {
  try {
    // Without keepMetadata() sharp writes none; rotate() turns the picture upright first.
    const upright = sharp(bytes, { limitInputPixels: PHOTOGRAPH_LIMITS.maxPixels, failOn: 'error' }).rotate();
    const copy = async (variant: 'screen' | 'thumb', side: number, quality: number) => {
      const made = await upright
        .clone()
        .resize(side, side, { fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality, mozjpeg: false })
        .toBuffer();
      return {
        variant,
        bytes: new Uint8Array(made),
        sha256: createHash('sha256').update(made).digest('hex'),
      };
    };
    return [await copy('screen', SCREEN_SIDE_PX, 82), await copy('thumb', THUMB_SIDE_PX, 76)];
  } catch {
    refuse('picture-broken');
  }
}
