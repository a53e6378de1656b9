import type { PhotoExif } from '@lauta/core/file-evidence';
import { resolveWallTime } from '@lauta/core/schedule';

export interface CaptureTime {
  at: string;
  source: 'photograph' | 'device';
}

/** The file's own time where it tells one; else the moment at which the photograph was chosen. */
export function captureTime(exif: PhotoExif, chosenAt: string, zone: string): CaptureTime {
  if (exif.takenAt) return { at: exif.takenAt, source: 'photograph' };
  const resolved = exif.takenAtLocal ? resolveWallTime(exif.takenAtLocal, zone) : null;
  if (resolved?.ok) return { at: new Date(resolved.instantMs).toISOString(), source: 'photograph' };
  return { at: chosenAt, source: 'device' };
}
