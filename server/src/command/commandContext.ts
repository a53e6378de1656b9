import { randomBytes } from 'node:crypto';
import { canonicalBytes, commitTo } from '@lauta/core/ledger';
import type { Command, CommandBody, CommandKind } from '@lauta/contract';
import type { Commitment } from '../ledger/ledgerStore.ts';
import type { Asker } from '../people/subject.ts';
import type { Stores } from '../storage/storage.ts';

/** What a command did: the body of its ledger entry, and what its sender is told. */
export interface Done {
  body: Record<string, unknown>;
  result?: Record<string, unknown>;
}

export interface CommandContext {
  stores: Stores;
  accountId: string;
  /** Who sends it: the account, on a phone of its own or on one that was paired. */
  asker: Asker;
  /** Application time at which the server took the command. */
  now: Date;
  random: () => number;
  /** Salts a value that stays outside of the ledger and returns the commitment that stands in it. */
  commit(label: string, value: unknown): string;
}

export type Handler<K extends CommandKind> = (
  context: CommandContext,
  body: CommandBody<K>,
  command: Extract<Command, { kind: K }>,
) => Promise<Done>;

export interface CommitmentPurse {
  commit: CommandContext['commit'];
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
