export {
  LEDGER_VERSION,
  appendEntry,
  canonicalBytes,
  commitTo,
  genesisHash,
  hashHex,
  verifyLedger,
  type LedgerDraft,
  type LedgerEntry,
  type LedgerHead,
  type LedgerVerdict,
  type StoredEntry,
} from './ledger.ts';
