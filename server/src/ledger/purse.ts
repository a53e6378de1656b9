import { randomBytes } from 'node:crypto';
import { canonicalBytes, commitTo } from '@lauta/core/ledger';
import type { Commitment } from './ledgerStore.ts';

export interface CommitmentPurse {
  /** Salts a value that stays outside of the ledger and returns the commitment that stands in it. */
  commit(label: string, value: unknown): string;
  /** Everything committed to, for the entry at `seq`. */
  opened(seq: number): Commitment[];
}

export function openPurse(): CommitmentPurse {
  const kept: Omit<Commitment, 'seq'>[] = [];
  return {
    commit(label, value) {
      const salt = randomBytes(32);
      kept.push({ label, salt: salt.toString('hex'), value: Buffer.from(canonicalBytes(value)).toString() });
      return commitTo(salt, label, value);
    },
    opened: (seq) => kept.map((one) => ({ seq, ...one })),
  };
}
