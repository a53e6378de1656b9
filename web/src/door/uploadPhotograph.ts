import type { MediaType, PhotographState } from '@lauta/contract';
import { hashHex } from '@lauta/core/ledger';
import { signedIn } from './door.ts';
import { ask, sendJson, withRetry } from './ask.ts';
import type { EventId, FileId } from '@lauta/core/ids';

export interface Upload {
  photographId: FileId;
  eventId: EventId;
  photo: Blob;
  sha256: string;
  /** A clip says what it is; a photograph is a JPEG. */
  mediaType?: MediaType;
  /** Share of the file that has arrived, 0 to 1. */
  onProgress: (share: number) => void;
  /** Stops between two chunks; what has arrived is not sent again. */
  signal?: AbortSignal;
  /** What is done when the session has ended; by default it is asked for a new one. */
  through?: <T>(act: () => Promise<T>) => Promise<T>;
}

/** Sends a photograph or clip in chunks; one that broke off goes on where it was. */
export async function uploadPhotograph({
  photographId,
  eventId,
  photo,
  sha256,
  mediaType = 'image/jpeg',
  onProgress,
  signal,
  through = signedIn,
}: Upload): Promise<void> {
  const path = `/api/photographs/${photographId}`;
  const declared = { photographId, eventId, byteLength: photo.size, sha256, mediaType };
  const { state, chunkBytes, received } = await through(() =>
    withRetry(() => sendJson<PhotographState>('PUT', path, declared)),
  );
  if (state === 'complete') {
    onProgress(1);
    return;
  }
  const there = new Set(received);
  const count = Math.ceil(photo.size / chunkBytes);
  for (let seq = 0; seq < count; seq++) {
    signal?.throwIfAborted();
    if (!there.has(seq)) {
      const chunk = photo.slice(seq * chunkBytes, (seq + 1) * chunkBytes);
      const digest = contentDigest(new Uint8Array(await chunk.arrayBuffer()));
      await through(() =>
        withRetry(() =>
          ask(`${path}/chunks/${seq}`, {
            method: 'PUT',
            headers: { 'content-type': 'application/octet-stream', 'content-digest': digest },
            body: chunk,
          }),
        ),
      );
    }
    onProgress((seq + 1) / (count + 1));
  }
  await through(() => withRetry(() => sendJson<PhotographState>('POST', `${path}/complete`, {})));
  onProgress(1);
}

/** RFC 9530, Content-Digest: what a chunk is, so that the server sees when it arrives as something else. */
export function contentDigest(bytes: Uint8Array): string {
  const octets = hashHex(bytes).match(/../g) ?? [];
  return `sha-256=:${btoa(String.fromCharCode(...octets.map((octet) => Number.parseInt(octet, 16))))}:`;
}
