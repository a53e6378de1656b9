import piexif from 'piexifjs';

/** What a phone writes into its photographs. */
export interface PhotoNotes {
  /** Wall time `YYYY:MM:DD HH:MM:SS` and its offset `+hh:mm`; null for a phone that stores none. */
  takenLocal: string;
  offset: string | null;
  /** 35 mm equivalent; null for a camera that does not tell it. */
  focal35Mm: number | null;
  device: string;
  position: { latitude: number; longitude: number } | null;
  /** The same instant in UTC, for the position's own clock. */
  takenUtc: { date: string; hour: number; minute: number; second: number };
}

// Exif 2.31 and later (CIPA DC-008) have the offset tags; the library's table ends before them.
const OFFSET_TIME = 0x9010;
const OFFSET_TIME_ORIGINAL = 0x9011;
for (const tag of [OFFSET_TIME, OFFSET_TIME_ORIGINAL]) {
  piexif.TAGS.Exif[tag] = { name: tag === OFFSET_TIME ? 'OffsetTime' : 'OffsetTimeOriginal', type: 'Ascii' };
}

/** Writes EXIF into a JPEG that has none. */
export function writeExif(jpeg: Uint8Array, notes: PhotoNotes): Uint8Array {
  const zeroth: Record<number, unknown> = {
    [piexif.ImageIFD.Make]: 'Lauta',
    [piexif.ImageIFD.Model]: notes.device,
    [piexif.ImageIFD.Orientation]: 1,
    [piexif.ImageIFD.DateTime]: notes.takenLocal,
  };
  const exif: Record<number, unknown> = {
    [piexif.ExifIFD.DateTimeOriginal]: notes.takenLocal,
    [piexif.ExifIFD.DateTimeDigitized]: notes.takenLocal,
  };
  if (notes.focal35Mm !== null) exif[piexif.ExifIFD.FocalLengthIn35mmFilm] = Math.round(notes.focal35Mm);
  if (notes.offset !== null) {
    exif[OFFSET_TIME] = notes.offset;
    exif[OFFSET_TIME_ORIGINAL] = notes.offset;
  }
  const gps: Record<number, unknown> = {};
  if (notes.position) {
    const { latitude, longitude } = notes.position;
    gps[piexif.GPSIFD.GPSLatitudeRef] = latitude >= 0 ? 'N' : 'S';
    gps[piexif.GPSIFD.GPSLatitude] = piexif.GPSHelper.degToDmsRational(Math.abs(latitude));
    gps[piexif.GPSIFD.GPSLongitudeRef] = longitude >= 0 ? 'E' : 'W';
    gps[piexif.GPSIFD.GPSLongitude] = piexif.GPSHelper.degToDmsRational(Math.abs(longitude));
    gps[piexif.GPSIFD.GPSDateStamp] = notes.takenUtc.date;
    gps[piexif.GPSIFD.GPSTimeStamp] = [
      [notes.takenUtc.hour, 1],
      [notes.takenUtc.minute, 1],
      [notes.takenUtc.second, 1],
    ];
  }
  const block = latin1Bytes(piexif.dump({ '0th': zeroth, Exif: exif, GPS: gps }));
  return insertApp1(jpeg, block);
}

/** Puts an APP1 segment right after the start of the image (ITU-T T.81, annex B). */
function insertApp1(jpeg: Uint8Array, block: Uint8Array): Uint8Array {
  if (jpeg[0] !== 0xff || jpeg[1] !== 0xd8) throw new RangeError('jpeg: expected FF D8 at the start');
  const length = block.length + 2;
  const out = new Uint8Array(jpeg.length + length + 2);
  out.set([0xff, 0xd8, 0xff, 0xe1, length >> 8, length & 255]);
  out.set(block, 6);
  out.set(jpeg.subarray(2), 6 + block.length);
  return out;
}

function latin1Bytes(text: string): Uint8Array {
  return Uint8Array.from(text, (letter) => letter.charCodeAt(0));
}
