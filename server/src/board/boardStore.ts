import type { BoardId, EventId } from '@lauta/core/ids';

export interface StoredBoard {
  boardId: BoardId;
  /** The profile's canonical bytes as they were added. */
  bytes: Uint8Array;
  sha256: string;
  addedAt: Date;
}

/** An event's own kinds of board: added to, never changed. */
export interface BoardStore {
  add(eventId: EventId, board: StoredBoard): Promise<void>;
  /** In the order in which they were added. */
  inEvent(eventId: EventId): Promise<StoredBoard[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    boards: BoardStore;
  }
}
