/** What a JPEG's own tables tell of how it was stored. */
export interface JpegTables {
  /** Quantisation tables by number, 64 values in the order of the file (zig-zag). */
  quantisation: ReadonlyMap<number, readonly number[]>;
  /** A JFIF marker (APP0) stands first, as programs write it; cameras write EXIF (APP1). */
  startsWithJfif: boolean;
}

const SOI = 0xd8;
const APP0 = 0xe0;
const APP1 = 0xe1;
const DQT = 0xdb;
const SOS = 0xda;

/**
 * Walks a JPEG's segments up to its picture (ITU-T T.81, annex B; tables: B.2.4.1).
 * @returns null for what is no JPEG or breaks off before its picture
 */
export function readJpegTables(bytes: Uint8Array): JpegTables | null {
  if (bytes[0] !== 0xff || bytes[1] !== SOI) return null;
  const quantisation = new Map<number, readonly number[]>();
  let startsWithJfif = false;
  let hasApplication = false;
  for (let at = 2; at + 4 <= bytes.length;) {
    if (bytes[at] !== 0xff) return null;
    const marker = byteAt(bytes, at + 1);
    if (marker === 0xff) {
      at++;
      continue;
    }
    const length = (byteAt(bytes, at + 2) << 8) | byteAt(bytes, at + 3);
    const end = at + 2 + length;
    if (length < 2 || end > bytes.length) return null;
    if (!hasApplication && (marker === APP0 || marker === APP1)) {
      hasApplication = true;
      startsWithJfif = marker === APP0;
    }
    if (marker === DQT) readTables(bytes.subarray(at + 4, end), quantisation);
    if (marker === SOS) return { quantisation, startsWithJfif };
    at = end;
  }
  return null;
}

function readTables(segment: Uint8Array, into: Map<number, readonly number[]>): void {
  for (let at = 0; at < segment.length;) {
    const head = byteAt(segment, at);
    const wide = head >> 4 === 1;
    const size = wide ? 128 : 64;
    if (at + 1 + size > segment.length) return;
    const values = Array.from({ length: 64 }, (_, i) =>
      wide
        ? (byteAt(segment, at + 1 + 2 * i) << 8) | byteAt(segment, at + 2 + 2 * i)
        : byteAt(segment, at + 1 + i),
    );
    into.set(head & 15, values);
    at += 1 + size;
  }
}

/** The luminance table of ITU-T T.81, table K.1, in zig-zag order. */
const K1 = [16, 11, 12, 14, 12, 10, 16, 14, 13, 14, 18, 17, 16, 19, 24, 40, 26, 24, 22, 22, 24, 49, 35, 37, 29, 40, 58, 51, 61, 60, 57, 51, 56, 55, 64, 72, 92, 78, 64, 68, 87, 69, 55, 56, 80, 109, 81, 87, 95, 98, 103, 104, 103, 62, 77, 113, 121, 112, 100, 120, 92, 101, 103, 99]; // prettier-ignore

/**
 * The quality at which the standard's own table gives this one, scaled as the free encoders do (5000/q under 50,
 * 200 − 2q from there on); null for a table of a camera's own.
 */
export function standardQuality(table: readonly number[]): number | null {
  for (let quality = 1; quality <= 100; quality++) {
    const scale = quality < 50 ? 5000 / quality : 200 - 2 * quality;
    const same = K1.every(
      (value, i) =>
        Math.min(255, Math.max(1, Math.floor((value * Math.floor(scale) + 50) / 100))) === table[i],
    );
    if (same) return quality;
  }
  return null;
}

const byteAt = (bytes: Uint8Array, at: number): number => bytes[at] ?? 0;
