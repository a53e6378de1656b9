import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { readExif } from './exif.ts';
import { writeExif, type PhotoNotes } from './writeExif.ts';

const NOTES: PhotoNotes = {
  takenLocal: '2026:06:14 12:41:07',
  offset: '+02:00',
  focal35Mm: 24,
  device: 'test camera',
  position: { latitude: 10.5, longitude: -20.25 },
  takenUtc: { date: '2026:06:14', hour: 10, minute: 41, second: 7 },
};

async function plainJpeg(): Promise<Uint8Array> {
  const picture = sharp({ create: { width: 40, height: 30, channels: 3, background: '#807060' } });
  return new Uint8Array(await picture.jpeg().toBuffer());
}

const written = async (change: Partial<PhotoNotes> = {}) =>
  readExif(writeExif(await plainJpeg(), { ...NOTES, ...change }));

describe('notes that are written into a photograph', () => {
  // Read back by another library than wrote them (exifr).
  it('are read back: wall time, offset, instant, lens, device, place', async () => {
    const exif = await written();
    expect(exif).toMatchObject({
      takenAtLocal: '2026-06-14T12:41:07',
      offset: '+02:00',
      focal35Mm: 24,
      orientation: 1,
    });
    expect(Date.parse(exif.takenAt ?? '')).toBe(Date.parse('2026-06-14T10:41:07Z'));
    expect(exif.device).toContain('test camera');
    expect(exif.position?.latitude).toBeCloseTo(10.5, 4);
    expect(exif.position?.longitude).toBeCloseTo(-20.25, 4);
  });

  it.each([
    ['lens', { focal35Mm: null }, { focal35Mm: null, offset: '+02:00' }],
    ['place', { position: null }, { position: null, focal35Mm: 24 }],
    ['offset', { offset: null }, { offset: null, takenAtLocal: '2026-06-14T12:41:07' }],
  ] as const)('leave out the %s that is not known, and nothing else', async (_, change, left) => {
    expect(await written(change)).toMatchObject(left);
  });

  it('leave the picture as it was', async () => {
    const plain = await plainJpeg();
    const pixels = (jpeg: Uint8Array): Promise<Buffer> => sharp(jpeg).raw().toBuffer();
    expect(await pixels(writeExif(plain, NOTES))).toEqual(await pixels(plain));
  });

  it('are not put into what is no JPEG', () => {
    expect(() => writeExif(new Uint8Array([1, 2, 3]), NOTES)).toThrow(RangeError);
  });
});
