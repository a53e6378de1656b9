import type { Announcement } from '@lauta/contract';
import type { CaptureStatement, PublicKey } from '@lauta/core/custody';

export interface StoredKey {
  keyId: string;
  accountId: string;
  deviceId: string;
  publicKey: PublicKey;
  /** Set where a partner's phone registered it. */
  pairingId: string | null;
  registeredAt: Date;
  revokedAt: Date | null;
  revokedWhy: 'lost' | 'given-away' | null;
}

export interface StoredCapture {
  hash: string;
  eventId: string;
  entrantId: string;
  catchId: string;
  captureId: string;
  statement: CaptureStatement;
  signature: string;
  heardAt: Date;
  askedAt: Date | null;
  answeredAt: Date | null;
  sentPhotographId: string | null;
}

export interface StoredAnnouncement {
  catchId: string;
  eventId: string;
  entrantId: string;
  body: Announcement;
  heardAt: Date;
}

/** Devices' keys, what they signed, and what was announced ahead of its photographs. */
export interface CustodyStore {
  addKey(key: Omit<StoredKey, 'revokedAt' | 'revokedWhy'>): Promise<void>;
  findKey(keyId: string): Promise<StoredKey | null>;
  keysOf(accountId: string): Promise<StoredKey[]>;
  keys(keyIds: readonly string[]): Promise<StoredKey[]>;
  revokeKey(keyId: string, at: Date, why: NonNullable<StoredKey['revokedWhy']>): Promise<void>;
  /** A capture that is known already is left as it stands. */
  addCapture(capture: Omit<StoredCapture, 'askedAt' | 'answeredAt' | 'sentPhotographId'>): Promise<void>;
  findCapture(hash: string): Promise<StoredCapture | null>;
  capturesOf(entrantId: string): Promise<StoredCapture[]>;
  /** Those that a judge asked for and no device has answered. */
  askedOf(entrantIds: readonly string[]): Promise<StoredCapture[]>;
  ask(catchId: string, captureIds: readonly string[], at: Date): Promise<void>;
  answer(hash: string, at: Date, photographId: string | null): Promise<void>;
  announce(announcement: StoredAnnouncement): Promise<void>;
  findAnnouncement(catchId: string): Promise<StoredAnnouncement | null>;
  /** How many of an entrant's announcements wait for their claims. */
  waitingOf(entrantId: string): Promise<number>;
  capturesOfCatch(catchId: string): Promise<number>;
  /** Announcements of an event whose claims have not come, newest first. */
  announcedIn(eventId: string, limit: number): Promise<StoredAnnouncement[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    custody: CustodyStore;
  }
}
