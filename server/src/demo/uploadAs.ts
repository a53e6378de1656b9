import { createHash } from 'node:crypto';
import { frozenClock } from '../base/clock.ts';
import type { Lauta } from '../context/lauta.ts';
import { completePhotograph, declarePhotograph, receiveChunk } from '../photo/receivePhotograph.ts';
import { DEMO_EVENT_ID } from './sendAs.ts';
import type { AccountId, FileId } from '@lauta/core/ids';

/** Sends a photograph of the demo's first event as its phone would have, at the demo's own time. */
export async function uploadAs(
  sender: Lauta,
  accountId: AccountId,
  photographId: FileId,
  jpeg: Uint8Array,
  atMs: number,
): Promise<void> {
  const lauta = { ...sender, clock: frozenClock(new Date(atMs)) };
  const { chunkBytes } = await declarePhotograph(lauta, accountId, {
    photographId,
    eventId: DEMO_EVENT_ID,
    byteLength: jpeg.length,
    sha256: createHash('sha256').update(jpeg).digest('hex'),
    mediaType: 'image/jpeg',
  });
  for (let seq = 0; seq * chunkBytes < jpeg.length; seq++) {
    const chunk = jpeg.subarray(seq * chunkBytes, (seq + 1) * chunkBytes);
    await receiveChunk(lauta, accountId, photographId, seq, chunk);
  }
  await completePhotograph(lauta, accountId, photographId);
}
