import type { LedgerHead } from './ledger.ts';

/** What a device was told of where a ledger ended, newest last. */
export type ToldHeads = readonly LedgerHead[];

/** So many are kept: the newest, and further back ever fewer. */
const MOST_TOLD = 12;

/**
 * Keeps a head that was told. The newest stay, and of the older ones each second is let go first, so that the first that
 * was ever told stays longest.
 */
export function keepHead(told: ToldHeads, { seq, hash }: LedgerHead): ToldHeads {
  if (told.some((one) => one.seq === seq)) return told;
  const kept = [...told, { seq, hash }].sort((a, b) => a.seq - b.seq);
  if (kept.length <= MOST_TOLD) return kept;
  const half = Math.floor(kept.length / 2);
  const dropped = kept.findIndex((_, i) => i > 0 && i < half && i % 2 === 1);
  return kept.toSpliced(Math.max(1, dropped), 1);
}

/** A head that was told once and is no more: the record was shortened, or written anew. */
export interface BrokenPromise extends LedgerHead {
  /** What stands at its place now; null where nothing does. */
  now: string | null;
}

/** Whether what was told still stands: null where it does. */
export function compareHead(told: LedgerHead, now: string | null): BrokenPromise | null {
  return now === told.hash ? null : { ...told, now };
}
