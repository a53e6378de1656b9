import type { PhotoExif } from '@lauta/core/file-evidence';
import type { MediaType, PhotographVariant } from '@lauta/contract';
import type { AccountId, EventId, FileId } from '@lauta/core/ids';

export interface Photograph {
  photographId: FileId;
  eventId: EventId;
  accountId: AccountId;
  sha256: string;
  byteLength: number;
  chunkBytes: number;
  mediaType: MediaType;
  /** Since when its chunks are put together, real time; null before, and after that failed. */
  completingAt: Date | null;
  completedAt: Date | null;
  widthPx: number | null;
  heightPx: number | null;
  exif: PhotoExif | null;
}

/** What was found out when the last chunk had come; nothing of the picture where it is a clip. */
export interface Completion {
  completedAt: Date;
  widthPx: number | null;
  heightPx: number | null;
  exif: PhotoExif | null;
  copies: { variant: 'screen' | 'thumb'; bytes: Uint8Array; sha256: string }[];
}

/** Originals byte for byte in bounded chunks, with their copies for screens and lists. */
export interface PhotographStore {
  declare(
    photograph: Omit<Photograph, 'completingAt' | 'completedAt' | 'widthPx' | 'heightPx' | 'exif'>,
    at: Date,
  ): Promise<void>;
  find(photographId: FileId): Promise<Photograph | null>;
  /** The photograph, locked until the transaction ends. */
  lock(photographId: FileId): Promise<Photograph | null>;
  setCompleting(photographId: FileId, at: Date | null): Promise<void>;
  /** A chunk sent again takes the place of the former one. */
  putChunk(photographId: FileId, seq: number, bytes: Uint8Array): Promise<void>;
  receivedChunks(photographId: FileId): Promise<number[]>;
  chunk(photographId: FileId, seq: number): Promise<Uint8Array | null>;
  removeChunks(photographId: FileId): Promise<void>;
  complete(photographId: FileId, completion: Completion): Promise<void>;
  copy(
    photographId: FileId,
    variant: Exclude<PhotographVariant, 'original'>,
  ): Promise<{ bytes: Uint8Array; sha256: string } | null>;
  /** SHA-256 of each copy's bytes as they are stored now. */
  copyHashes(photographId: FileId): Promise<Record<'screen' | 'thumb', string> | null>;
  /** Forgets a photograph that turned out to be none. */
  remove(photographId: FileId): Promise<void>;
  /** Bytes and files that an account has declared and not yet attached to a catch or specimen. */
  looseOf(accountId: AccountId): Promise<{ bytes: number; files: number }>;
  /** Bytes that an account has sent to an event, whatever became of them. */
  bytesIn(eventId: EventId, accountId: AccountId): Promise<number>;
  /** Of those that belong to nothing: not completed and declared before one instant, or declared before another. */
  forsaken(unfinishedBefore: Date, unclaimedBefore: Date, limit: number): Promise<string[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    photographs: PhotographStore;
  }
}
