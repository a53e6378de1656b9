import type { KeptFlank } from '@lauta/vision/same-fish';
import type { CatchId, EventId, FileId } from '@lauta/core/ids';

/** What is kept of one catch's fish for comparison; nulls where its photograph gives none. */
export interface StoredFlank {
  catchId: CatchId;
  eventId: EventId;
  photographId: FileId;
  lengthMm: number | null;
  sigmaMm: number | null;
  flank: KeptFlank | null;
}

/** Flanks by catch. They follow from the photographs and may be made again at any time. */
export interface FlankStore {
  /** Keeps a flank in place of a former one. */
  put(flank: StoredFlank): Promise<void>;
  inEvent(eventId: EventId): Promise<StoredFlank[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    flanks: FlankStore;
  }
}
