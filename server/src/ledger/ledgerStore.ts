import type { LedgerHead, StoredEntry } from '@lauta/core/ledger';

export interface Commitment {
  seq: number;
  label: string;
  salt: string;
  /** Canonical JSON of what was committed to. */
  value: string;
}

/** The append-only record of each event. */
export interface LedgerStore {
  /** Begins an event's ledger. */
  open(eventId: string, head: LedgerHead): Promise<void>;
  head(eventId: string): Promise<LedgerHead | null>;
  /** The head, locked until the transaction ends, so that appends follow one another. Null when there is no ledger. */
  lockHead(eventId: string): Promise<LedgerHead | null>;
  append(eventId: string, entry: StoredEntry, commitments: readonly Commitment[]): Promise<void>;
  /** Entries with `seq` over `after`, oldest first. */
  entries(eventId: string, after: number, limit: number): Promise<StoredEntry[]>;
  /** A page of the entries whose text holds `search`, newest first, and how many there are. */
  find(
    eventId: string,
    search: string,
    offset: number,
    limit: number,
  ): Promise<{ entries: StoredEntry[]; total: number }>;
  /** Commitments that were not erased, of entries with `seq` over `after` and up to `until`. */
  commitments(eventId: string, after: number, until: number): Promise<Commitment[]>;
}
