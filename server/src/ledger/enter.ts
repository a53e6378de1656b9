import { openPurse, type CommitmentPurse } from './purse.ts';
import type { Lauta } from '../context/lauta.ts';
import type { Stores } from '../storage/storage.ts';
import { append } from './append.ts';
import type { AccountId } from '@lauta/core/ids';

export interface Entered {
  /** Whose ledger: an event's, or the installation's own. */
  ledgerId: string;
  actorId: AccountId;
  kind: string;
  /** The very instant that is stored with what was done. */
  at: Date;
  body: (commit: CommitmentPurse['commit']) => Record<string, unknown>;
}

/** Appends what was done otherwise than by a command, in the transaction in which it was done. */
export async function enter(
  { signer }: Pick<Lauta, 'signer'>,
  stores: Stores,
  { ledgerId, actorId, kind, at, body }: Entered,
): Promise<void> {
  const head = await stores.ledger.lockHead(ledgerId);
  if (!head) throw new Error(`ledger ${ledgerId}: expected one that was opened`);
  const purse = openPurse();
  const draft = { eventId: ledgerId, actorId, kind, at: at.toISOString(), body: body(purse.commit) };
  await append(stores, signer, head, draft, purse);
}
