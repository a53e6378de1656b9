import type { Command, CommandBody, CommandKind } from '@lauta/contract';
import type { CommitmentPurse } from '../ledger/purse.ts';
import type { Asker } from '../access/scope.ts';
import type { Stores } from '../storage/storage.ts';
import type { AccountId } from '@lauta/core/ids';

/** What a command did: the body of its ledger entry, and what its sender is told. */
export interface Done {
  body: Record<string, unknown>;
  result?: Record<string, unknown>;
}

export interface CommandContext {
  stores: Stores;
  accountId: AccountId;
  /** Who sends it: the account, on a phone of its own or on one that was paired. */
  asker: Asker;
  /** Application time at which the server took the command. */
  now: Date;
  random: () => number;
  commit: CommitmentPurse['commit'];
}

export type Handler<K extends CommandKind> = (
  context: CommandContext,
  body: CommandBody<K>,
  command: Extract<Command, { kind: K }>,
) => Promise<Done>;
