import type { MediaType } from '@lauta/contract';
import { refuse } from '../base/refusal.ts';
import type { Completion } from './photographStore.ts';

/** RFC 8794, 8.1: an EBML document, such as WebM, begins with its header's id. */
const EBML = [0x1a, 0x45, 0xdf, 0xa3];
/** ISO/IEC 14496-12, 4.3: the first box of an MP4 file is named so, after its four bytes of size. */
const FTYP = [0x66, 0x74, 0x79, 0x70];

/**
 * Checks a clip by the beginning of its content: it is what it was declared to be. It is never decoded here, and
 * served only as that type.
 */
export function inspectClip(bytes: Uint8Array, mediaType: MediaType): Omit<Completion, 'completedAt'> {
  const isThere = (sign: readonly number[], from: number): boolean =>
    sign.every((byte, i) => bytes[from + i] === byte);
  const isSo = mediaType === 'video/webm' ? isThere(EBML, 0) : mediaType === 'video/mp4' && isThere(FTYP, 4);
  if (!isSo) refuse('not-a-clip', { mediaType });
  return { widthPx: null, heightPx: null, exif: null, copies: [] };
}
