import { createHash } from 'node:crypto';
import { refuse } from '../base/refusal.ts';
import type { Stores } from '../storage/storage.ts';
import type { Photograph } from './photographStore.ts';

export function chunkCount({
  byteLength,
  chunkBytes,
}: Pick<Photograph, 'byteLength' | 'chunkBytes'>): number {
  return Math.ceil(byteLength / chunkBytes);
}

export const sha256Of = (bytes: Uint8Array | null): string | null =>
  bytes && createHash('sha256').update(bytes).digest('hex');

/** What is stored now, whatever it is; null while chunks are missing. */
export async function chunksOf(stores: Stores, photograph: Photograph): Promise<Buffer | null> {
  const parts: Uint8Array[] = [];
  for (let seq = 0; seq < chunkCount(photograph); seq++) {
    const part = await stores.photographs.chunk(photograph.photographId, seq);
    if (!part) return null;
    parts.push(part);
  }
  return Buffer.concat(parts);
}

/**
 * The original byte for byte, or null while chunks are missing. Hashed each time: nothing is shown, analysed or handed
 * out as the file that was signed when it is another.
 */
export async function readOriginal(stores: Stores, photograph: Photograph): Promise<Buffer | null> {
  const bytes = await chunksOf(stores, photograph);
  if (bytes && sha256Of(bytes) !== photograph.sha256)
    refuse('photograph-altered', { photographId: photograph.photographId });
  return bytes;
}
