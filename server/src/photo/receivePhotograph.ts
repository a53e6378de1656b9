import { createHash } from 'node:crypto';
import { PHOTOGRAPH_LIMITS, isClip, type DeclarePhotograph, type PhotographState } from '@lauta/contract';
import type { Lauta } from '../lauta.ts';
import { Refusal, refuse } from '../refusal.ts';
import type { Stores } from '../storage/storage.ts';
import { isDuplicate } from '../storage/database.ts';
import { inspectClip } from './inspectClip.ts';
import { inspectJpeg } from './inspectJpeg.ts';
import type { Photograph } from './photographStore.ts';

/** What one account may have uploaded without claiming a catch with it. */
const MAX_LOOSE_BYTES = 1024 * 1024 * 1024;

export function chunkCount({
  byteLength,
  chunkBytes,
}: Pick<Photograph, 'byteLength' | 'chunkBytes'>): number {
  return Math.ceil(byteLength / chunkBytes);
}

async function stateOf(lauta: Lauta, photograph: Photograph): Promise<PhotographState> {
  const { photographId, completedAt, chunkBytes } = photograph;
  return {
    photographId,
    state: completedAt ? 'complete' : 'receiving',
    chunkBytes,
    received: await lauta.storage.read.photographs.receivedChunks(photographId),
  };
}

/** Announces a photograph. Announced again it tells what has come, so that a broken upload goes on where it was. */
export async function declarePhotograph(
  lauta: Lauta,
  accountId: string,
  declared: DeclarePhotograph,
): Promise<PhotographState> {
  const { photographs } = lauta.storage.read;
  const { photographId, eventId, byteLength, sha256, mediaType } = declared;
  const known = await photographs.find(photographId);
  if (!known) {
    if ((await photographs.looseBytesOf(accountId)) + byteLength > MAX_LOOSE_BYTES) {
      refuse('body-too-large', { maxBytes: MAX_LOOSE_BYTES });
    }
    const { chunkBytes } = PHOTOGRAPH_LIMITS;
    try {
      await photographs.declare(
        { photographId, eventId, accountId, byteLength, sha256, mediaType, chunkBytes },
        lauta.clock.now(),
      );
    } catch (error) {
      if (!isDuplicate(error)) throw error;
    }
  }
  const photograph = known ?? (await photographs.find(photographId));
  if (
    !photograph ||
    photograph.accountId !== accountId ||
    photograph.eventId !== eventId ||
    photograph.sha256 !== sha256 ||
    photograph.mediaType !== mediaType ||
    photograph.byteLength !== byteLength
  ) {
    refuse('photograph-declared-otherwise');
  }
  return stateOf(lauta, photograph);
}

async function ownPhotograph(lauta: Lauta, accountId: string, photographId: string): Promise<Photograph> {
  const photograph = await lauta.storage.read.photographs.find(photographId);
  if (!photograph || photograph.accountId !== accountId) refuse('not-found', { what: 'photograph' });
  return photograph;
}

export async function receiveChunk(
  lauta: Lauta,
  accountId: string,
  photographId: string,
  seq: number,
  bytes: Uint8Array,
): Promise<void> {
  const photograph = await ownPhotograph(lauta, accountId, photographId);
  const { byteLength, chunkBytes, completedAt } = photograph;
  const count = chunkCount(photograph);
  if (!Number.isInteger(seq) || seq < 0 || seq >= count) refuse('chunk-out-of-place', { seq, count });
  const expected = seq === count - 1 ? byteLength - seq * chunkBytes : chunkBytes;
  if (bytes.length !== expected) refuse('chunk-size', { expected, got: bytes.length });
  if (!completedAt) await lauta.storage.read.photographs.putChunk(photographId, seq, bytes);
}

/** Puts the chunks together, checks them against what was declared, and makes the copies. */
export async function completePhotograph(
  lauta: Lauta,
  accountId: string,
  photographId: string,
): Promise<PhotographState> {
  const photograph = await ownPhotograph(lauta, accountId, photographId);
  if (photograph.completedAt) return stateOf(lauta, photograph);
  const { photographs } = lauta.storage.read;
  const bytes = await readOriginal(lauta.storage.read, photograph);
  if (!bytes) {
    const received = await photographs.receivedChunks(photographId);
    refuse('photograph-missing', { received, count: chunkCount(photograph) });
  }
  if (createHash('sha256').update(bytes).digest('hex') !== photograph.sha256) {
    await photographs.removeChunks(photographId);
    refuse('checksum-mismatch');
  }
  try {
    const found = isClip(photograph.mediaType)
      ? inspectClip(bytes, photograph.mediaType)
      : await inspectJpeg(bytes);
    const completedAt = lauta.clock.now();
    await lauta.storage.change((stores) =>
      stores.photographs.complete(photographId, { ...found, completedAt }),
    );
    return await stateOf(lauta, { ...photograph, completedAt });
  } catch (error) {
    // A file that is no photograph is not kept; who sent it still has it.
    if (error instanceof Refusal)
      await lauta.storage.change((stores) => stores.photographs.remove(photographId));
    throw error;
  }
}

/** The original byte for byte, or null while chunks are missing. */
export async function readOriginal(stores: Stores, photograph: Photograph): Promise<Buffer | null> {
  const parts: Uint8Array[] = [];
  for (let seq = 0; seq < chunkCount(photograph); seq++) {
    const part = await stores.photographs.chunk(photograph.photographId, seq);
    if (!part) return null;
    parts.push(part);
  }
  return Buffer.concat(parts);
}
