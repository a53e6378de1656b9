import type { LedgerCheckView } from '@lauta/contract';
import type { Lauta } from '../context/lauta.ts';
import { checkLedger } from './checkLedger.ts';
import type { EventId } from '@lauta/core/ids';

/** A check of the same head is remembered so long: what is altered meanwhile is found by the next. */
const REMEMBERED_MS = 60_000;
const MOST_SHOWN = 200;

/** One check an event at a time, whoever asks; those that ask meanwhile get the one that runs. */
export function ledgerChecks() {
  const kept = new Map<string, { head: string; atMs: number; check: Promise<LedgerCheckView> }>();
  return async ({ storage, signer }: Lauta, eventId: EventId): Promise<LedgerCheckView> => {
    const head = (await storage.read.ledger.head(eventId))?.hash ?? '';
    const known = kept.get(eventId);
    const from = performance.now();
    if (known && known.head === head && from - known.atMs < REMEMBERED_MS) return known.check;
    const check = (known?.check ?? Promise.resolve())
      .catch(() => undefined)
      .then(() => checkLedger(storage.read, eventId, signer.isLasting ? { signer } : {}))
      .then(({ faults, ...rest }) => ({
        ...rest,
        faults: faults.slice(0, MOST_SHOWN),
        faultCount: faults.length,
        tookMs: Math.round(performance.now() - from),
      }));
    kept.set(eventId, { head, atMs: from, check });
    check.catch(() => kept.delete(eventId));
    return check;
  };
}
