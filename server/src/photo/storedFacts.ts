import exifr from 'exifr';
import sharp from 'sharp';
import { alikeGreys, readJpegTables, standardQuality, type FileFacts } from '@lauta/core/file-evidence';

/** Side of the grid on which thumbnail and picture are compared. */
const GRID = 16;
const MOST_THUMBNAIL_BYTES = 200_000;

export type StoredFacts = Pick<
  FileFacts,
  | 'modifiedAtLocal'
  | 'startsWithJfif'
  | 'standardQuality'
  | 'thumbnailAlike'
  | 'thumbnailAspect'
  | 'pictureAspect'
>;

/** What the bytes of a stored JPEG tell beside its EXIF: tables, last change, thumbnail. */
export async function storedFacts(bytes: Uint8Array): Promise<StoredFacts> {
  const tables = readJpegTables(bytes);
  const picture = await sharp(bytes, { failOn: 'none' }).metadata();
  return {
    modifiedAtLocal: await modifiedAt(bytes),
    startsWithJfif: tables?.startsWithJfif ?? false,
    standardQuality: standardQuality(tables?.quantisation.get(0) ?? []),
    pictureAspect: picture.width / picture.height,
    ...(await thumbnailFacts(bytes)),
  };
}

async function modifiedAt(bytes: Uint8Array): Promise<string | null> {
  try {
    const tags = (await exifr.parse(bytes, { reviveValues: false, translateValues: false, tiff: true })) as
      Record<string, unknown> | undefined;
    const value = tags?.['ModifyDate'];
    const fields = typeof value === 'string' ? /^(\d{4}):(\d\d):(\d\d) (\d\d:\d\d:\d\d)/.exec(value) : null;
    return fields ? `${fields[1]}-${fields[2]}-${fields[3]}T${fields[4]}` : null;
  } catch {
    return null;
  }
}

async function thumbnailFacts(
  bytes: Uint8Array,
): Promise<Pick<StoredFacts, 'thumbnailAlike' | 'thumbnailAspect'>> {
  try {
    const thumbnail = await exifr.thumbnail(bytes);
    if (!thumbnail || thumbnail.length > MOST_THUMBNAIL_BYTES)
      return { thumbnailAlike: null, thumbnailAspect: null };
    const { width, height } = await sharp(thumbnail).metadata();
    return {
      thumbnailAlike: alikeGreys(await greysOf(thumbnail), await greysOf(bytes)),
      thumbnailAspect: width / height,
    };
  } catch {
    // A thumbnail that cannot be decoded tells nothing.
    return { thumbnailAlike: null, thumbnailAspect: null };
  }
}

async function greysOf(bytes: Uint8Array): Promise<number[]> {
  const greys = await sharp(bytes, { failOn: 'none' })
    .resize(GRID, GRID, { fit: 'fill' })
    .greyscale()
    .raw()
    .toBuffer();
  return [...greys];
}
