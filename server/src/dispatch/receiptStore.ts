import type { Receipt } from '@lauta/contract';
import type { AccountId } from '@lauta/core/ids';

/** Receipts already given, bound to the account that sent the command and to the hash of its body. */
export interface ReceiptStore {
  find(accountId: AccountId, key: string): Promise<{ bodySha256: string; receipt: Receipt } | null>;
  keep(accountId: AccountId, key: string, bodySha256: string, receipt: Receipt, at: Date): Promise<void>;
}

declare module '../storage/storage.ts' {
  interface Stores {
    receipts: ReceiptStore;
  }
}
