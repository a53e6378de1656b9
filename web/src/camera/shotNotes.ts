import type { PhotoNotes } from '@lauta/vision/exif-writer';
import { wallTimeOf } from '@lauta/core/schedule';

/** What is written into a photograph that is taken in the page: the wall time of the place, its offset, the position. */
export function shotNotes(
  takenAtMs: number,
  zone: string,
  { focal35Mm, device, position }: Pick<PhotoNotes, 'focal35Mm' | 'device' | 'position'>,
): PhotoNotes {
  const { local, offset } = wallTimeOf(takenAtMs, zone);
  const taken = new Date(takenAtMs);
  return {
    takenLocal: local.replaceAll('-', ':').replace('T', ' '),
    offset,
    focal35Mm,
    device,
    position,
    takenUtc: {
      date: taken.toISOString().slice(0, 10).replaceAll('-', ':'),
      hour: taken.getUTCHours(),
      minute: taken.getUTCMinutes(),
      second: taken.getUTCSeconds(),
    },
  };
}
