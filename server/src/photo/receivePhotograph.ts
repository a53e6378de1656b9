import { PHOTOGRAPH_LIMITS, isClip, type DeclarePhotograph, type PhotographState } from '@lauta/contract';
import type { Lauta } from '../context/lauta.ts';
import { Refusal, refuse } from '../base/refusal.ts';
import type { Stores } from '../storage/storage.ts';
import { isDuplicate } from '../storage/database.ts';
import { inspectClip } from './inspectClip.ts';
import { inspectJpeg } from './inspectJpeg.ts';
import type { Photograph } from './photographStore.ts';
import { chunkCount, chunksOf, sha256Of } from './readOriginal.ts';
import type { AccountId, FileId } from '@lauta/core/ids';

/** What one account may have uploaded without claiming a catch with it. */
const MAX_LOOSE = { bytes: 512 * 1024 * 1024, files: 200 };
/** What one account may send to one event: a hundred catches of twelve large photographs. */
const MAX_EVENT_BYTES = 8 * 1024 * 1024 * 1024;
/** A completing that was begun so long ago, real time, is one whose server was killed. */
const COMPLETING_MS = 60_000;

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
  accountId: AccountId,
  declared: DeclarePhotograph,
): Promise<PhotographState> {
  const { photographs } = lauta.storage.read;
  const { photographId, eventId, byteLength, sha256, mediaType } = declared;
  const known = await photographs.find(photographId);
  if (!known) {
    const { chunkBytes } = PHOTOGRAPH_LIMITS;
    try {
      await lauta.storage.change(async (stores) => {
        // One after another: many at once each see room for one.
        await stores.people.lockAccount(accountId);
        await requireRoom(lauta, stores, accountId, declared);
        await stores.photographs.declare(
          { photographId, eventId, accountId, byteLength, sha256, mediaType, chunkBytes },
          lauta.clock.now(),
        );
      });
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

async function requireRoom(
  lauta: Lauta,
  { photographs }: Stores,
  accountId: AccountId,
  { eventId, byteLength }: DeclarePhotograph,
): Promise<void> {
  if (lauta.disk.isShort()) refuse('storage-full');
  const loose = await photographs.looseOf(accountId);
  if (loose.bytes + byteLength > MAX_LOOSE.bytes || loose.files >= MAX_LOOSE.files)
    refuse('too-many-files', { mostBytes: MAX_LOOSE.bytes, mostFiles: MAX_LOOSE.files });
  if ((await photographs.bytesIn(eventId, accountId)) + byteLength > MAX_EVENT_BYTES)
    refuse('too-many-files', { mostBytes: MAX_EVENT_BYTES });
}

async function ownPhotograph(find: Promise<Photograph | null>, accountId: AccountId): Promise<Photograph> {
  const photograph = await find;
  if (!photograph || photograph.accountId !== accountId) refuse('not-found', { what: 'photograph' });
  return photograph;
}

/** Keeps a chunk. Once completing has begun none is exchanged: what is sent again must be what is there. */
export async function receiveChunk(
  lauta: Lauta,
  accountId: AccountId,
  photographId: FileId,
  seq: number,
  bytes: Uint8Array,
): Promise<void> {
  if (lauta.disk.isShort()) refuse('storage-full');
  await lauta.storage.change(async ({ photographs }) => {
    const photograph = await ownPhotograph(photographs.lock(photographId), accountId);
    const { byteLength, chunkBytes } = photograph;
    const count = chunkCount(photograph);
    if (!Number.isInteger(seq) || seq < 0 || seq >= count) refuse('chunk-out-of-place', { seq, count });
    const expected = seq === count - 1 ? byteLength - seq * chunkBytes : chunkBytes;
    if (bytes.length !== expected) refuse('chunk-size', { expected, got: bytes.length });
    if (!photograph.completedAt && !isCompleting(photograph)) {
      await photographs.putChunk(photographId, seq, bytes);
      return;
    }
    const there = await photographs.chunk(photographId, seq);
    if (!there || Buffer.compare(there, bytes) !== 0) refuse('photograph-sealed');
  });
}

function isCompleting({ completingAt }: Photograph): boolean {
  return completingAt !== null && Date.now() - completingAt.getTime() < COMPLETING_MS;
}

/**
 * Puts the chunks together, checks them against what was declared, and makes the copies. From the first step to the last
 * no chunk is exchanged; and what is stored is hashed once more in the transaction that completes it.
 */
export async function completePhotograph(
  lauta: Lauta,
  accountId: AccountId,
  photographId: FileId,
): Promise<PhotographState> {
  const begun = await lauta.storage.change(async ({ photographs }) => {
    const photograph = await ownPhotograph(photographs.lock(photographId), accountId);
    if (photograph.completedAt) return photograph;
    if (isCompleting(photograph)) refuse('photograph-completing');
    await photographs.setCompleting(photographId, new Date());
    return photograph;
  });
  if (begun.completedAt) return stateOf(lauta, begun);
  try {
    const found = await inspect(lauta, begun);
    const completedAt = lauta.clock.now();
    await lauta.storage.change(async (stores) => {
      await ownPhotograph(stores.photographs.lock(photographId), accountId);
      if (sha256Of(await chunksOf(stores, begun)) !== begun.sha256) refuse('photograph-sealed');
      await stores.photographs.complete(photographId, { ...found, completedAt });
    });
    return await stateOf(lauta, { ...begun, completedAt });
  } catch (error) {
    await giveUp(lauta, photographId, error);
    throw error;
  }
}

async function inspect(lauta: Lauta, photograph: Photograph) {
  const { photographId, accountId, mediaType } = photograph;
  const { photographs } = lauta.storage.read;
  const bytes = await chunksOf(lauta.storage.read, photograph);
  if (!bytes) {
    const received = await photographs.receivedChunks(photographId);
    refuse('photograph-missing', { received, count: chunkCount(photograph) });
  }
  if (sha256Of(bytes) !== photograph.sha256) refuse('checksum-mismatch');
  return isClip(mediaType) ? inspectClip(bytes, mediaType) : inspectJpeg(accountId, bytes);
}

/** Refusals after which the same file may come again, whole or in better shape. */
const MAY_COME_AGAIN = ['photograph-missing', 'checksum-mismatch', 'photograph-sealed', 'bench-busy'];

/** A file that is no photograph is not kept; who sent it still has it. */
async function giveUp(lauta: Lauta, photographId: FileId, error: unknown): Promise<void> {
  const type = error instanceof Refusal ? error.type : null;
  await lauta.storage
    .change(async ({ photographs }) => {
      const photograph = await photographs.lock(photographId);
      if (!photograph || photograph.completedAt) return;
      if (type === 'checksum-mismatch') await photographs.removeChunks(photographId);
      if (type === null || MAY_COME_AGAIN.includes(type)) await photographs.setCompleting(photographId, null);
      else await photographs.remove(photographId);
    })
    // The database may be what failed; then the mark runs out by itself.
    .catch(() => undefined);
}
