export interface StoredBoard {
  boardId: string;
  /** The profile's canonical bytes as they were added. */
  bytes: Uint8Array;
  sha256: string;
  addedAt: Date;
}

/** An event's own kinds of board: added to, never changed. */
export interface BoardStore {
  add(eventId: string, board: StoredBoard): Promise<void>;
  /** In the order in which they were added. */
  inEvent(eventId: string): Promise<StoredBoard[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    boards: BoardStore;
  }
}
