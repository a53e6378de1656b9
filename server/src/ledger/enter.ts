import type { CommitmentPurse } from '../command/commandContext.ts';
import { openPurse } from '../command/commandContext.ts';
import type { Lauta } from '../lauta.ts';
import type { Stores } from '../storage/storage.ts';
import { append } from './append.ts';

export interface Entered {
  /** Whose ledger: an event's, or the installation's own. */
  ledgerId: string;
  actorId: string;
  kind: string;
  body: (commit: CommitmentPurse['commit']) => Record<string, unknown>;
}

/** Appends what was done otherwise than by a command, in the transaction in which it was done. */
export async function enter(
  { clock, signer }: Pick<Lauta, 'clock' | 'signer'>,
  stores: Stores,
  { ledgerId, actorId, kind, body }: Entered,
): Promise<void> {
  const head = await stores.ledger.lockHead(ledgerId);
  if (!head) throw new Error(`ledger ${ledgerId}: expected one that was opened`);
  const purse = openPurse();
  const draft = { eventId: ledgerId, actorId, kind, at: clock.now().toISOString(), body: body(purse.commit) };
  await append(stores, signer, head, draft, purse);
}
