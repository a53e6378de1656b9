import type { EventId } from '@lauta/core/ids';

export interface StoredWaters {
  version: number;
  bytes: Uint8Array;
  sha256: string;
  publishedAt: Date;
}

/** The waters of events, every version as it was published. */
export interface WatersStore {
  add(eventId: EventId, waters: StoredWaters): Promise<void>;
  find(eventId: EventId, version: number): Promise<StoredWaters | null>;
  latest(eventId: EventId): Promise<StoredWaters | null>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    waters: WatersStore;
  }
}
