import type { PhotoExif } from '../file-evidence/index.ts';
import { resolveWallTime } from '../schedule/index.ts';

export interface CaptureTime {
  /** ISO 8601. */
  at: string;
  source: 'photograph' | 'device';
}

/**
 * The file's own time where it tells one; a time without an offset is taken in the event's zone. Else the device's.
 * @param zone IANA name
 */
export function captureTime(
  exif: Pick<PhotoExif, 'takenAt' | 'takenAtLocal'> | null,
  deviceAt: string,
  zone: string,
): CaptureTime {
  if (exif?.takenAt) return { at: exif.takenAt, source: 'photograph' };
  const resolved = exif?.takenAtLocal ? resolveWallTime(exif.takenAtLocal, zone) : null;
  if (resolved?.ok) return { at: new Date(resolved.instantMs).toISOString(), source: 'photograph' };
  return { at: deviceAt, source: 'device' };
}
