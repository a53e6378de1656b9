import {
  CLOCK_BACK,
  appendEntry,
  type LedgerDraft,
  type LedgerEntry,
  type LedgerHead,
} from '@lauta/core/ledger';
import type { CommitmentPurse } from './purse.ts';
import type { Stores } from '../storage/storage.ts';
import type { HeadSigner, SignedHead } from '../keys/headSigner.ts';
import type { EventId } from '@lauta/core/ids';

/**
 * Appends an entry to a ledger whose head the caller has locked, and signs where it ends now. Where its time is before
 * that of the entry before, it says so.
 */
export async function append(
  stores: Stores,
  signer: HeadSigner,
  head: LedgerHead,
  draft: LedgerDraft,
  purse: CommitmentPurse,
): Promise<SignedHead> {
  const { eventId } = draft;
  const formerAt = await timeOf(stores, eventId, head.seq);
  const isBack = formerAt !== null && draft.at < formerAt;
  const entry = appendEntry(
    head,
    isBack ? { ...draft, body: { ...draft.body, [CLOCK_BACK]: formerAt } } : draft,
  );
  const signed = signer.sign(eventId, entry);
  await stores.ledger.append(eventId, entry, purse.opened(entry.seq), signed);
  return signed;
}

async function timeOf(stores: Stores, eventId: EventId, seq: number): Promise<string | null> {
  const [last] = seq > 0 ? await stores.ledger.entries(eventId, seq - 1, 1) : [];
  return last ? (JSON.parse(Buffer.from(last.bytes).toString('utf8')) as LedgerEntry).at : null;
}
