export interface StoredWaters {
  version: number;
  bytes: Uint8Array;
  sha256: string;
  publishedAt: Date;
}

/** The waters of events, every version as it was published. */
export interface WatersStore {
  add(eventId: string, waters: StoredWaters): Promise<void>;
  find(eventId: string, version: number): Promise<StoredWaters | null>;
  latest(eventId: string): Promise<StoredWaters | null>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    waters: WatersStore;
  }
}
