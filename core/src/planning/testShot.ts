import type { PhotoExif } from '../file-evidence/index.ts';

/** What a test photograph proves, or fails to. */
export interface TestShot {
  hasTime: boolean;
  hasOffset: boolean;
  hasPosition: boolean;
  /** How far the file's time lies from now, seconds; null without one. */
  offBySeconds: number | null;
  lens: 'wide' | 'normal' | 'long' | 'unknown';
  light: 'dark' | 'good' | 'blown-out';
  /** Time, offset and position are there, the time is today's, and the light suffices. */
  isGood: boolean;
}

/** Up to this 35 mm equivalent a lens sees a 30-inch board from arm's length (72° across and more). */
const WIDE_MM = 29;
const LONG_MM = 45;
/** Mean of an 8-bit picture under which noise hides lines, and the share of white px over which they drown. */
const DARK_MEAN = 45;
const BLOWN_SHARE = 0.25;
/** A photograph that was taken longer ago than this proves nothing of this morning, s. */
const RECENT_SECONDS = 12 * 3600;

/**
 * @param pixels mean brightness (0-255) of the picture, and the share of it that is white
 * @param nowMs device time
 */
export function judgeTestShot(
  exif: PhotoExif,
  pixels: { mean: number; whiteShare: number },
  nowMs: number,
): TestShot {
  const { takenAt, takenAtLocal, offset, focal35Mm, position } = exif;
  const offBySeconds = takenAt === null ? null : Math.round((nowMs - Date.parse(takenAt)) / 1000);
  const lens =
    focal35Mm === null ? 'unknown' : focal35Mm <= WIDE_MM ? 'wide' : focal35Mm < LONG_MM ? 'normal' : 'long';
  const light = pixels.mean < DARK_MEAN ? 'dark' : pixels.whiteShare > BLOWN_SHARE ? 'blown-out' : 'good';
  const shot = {
    hasTime: takenAtLocal !== null || takenAt !== null,
    hasOffset: offset !== null,
    hasPosition: position !== null,
    offBySeconds,
    lens,
    light,
  } as const;
  const isRecent = offBySeconds !== null && Math.abs(offBySeconds) < RECENT_SECONDS;
  return {
    ...shot,
    isGood: shot.hasTime && shot.hasOffset && shot.hasPosition && isRecent && light === 'good',
  };
}
