import type { KeptFlank } from '@lauta/vision/same-fish';

/** What is kept of one catch's fish for comparison; nulls where its photograph gives none. */
export interface StoredFlank {
  catchId: string;
  eventId: string;
  photographId: string;
  lengthMm: number | null;
  sigmaMm: number | null;
  flank: KeptFlank | null;
}

/** Flanks by catch. They follow from the photographs and may be made again at any time. */
export interface FlankStore {
  /** Keeps a flank in place of a former one. */
  put(flank: StoredFlank): Promise<void>;
  inEvent(eventId: string): Promise<StoredFlank[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    flanks: FlankStore;
  }
}
