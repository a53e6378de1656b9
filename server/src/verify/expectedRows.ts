import type { CommandKind } from '@lauta/contract';
import type { LedgerEntry } from '@lauta/core/ledger';
import { EVENT_RECORD } from '../event/eventRecord.ts';
import { PEOPLE_RECORD } from '../people/peopleRecord.ts';
import { CUSTODY_RECORD } from '../custody/custodyRecord.ts';
import { CATCH_RECORD } from '../catch/catchRecord.ts';
import { WELL_RECORD } from '../well/wellRecord.ts';
import { WEIGH_IN_RECORD } from '../weigh-in/weighInRecord.ts';
import { SPECIMEN_RECORD } from '../specimen/specimenRecord.ts';
import { INSTALLATION_RECORD } from '../installation/installationRecord.ts';
import type { StoredCommitment } from '../ledger/ledgerStore.ts';
import { Fold, type Expectation, type FoldOne } from '../ledger/recordFold.ts';

/** Each kind of entry proves its rows: a command without its proof does not compile. */
const FOLDS: Record<CommandKind | 'people.unaccept', FoldOne> = {
  ...EVENT_RECORD,
  ...PEOPLE_RECORD,
  ...CUSTODY_RECORD,
  ...CATCH_RECORD,
  ...WELL_RECORD,
  ...WEIGH_IN_RECORD,
  ...SPECIMEN_RECORD,
  ...INSTALLATION_RECORD,
};

/** Folds a ledger's entries, in order, into the rows that must be there: all of them, and no others. */
export function expectedRows(
  entries: readonly LedgerEntry[],
  commitments: readonly StoredCommitment[],
): Expectation {
  const fold = new Fold(commitments, FOLDS);
  for (const entry of entries) fold.take(entry);
  return fold.finish();
}
