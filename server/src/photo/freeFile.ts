import { isClip } from '@lauta/contract';
import type { CommandContext } from '../command/commandContext.ts';
import { exifSha256 } from '../ledger/exifSha256.ts';
import type { Photograph } from './photographStore.ts';
import { refuse } from '../base/refusal.ts';
import type { EventId, FileId } from '@lauta/core/ids';

/** What stands behind a photograph's commitment in the ledger: the original, and the copies that others see. */
export async function commitmentValue({ stores }: CommandContext, photograph: Photograph) {
  const { photographId, sha256, byteLength, mediaType, widthPx, heightPx, exif, completedAt } = photograph;
  return {
    sha256,
    byteLength,
    copies: await stores.photographs.copyHashes(photographId),
    mediaType,
    widthPx,
    heightPx,
    exifSha256: exifSha256(exif),
    completedAt: completedAt?.toISOString() ?? null,
  };
}

/** An own photograph or clip that has come whole and belongs to no catch or specimen yet. */
export async function freeFile(
  { stores, accountId }: CommandContext,
  eventId: EventId,
  photographId: FileId,
  kind: 'photograph' | 'clip',
): Promise<Photograph> {
  const photograph = await stores.photographs.find(photographId);
  if (
    !photograph?.completedAt ||
    photograph.eventId !== eventId ||
    photograph.accountId !== accountId ||
    isClip(photograph.mediaType) !== (kind === 'clip')
  ) {
    refuse('photograph-missing', { photographId });
  }
  if (
    (await stores.catches.withPhotograph(photographId)) ||
    (await stores.specimens.withPhotograph(photographId))
  )
    refuse('photograph-taken', { photographId });
  return photograph;
}
