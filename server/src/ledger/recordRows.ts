import type { AccountId, DeviceId, EventId, KeyId, PairingId } from '@lauta/core/ids';

/** A row outside of the ledger that scores or is shown, as far as entries speak of it. */
export interface RecordRow {
  table: RecordTable;
  key: string;
  fields: Record<string, unknown>;
}

export const RECORD_TABLES = [
  'event', 'day', 'codes-time', 'session', 'role', 'entrant', 'member', 'person', 'identifier', 'rule-sheet', 'board',
  'waters', 'catch', 'measurement', 'catch-photograph', 'photograph', 'verdict', 'answer', 'timing', 'announcement',
  'capture', 'well', 'weigh-in', 'specimen', 'specimen-photograph', 'receipt', 'device-key', 'account',
] as const; // prettier-ignore
export type RecordTable = (typeof RECORD_TABLES)[number];

/** What was there before the installation kept a ledger of its own. */
export interface AdoptedInstallation {
  keys: { keyId: KeyId; accountId: AccountId; deviceId: DeviceId; pairingId: PairingId | null; registeredAt: string; revokedAt: string | null; revokedWhy: string | null }[]; // prettier-ignore
  accounts: { accountId: AccountId; founder: boolean; suspendedAt: string | null }[];
}

/** Every row of which a ledger speaks, as it is stored now: read in bulk, a few questions an event. */
export interface RecordStore {
  ofEvent(eventId: EventId): Promise<RecordRow[]>;
  ofInstallation(): Promise<RecordRow[]>;
  installation(): Promise<AdoptedInstallation>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    record: RecordStore;
  }
}
