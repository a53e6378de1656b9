import { watersSchema, type WatersView } from '@lauta/contract';
import type { Stores } from '../storage/storage.ts';
import type { EventId } from '@lauta/core/ids';

/** The waters that hold; null as long as nobody has drawn them. */
export async function currentWaters(stores: Stores, eventId: EventId): Promise<WatersView | null> {
  const stored = await stores.waters.latest(eventId);
  if (!stored) return null;
  return {
    version: stored.version,
    sha256: stored.sha256,
    publishedAt: stored.publishedAt.toISOString(),
    waters: watersSchema.parse(JSON.parse(Buffer.from(stored.bytes).toString('utf8'))),
  };
}
