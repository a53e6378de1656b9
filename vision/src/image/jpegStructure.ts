/** How a JPEG is built, read off its markers alone (ITU-T T.81, annex B): what it will cost to decode is known before. */
export interface JpegStructure {
  coding: 'baseline' | 'progressive' | 'other';
  widthPx: number;
  heightPx: number;
  scans: number;
  /** Bytes that stand in scans. */
  codedBytes: number;
}

const SOI = 0xd8;
const EOI = 0xd9;
const SOS = 0xda;
/** DHT, JPG and DAC stand among the frame headers' codes and are none. */
const NO_FRAME = new Set([0xc4, 0xc8, 0xcc]);
const isRestart = (code: number): boolean => code >= 0xd0 && code <= 0xd7;

/** The structure of a JPEG's first picture; null where the markers do not follow one another as they must. */
export function jpegStructure(bytes: Uint8Array): JpegStructure | null {
  if (bytes[0] !== 0xff || bytes[1] !== SOI) return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let found: Omit<JpegStructure, 'scans' | 'codedBytes'> | null = null;
  let scans = 0;
  let codedBytes = 0;
  let at = 2;
  while (at + 4 <= bytes.length) {
    if (bytes[at] !== 0xff) return null;
    const code = bytes[at + 1] ?? 0;
    // Any number of fill bytes may stand before a marker (B.1.1.2).
    if (code === 0xff) {
      at += 1;
      continue;
    }
    if (code === EOI) break;
    const length = view.getUint16(at + 2);
    if (length < 2) return null;
    const next = at + 2 + length;
    if (code >= 0xc0 && code <= 0xcf && !NO_FRAME.has(code)) {
      if (found || at + 9 > bytes.length) return null;
      found = {
        coding: code <= 0xc1 ? 'baseline' : code === 0xc2 ? 'progressive' : 'other',
        heightPx: view.getUint16(at + 5),
        widthPx: view.getUint16(at + 7),
      };
    }
    at = next;
    if (code === SOS) {
      scans += 1;
      at = endOfScan(bytes, next);
      codedBytes += Math.max(0, at - next);
    }
  }
  return found && { ...found, scans, codedBytes };
}

/** Where the next marker stands that is neither a stuffed byte nor a restart. */
function endOfScan(bytes: Uint8Array, from: number): number {
  for (let at = from; at + 1 < bytes.length; at++) {
    at = bytes.indexOf(0xff, at);
    if (at < 0) return bytes.length;
    const code = bytes[at + 1] ?? 0;
    if (code !== 0 && code !== 0xff && !isRestart(code)) return at;
  }
  return bytes.length;
}

/** Cameras write some ten scans. */
const MOST_SCANS = 100;
/** Each scan of a progressive picture goes over all of it: ten of 80 megapixels, say. */
const MOST_SCANNED_PX = 800e6;
const BLOCK_PX = 64;

export type JpegTrouble = 'too-complex' | 'broken';

/**
 * What speaks against decoding a picture at all; null where nothing does. `broken` is also what has fewer bits than any
 * coding of so many blocks can have: one symbol for a block's DC and one for the end of its AC (T.81, F.1.2), a bit
 * each at least; in a progressive picture runs of ends may stand for many blocks.
 */
export function jpegTrouble({
  coding,
  widthPx,
  heightPx,
  scans,
  codedBytes,
}: JpegStructure): JpegTrouble | null {
  const pixels = widthPx * heightPx;
  if (coding === 'other' || scans > MOST_SCANS) return 'too-complex';
  if (coding === 'progressive' && scans * pixels > MOST_SCANNED_PX) return 'too-complex';
  const leastBits = Math.ceil(pixels / BLOCK_PX) * (coding === 'baseline' ? 2 : 1);
  return scans === 0 || codedBytes * 8 < leastBits ? 'broken' : null;
}
