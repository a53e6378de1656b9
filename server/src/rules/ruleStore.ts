import type { EventId } from '@lauta/core/ids';

export interface PublishedSheet {
  version: number;
  bytes: Uint8Array;
  sha256: string;
  publishedAt: Date;
}

/** Published rule sheets: added to, never changed. */
export interface RuleStore {
  add(eventId: EventId, sheet: PublishedSheet): Promise<void>;
  /** All versions, first to last. */
  versions(eventId: EventId): Promise<PublishedSheet[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    rules: RuleStore;
  }
}
