import { NO_EXIF } from '@lauta/core/file-evidence';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { readExif } from '../index.ts';

/** A JPEG whose tags were written by another library (libvips). */
async function jpegWith(exif: Parameters<ReturnType<typeof sharp>['withExif']>[0]): Promise<Uint8Array> {
  const picture = sharp({ create: { width: 40, height: 30, channels: 3, background: '#876' } });
  return new Uint8Array(await picture.withExif(exif).jpeg().toBuffer());
}

describe('what a file tells of itself', () => {
  it('is its time with offset, focal length, device, software and place', async () => {
    const bytes = await jpegWith({
      IFD0: { Make: 'Test', Model: 'Phone 1', Software: 'Camera 2.0' },
      IFD2: { DateTimeOriginal: '2026:06:14 12:46:07', OffsetTimeOriginal: '+02:00', FocalLengthIn35mmFilm: '24' },
      IFD3: { GPSLatitudeRef: 'S', GPSLatitude: '12/1 30/1 0/1', GPSLongitudeRef: 'W', GPSLongitude: '61/1 15/1 0/1' },
    }); // prettier-ignore
    expect(await readExif(bytes)).toMatchObject({
      takenAtLocal: '2026-06-14T12:46:07',
      offset: '+02:00',
      takenAt: '2026-06-14T10:46:07.000Z',
      focal35Mm: 24,
      device: 'Test Phone 1',
      software: 'Camera 2.0',
      // 12° 30′ south, 61° 15′ west.
      position: { latitude: -12.5, longitude: -61.25 },
    });
  });

  it('has no instant without an offset', async () => {
    const bytes = await jpegWith({ IFD2: { DateTimeOriginal: '2026:06:14 12:46:07' } });
    expect(await readExif(bytes)).toMatchObject({
      takenAtLocal: '2026-06-14T12:46:07',
      offset: null,
      takenAt: null,
    });
  });

  it.each([
    ['a time that is none', { IFD2: { DateTimeOriginal: '0000:00:00 00:00:00' } }, { takenAtLocal: null }],
    ['a focal length of nothing', { IFD2: { FocalLengthIn35mmFilm: '0' } }, { focal35Mm: null }],
    ['an offset that is none', { IFD2: { OffsetTimeOriginal: 'summer' } }, { offset: null }],
  ])('is nothing for %s', async (_what, tags, expected) => {
    expect(await readExif(await jpegWith(tags))).toMatchObject(expected);
  });

  it('keeps only what can be printed of names, and not all of a long one', async () => {
    const bytes = await jpegWith({ IFD0: { Model: `Phone\u0007 ${'x'.repeat(200)}` } });
    const { device } = await readExif(bytes);
    expect(device).toMatch(/^Phone x+$/);
    expect(device?.length).toBeLessThanOrEqual(60);
  });

  it.each([
    ['a JPEG without tags', async () => new Uint8Array(await sharp({ create: { width: 8, height: 8, channels: 3, background: '#000' } }).jpeg().toBuffer())],
    ['bytes that are no picture', async () => new Uint8Array([1, 2, 3, 4, 5, 6, 7, 8])],
    ['no bytes at all', async () => new Uint8Array()],
  ])('is nothing for %s', async (_what, bytes) => {
    // A library may write an orientation of its own accord.
    expect({ ...(await readExif(await bytes())), orientation: null }).toEqual(NO_EXIF);
  }); // prettier-ignore
});
