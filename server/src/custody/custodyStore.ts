import type { Announcement } from '@lauta/contract';
import type { CaptureStatement, PublicKey } from '@lauta/core/custody';
import type {
  AccountId,
  CaptureId,
  CatchId,
  DeviceId,
  EntrantId,
  EventId,
  FileId,
  KeyId,
  PairingId,
} from '@lauta/core/ids';

export interface StoredKey {
  keyId: KeyId;
  accountId: AccountId;
  deviceId: DeviceId;
  publicKey: PublicKey;
  /** Set where a partner's phone registered it. */
  pairingId: PairingId | null;
  registeredAt: Date;
  revokedAt: Date | null;
  revokedWhy: 'lost' | 'given-away' | null;
}

export interface StoredCapture {
  hash: string;
  eventId: EventId;
  entrantId: EntrantId;
  catchId: CatchId;
  captureId: CaptureId;
  statement: CaptureStatement;
  signature: string;
  heardAt: Date;
  askedAt: Date | null;
  answeredAt: Date | null;
  sentPhotographId: FileId | null;
}

export interface StoredAnnouncement {
  catchId: CatchId;
  eventId: EventId;
  entrantId: EntrantId;
  body: Announcement;
  heardAt: Date;
}

/** Devices' keys, what they signed, and what was announced ahead of its photographs. */
export interface CustodyStore {
  addKey(key: Omit<StoredKey, 'revokedAt' | 'revokedWhy'>): Promise<void>;
  findKey(keyId: KeyId): Promise<StoredKey | null>;
  keysOf(accountId: AccountId): Promise<StoredKey[]>;
  keys(keyIds: readonly KeyId[]): Promise<StoredKey[]>;
  revokeKey(keyId: KeyId, at: Date, why: NonNullable<StoredKey['revokedWhy']>): Promise<void>;
  /** A capture that is known already is left as it stands. */
  addCapture(capture: Omit<StoredCapture, 'askedAt' | 'answeredAt' | 'sentPhotographId'>): Promise<void>;
  findCapture(hash: string): Promise<StoredCapture | null>;
  capturesOf(entrantId: EntrantId): Promise<StoredCapture[]>;
  /** Those that a judge asked for and no device has answered. */
  askedOf(entrantIds: readonly EntrantId[]): Promise<StoredCapture[]>;
  ask(catchId: CatchId, captureIds: readonly CaptureId[], at: Date): Promise<void>;
  answer(hash: string, at: Date, photographId: FileId | null): Promise<void>;
  announce(announcement: StoredAnnouncement): Promise<void>;
  findAnnouncement(catchId: CatchId): Promise<StoredAnnouncement | null>;
  /** How many of an entrant's announcements wait for their claims. */
  waitingOf(entrantId: EntrantId): Promise<number>;
  capturesOfCatch(catchId: CatchId): Promise<number>;
  /** Announcements of an event whose claims have not come, newest first. */
  announcedIn(eventId: EventId, limit: number): Promise<StoredAnnouncement[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    custody: CustodyStore;
  }
}
