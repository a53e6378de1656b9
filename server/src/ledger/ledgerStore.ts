import type { LedgerHead, StoredEntry } from '@lauta/core/ledger';
import type { SignedHead } from '../keys/headSigner.ts';
import type { EventId } from '@lauta/core/ids';

/** A head as it is stored: one of a version that did not sign has no signature. */
export type StoredHead =
  | (LedgerHead & Pick<SignedHead, 'signature' | 'signedBy'>)
  | (LedgerHead & { signature: null; signedBy: null });

export interface Commitment {
  seq: number;
  label: string;
  salt: string;
  /** Canonical JSON of what was committed to. */
  value: string;
}

export type StoredCommitment = Omit<Commitment, 'salt' | 'value'> & {
  salt: string | null;
  value: string | null;
};

/** The append-only record of each event. */
export interface LedgerStore {
  /** Begins an event's ledger. */
  open(eventId: EventId, head: LedgerHead): Promise<void>;
  head(eventId: EventId): Promise<StoredHead | null>;
  /** The head, locked until the transaction ends, so that appends follow one another. Null when there is no ledger. */
  lockHead(eventId: EventId): Promise<LedgerHead | null>;
  append(
    eventId: EventId,
    entry: StoredEntry,
    commitments: readonly Commitment[],
    signed: SignedHead,
  ): Promise<void>;
  /** Entries with `seq` over `after`, oldest first. */
  entries(eventId: EventId, after: number, limit: number): Promise<StoredEntry[]>;
  /** A page of the entries whose text holds `search`, newest first, and how many there are. */
  find(
    eventId: EventId,
    search: string,
    offset: number,
    limit: number,
  ): Promise<{ entries: StoredEntry[]; total: number }>;
  /** All commitments of a ledger; those that were erased have neither salt nor value. */
  commitments(eventId: EventId): Promise<StoredCommitment[]>;
  /** Every ledger of which anything is left. */
  all(): Promise<string[]>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    ledger: LedgerStore;
  }
}
