export interface PublishedSheet {
  version: number;
  bytes: Uint8Array;
  sha256: string;
  publishedAt: Date;
}

/** Published rule sheets: added to, never changed. */
export interface RuleStore {
  add(eventId: string, sheet: PublishedSheet): Promise<void>;
  /** All versions, first to last. */
  versions(eventId: string): Promise<PublishedSheet[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    rules: RuleStore;
  }
}
