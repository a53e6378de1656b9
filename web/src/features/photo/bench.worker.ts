import { imageSize } from 'image-size';
import { PHOTOGRAPH_LIMITS } from '@lauta/contract';
import { hashHex } from '@lauta/core/ledger';
import {
  checkQuad,
  findBoard,
  readBoard,
  readExif,
  rectifyStrip,
  type Quad,
  type Raster,
} from '@lauta/core/photo';
import { serveCalls, type Port } from '../../workers/calls.ts';
import type { BenchCalls, OpenedPhoto, PhotoRefusal } from './benchProtocol.ts';

/** Strips are never drawn finer than this: a larger photograph is taken down to it once. */
const WORKING_SIDE_PX = 3200;

let working: { raster: Raster; scale: number } | null = null;

serveCalls<BenchCalls>(self as unknown as Port, {
  async open({ photo }) {
    working = null;
    if (photo.size === 0) return refused('file-empty');
    if (photo.size > PHOTOGRAPH_LIMITS.maxBytes) return refused('picture-too-large');
    const bytes = new Uint8Array(await photo.arrayBuffer());
    const size = sizeOf(bytes);
    if (!size) return refused(isJpeg(bytes) ? 'picture-broken' : 'not-a-jpeg');
    const { maxSidePx, maxPixels, minSidePx } = PHOTOGRAPH_LIMITS;
    if (Math.max(size.widthPx, size.heightPx) > maxSidePx || size.widthPx * size.heightPx > maxPixels) {
      return refused('picture-too-large');
    }
    if (Math.min(size.widthPx, size.heightPx) < minSidePx) return refused('picture-too-small');
    try {
      working = await decode(photo, size);
    } catch {
      return refused('picture-broken');
    }
    return { ok: true, value: { ...size, sha256: hashHex(bytes), exif: await readExif(bytes) } };
  },

  read({ boardId, marks, photo }) {
    const { widthPx, heightPx, exif } = photo;
    return readBoard(boardOf(boardId), marks, { widthPx, heightPx, focal35Mm: exif.focal35Mm });
  },

  async strip({ boardId, corners, frame }) {
    if (!working || !checkQuad(corners).ok) return null;
    const { raster, scale } = working;
    const scaled = corners.map(([x, y]) => [x * scale, y * scale]) as unknown as Quad;
    const strip = rectifyStrip(raster, boardOf(boardId), scaled, frame);
    const pixels = new Uint8ClampedArray(strip.data);
    return { picture: await createImageBitmap(new ImageData(pixels, strip.widthPx, strip.heightPx)) };
  },
});

function refused(code: PhotoRefusal): { ok: false; code: PhotoRefusal } {
  return { ok: false, code };
}

function boardOf(boardId: string) {
  const board = findBoard(boardId);
  if (!board) throw new RangeError(`boardId: unknown ${boardId}`);
  return board;
}

const isJpeg = (bytes: Uint8Array): boolean => bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff;

/** Size of the upright picture, from the file's header alone; null for what is no JPEG. */
function sizeOf(bytes: Uint8Array): Pick<OpenedPhoto, 'widthPx' | 'heightPx'> | null {
  if (!isJpeg(bytes)) return null;
  try {
    const { width, height, orientation } = imageSize(bytes);
    return (orientation ?? 1) >= 5
      ? { widthPx: height, heightPx: width }
      : { widthPx: width, heightPx: height };
  } catch {
    return null;
  }
}

async function decode(photo: Blob, size: { widthPx: number; heightPx: number }): Promise<typeof working> {
  const scale = Math.min(1, WORKING_SIDE_PX / Math.max(size.widthPx, size.heightPx));
  const widthPx = Math.round(size.widthPx * scale);
  const heightPx = Math.round(size.heightPx * scale);
  const bitmap = await createImageBitmap(photo, {
    imageOrientation: 'from-image',
    ...(scale < 1 ? { resizeWidth: widthPx, resizeHeight: heightPx, resizeQuality: 'high' } : {}),
  });
  const context = new OffscreenCanvas(widthPx, heightPx).getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('canvas: expected a 2d context');
  context.drawImage(bitmap, 0, 0, widthPx, heightPx);
  bitmap.close();
  const { data } = context.getImageData(0, 0, widthPx, heightPx);
  return { raster: { widthPx, heightPx, data }, scale };
}
