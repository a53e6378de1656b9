import { createHash } from 'node:crypto';
import { setImmediate as breathe } from 'node:timers/promises';
import type { LedgerFaultView } from '@lauta/contract';
import { readExif } from '@lauta/vision';
import { canonicalBytes, verifyLedger, type LedgerHead, type StoredEntry } from '@lauta/core/ledger';
import { exifSha256 } from '../ledger/exifSha256.ts';
import { FIRST_KIND, LEDGER_SETTING } from '../installation/installation.ts';
import { chunksOf } from '../photo/readOriginal.ts';
import type { Stores } from '../storage/storage.ts';
import { expectedRows } from './expectedRows.ts';
import type { Expectation, ExpectedRow } from '../ledger/recordFold.ts';
import type { HeadSigner } from '../keys/headSigner.ts';
import type { RecordRow, RecordTable } from '../ledger/recordRows.ts';
import type { EventId } from '@lauta/core/ids';

export interface LedgerCheck {
  /** Nothing differs, and nothing was erased: all that entries speak of is there, and nothing else is. */
  ok: boolean;
  entries: number;
  head: LedgerHead | null;
  faults: LedgerFaultView[];
  /** Entries whose committed words were erased: they cannot be checked. */
  erased: number;
  /** Rows that an earlier version entered nothing about. */
  untold: number;
}

export interface CheckOptions {
  /** Reads and hashes every photograph's bytes too, and not only the hashes that are stored of them. */
  withBytes?: boolean;
  /** Whoever can verify the head's signature does. */
  signer?: HeadSigner | undefined;
}

const AT_ONCE = 500;

/**
 * Checks an event's whole record, both ways: the chain itself, that everything of which an entry speaks stands outside of
 * it as the entry says, and that nothing stands there of which no entry speaks. Every difference is named.
 */
export function checkLedger(
  stores: Stores,
  eventId: EventId,
  options: CheckOptions = {},
): Promise<LedgerCheck> {
  return check(stores, eventId, 'event.create', () => stores.record.ofEvent(eventId), options);
}

/** The same of the installation's own ledger: devices' keys, founders, accounts that were suspended. */
export async function checkInstallation(stores: Stores, options: CheckOptions = {}): Promise<LedgerCheck> {
  const ledgerId = (await stores.settings.get(LEDGER_SETTING)) ?? '';
  return check(stores, ledgerId, FIRST_KIND, () => stores.record.ofInstallation(), options);
}

async function check(
  stores: Stores,
  ledgerId: string,
  firstKind: string,
  rowsOf: () => Promise<RecordRow[]>,
  { withBytes = false, signer }: CheckOptions,
): Promise<LedgerCheck> {
  const stored = ledgerId === '' ? null : await stores.ledger.head(ledgerId);
  const entries = ledgerId === '' ? [] : await allEntries(stores, ledgerId);
  const head = stored && { seq: stored.seq, hash: stored.hash };
  const chain = verifyLedger(ledgerId, entries, { firstKind, head: head ?? undefined });
  const faults: LedgerFaultView[] = chain.faults.map(({ seq, fault }) => ({ seq, fault, about: '' }));
  if (!stored) faults.push({ seq: null, fault: 'no-head', about: '' });
  else if (stored.signature !== null && signer && !signer.isSigned(ledgerId, stored))
    faults.push({ seq: stored.seq, fault: 'head-not-signed', about: '' });
  const expected = expectedRows(chain.read, await stores.ledger.commitments(ledgerId));
  faults.push(...commitmentFaults(expected), ...(await differences(expected, await rowsOf(), entries)));
  if (withBytes) faults.push(...(await byteFaults(stores, expected)));
  faults.sort((a, b) => (a.seq ?? Infinity) - (b.seq ?? Infinity));
  return {
    ok: faults.length === 0 && expected.erased.size === 0,
    entries: entries.length,
    head,
    faults,
    erased: expected.erased.size,
    untold: expected.untold,
  };
}

async function allEntries(stores: Stores, ledgerId: string): Promise<StoredEntry[]> {
  const entries: StoredEntry[] = [];
  for (;;) {
    const some = await stores.ledger.entries(ledgerId, entries.at(-1)?.seq ?? 0, AT_ONCE);
    entries.push(...some);
    if (some.length < AT_ONCE) return entries;
  }
}

function commitmentFaults({ commitmentFaults: found, unknownKinds }: Expectation): LedgerFaultView[] {
  return [
    ...found.map(({ seq, label, what }) => ({ seq, fault: `commitment-${what}`, about: label })),
    ...unknownKinds.map(({ seq, kind }) => ({ seq, fault: 'kind-not-known', about: kind })),
  ];
}

/** What a row of a kind is called when it is not as its entry says. */
const FAULT_OF: Partial<Record<RecordTable, string>> = {
  photograph: 'photograph-differs',
  'rule-sheet': 'sheet-differs',
  board: 'board-differs',
  waters: 'waters-differ',
  capture: 'capture-differs',
};

async function differences(
  expected: Expectation,
  rows: readonly RecordRow[],
  entries: readonly StoredEntry[],
): Promise<LedgerFaultView[]> {
  const faults: LedgerFaultView[] = [];
  const missing = new Map(expected.rows);
  const hashes = new Map(entries.map(({ seq, hash }) => [seq, hash]));
  for (const [i, row] of rows.entries()) {
    if (i % AT_ONCE === 0) await breathe();
    const about = `${row.table} ${row.key}`;
    const expectedRow = missing.get(about);
    missing.delete(about);
    if (!expectedRow) {
      if (expected.mayBeThere(row.table, row.key, row.fields)) expected.untold += 1;
      else faults.push({ seq: null, fault: 'row-without-entry', about });
      continue;
    }
    const fields = fieldsThatDiffer(expectedRow, shownFields(row), hashes);
    if (fields.length > 0)
      faults.push({
        seq: expectedRow.seq,
        fault: FAULT_OF[row.table] ?? 'record-differs',
        about: `${about}: ${fields.join(', ')}`,
      });
  }
  for (const { seq, table, key } of missing.values())
    faults.push({ seq, fault: FAULT_OF[table] ?? 'record-missing', about: `${table} ${key}` });
  return faults;
}

/** A verdict's words stand in its decision, whatever its kind. */
function shownFields({ table, fields }: RecordRow): Record<string, unknown> {
  if (table !== 'verdict') return fields;
  const decision = fields['decision'] as Record<string, unknown>;
  const { kind, steps = null, infractions = [], note, reason, request } = decision;
  return {
    ...fields,
    kind,
    steps: kind === 'accepted' ? steps : null,
    infractions: (infractions as string[]).toSorted(),
    words: note ?? reason ?? request ?? '',
  };
}

function fieldsThatDiffer(
  { table, fields }: ExpectedRow,
  now: Record<string, unknown>,
  hashes: ReadonlyMap<number, string>,
): string[] {
  const wrong = Object.entries(fields)
    .filter(([field, value]) => field !== 'hash' && !isSame(now[field], value))
    .map(([field]) => field);
  if (table === 'receipt' && now['hash'] !== undefined && now['hash'] !== hashes.get(Number(now['seq'])))
    wrong.push('hash');
  return wrong;
}

const UUID = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/gi;

/** The database writes ids in small letters, whoever made them. */
function isSame(a: unknown, b: unknown): boolean {
  const text = (value: unknown): string =>
    Buffer.from(canonicalBytes(value ?? null))
      .toString('utf8')
      .replaceAll(UUID, (id) => id.toLowerCase());
  return text(a) === text(b);
}

async function byteFaults(stores: Stores, { rows }: Expectation): Promise<LedgerFaultView[]> {
  const faults: LedgerFaultView[] = [];
  for (const { table, key, seq, fields } of rows.values()) {
    if (table !== 'photograph') continue;
    const photograph = await stores.photographs.find(key);
    // That it is missing was found before.
    if (!photograph) continue;
    const wrong: string[] = [];
    const bytes = await chunksOf(stores, photograph);
    const sha256 = bytes && createHash('sha256').update(bytes).digest('hex');
    if (sha256 !== photograph.sha256) wrong.push('bytes');
    else if (photograph.exif && exifSha256(await readExif(bytes as Buffer)) !== exifSha256(photograph.exif))
      wrong.push('what the file tells');
    const copies = await stores.photographs.copyHashes(key);
    if ((fields['copies'] ?? null) !== null && !isSame(copies, fields['copies'])) wrong.push('copies’ bytes');
    if (wrong.length > 0)
      faults.push({ seq, fault: 'photograph-differs', about: `photograph ${key}: ${wrong.join(', ')}` });
  }
  return faults;
}
