import type { PhotoExif } from '@lauta/core/file-evidence';
import sharp from 'sharp';
import { PHOTOGRAPH_LIMITS } from '@lauta/contract';
import { analysedSize, readExif, uprightRaster, type Raster } from '@lauta/vision';

export interface DecodedPhotograph {
  /** Upright, as it is to be seen. */
  raster: Raster;
  /** The upright original's size; the raster is smaller when the original is very large. */
  widthPx: number;
  heightPx: number;
  exif: PhotoExif;
  /** The file breaks off: what is missing is grey. */
  isTruncated: boolean;
}

/**
 * Decodes a JPEG once, upright and in sRGB values as stored (no colour management: the browser does none either).
 * @throws what sharp throws for a file that is no picture
 */
export async function decodePhotograph(bytes: Uint8Array): Promise<DecodedPhotograph> {
  const exif = await readExif(bytes);
  const header = await sharp(bytes, { limitInputPixels: false }).metadata();
  const { maxPixels } = PHOTOGRAPH_LIMITS;
  if (header.width * header.height > maxPixels)
    throw new RangeError(`picture: expected at most ${maxPixels} px, got ${header.width} × ${header.height}`);
  const stored = analysedSize(header.width, header.height);
  const read = async (failOn: 'error' | 'none'): Promise<Raster> => {
    const { data, info } = await sharp(bytes, { failOn, limitInputPixels: maxPixels })
      .resize(stored.widthPx, stored.heightPx, { fit: 'fill', kernel: 'linear' })
      .toColourspace('srgb')
      .removeAlpha()
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return {
      widthPx: info.width,
      heightPx: info.height,
      data: new Uint8ClampedArray(data.buffer, data.byteOffset, data.length),
    };
  };
  let isTruncated = false;
  const raster = await read('error').catch(() => {
    isTruncated = true;
    return read('none');
  });
  const upright = uprightRaster(raster, exif.orientation);
  const scale = header.width / stored.widthPx;
  return {
    raster: upright,
    widthPx: Math.round(upright.widthPx * scale),
    heightPx: Math.round(upright.heightPx * scale),
    exif,
    isTruncated,
  };
}
