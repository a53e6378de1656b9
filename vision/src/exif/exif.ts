import exifr from 'exifr';
import { NO_EXIF, type PhotoExif } from '@lauta/core/file-evidence';

/** Reads the tags of CIPA DC-008 (Exif) from a JPEG's bytes. A file without tags, or with broken ones, tells nothing. */
export async function readExif(jpeg: Uint8Array): Promise<PhotoExif> {
  let tags: Record<string, unknown> | undefined;
  try {
    tags = (await exifr.parse(jpeg, {
      tiff: true,
      exif: true,
      gps: true,
      reviveValues: false,
      translateValues: false,
    })) as Record<string, unknown> | undefined;
  } catch {
    return NO_EXIF;
  }
  if (!tags) return NO_EXIF;
  const takenAtLocal = localTime(tags['DateTimeOriginal']);
  const offset = offsetOf(tags['OffsetTimeOriginal'] ?? tags['OffsetTime']);
  const make = text(tags['Make'], 40);
  const model = text(tags['Model'], 60);
  return {
    takenAtLocal,
    offset,
    takenAt: takenAtLocal && offset ? instantOf(takenAtLocal, offset) : null,
    focal35Mm: within(tags['FocalLengthIn35mmFormat'] ?? tags['FocalLengthIn35mmFilm'], 5, 1200),
    orientation: within(tags['Orientation'], 1, 8),
    device: [make, model].filter((part) => part !== null).join(' ') || null,
    software: text(tags['Software'], 80),
    position: positionOf(tags['latitude'], tags['longitude']),
  };
}

function localTime(value: unknown): string | null {
  const fields = typeof value === 'string' ? /^(\d{4}):(\d\d):(\d\d) (\d\d:\d\d:\d\d)/.exec(value) : null;
  if (!fields) return null;
  const local = `${fields[1]}-${fields[2]}-${fields[3]}T${fields[4]}`;
  return Number.isNaN(Date.parse(`${local}Z`)) ? null : local;
}

function offsetOf(value: unknown): string | null {
  return typeof value === 'string' && /^[+-]\d\d:\d\d/.test(value) ? value.slice(0, 6) : null;
}

function instantOf(local: string, offset: string): string | null {
  const ms = Date.parse(local + offset);
  return Number.isNaN(ms) ? null : new Date(ms).toISOString();
}

function text(value: unknown, maxLength: number): string | null {
  if (typeof value !== 'string') return null;
  const printable = value.replace(/[^\x20-\x7e\u00a0-\uffff]/g, '').trim();
  return printable === '' ? null : printable.slice(0, maxLength);
}

function within(value: unknown, low: number, high: number): number | null {
  return typeof value === 'number' && value >= low && value <= high ? value : null;
}

function positionOf(latitude: unknown, longitude: unknown): PhotoExif['position'] {
  const [lat, lon] = [within(latitude, -90, 90), within(longitude, -180, 180)];
  return lat === null || lon === null ? null : { latitude: lat, longitude: lon };
}

/** Whether bytes begin as a JPEG does: SOI and the first marker (ITU-T T.81, B.1.1.3). */
export function isJpeg(bytes: Uint8Array): boolean {
  return bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff;
}
