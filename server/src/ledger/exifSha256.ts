import type { PhotoExif } from '@lauta/core/file-evidence';
import { canonicalBytes, hashHex } from '@lauta/core/ledger';

/** Of what a file tells, so that it stands in one place only. */
export function exifSha256(exif: PhotoExif | null): string {
  return hashHex(canonicalBytes(exif));
}
