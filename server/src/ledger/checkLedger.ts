import { createHash } from 'node:crypto';
import { canonicalBytes, commitTo, hashHex, verifyLedger, type StoredEntry } from '@lauta/core/ledger';
import type { RecordSpecimen, SignedCapture } from '@lauta/contract';
import { statementHash } from '@lauta/core/custody';
import type { WeighInEntry } from '@lauta/core/weigh-in';
import type { WellEntry } from '@lauta/core/well';
import { readOriginal } from '../photo/receivePhotograph.ts';
import type { Stores } from '../storage/storage.ts';

export type RecordFault =
  | 'commitment-differs'
  | 'record-differs'
  | 'photograph-differs'
  | 'sheet-differs'
  | 'board-differs'
  | 'waters-differ'
  | 'capture-differs';

export interface LedgerCheck {
  ok: boolean;
  entries: number;
  head: { seq: number; hash: string } | null;
  firstFault: { seq: number; fault: string } | null;
}

export interface CheckOptions {
  /** Reads and hashes every photograph's bytes too, and not only the hashes that are stored of them. */
  withBytes: boolean;
}

const AT_ONCE = 500;
const PHOTOGRAPH = 'photograph-';
const CAPTURE = 'capture-';
const WELL = 'well-';
const WEIGHED = 'weigh-';
const SPECIMEN = 'specimen-';

/** What stands behind a photograph's commitment. */
interface CommittedFile {
  sha256: string;
  copies?: Record<'screen' | 'thumb', string> | null;
}

/**
 * Checks an event's whole record: first the chain itself, then that what stands outside of it (catches, verdicts,
 * rule sheets, photographs' hashes, committed words) is still what its entries say.
 */
export async function checkLedger(
  stores: Stores,
  eventId: string,
  options: CheckOptions = { withBytes: false },
): Promise<LedgerCheck> {
  const head = await stores.ledger.head(eventId);
  const entries: StoredEntry[] = [];
  for (;;) {
    const some = await stores.ledger.entries(eventId, entries.at(-1)?.seq ?? 0, AT_ONCE);
    entries.push(...some);
    if (some.length < AT_ONCE) break;
  }
  const verdict = verifyLedger(eventId, entries, head ?? undefined);
  if (!verdict.ok) {
    const { seq, fault } = verdict;
    return { ok: false, entries: entries.length, head, firstFault: { seq, fault } };
  }
  const firstFault = await checkRecords(stores, eventId, entries, options);
  return { ok: firstFault === null, entries: entries.length, head, firstFault };
}

interface EntryFields {
  seq: number;
  kind: string;
  body: Record<string, unknown>;
}

async function checkRecords(
  stores: Stores,
  eventId: string,
  entries: readonly StoredEntry[],
  options: CheckOptions,
): Promise<{ seq: number; fault: RecordFault } | null> {
  const commitments = await stores.ledger.commitments(eventId, 0, entries.at(-1)?.seq ?? 0);
  const sheets = await stores.rules.versions(eventId);
  const boards = await stores.boards.inEvent(eventId);
  for (const { seq, bytes } of entries) {
    const { kind, body } = JSON.parse(Buffer.from(bytes).toString('utf8')) as EntryFields;
    const standing = JSON.stringify(body);
    for (const { salt, value } of commitments.filter((one) => one.seq === seq)) {
      const commitment = commitTo(Buffer.from(salt, 'hex'), JSON.parse(value));
      if (!standing.includes(commitment)) return { seq, fault: 'commitment-differs' };
    }
    if (kind === 'rules.publish') {
      const sheet = sheets.find((one) => one.version === body['version']);
      if (!sheet || hashHex(sheet.bytes) !== body['sha256']) return { seq, fault: 'sheet-differs' };
    }
    if (kind === 'board.add') {
      const board = boards.find((one) => one.boardId === body['boardId']);
      if (!board || hashHex(board.bytes) !== body['sha256']) return { seq, fault: 'board-differs' };
    }
    if (kind === 'waters.publish') {
      const stored = await stores.waters.find(eventId, Number(body['version']));
      if (!stored || hashHex(stored.bytes) !== body['sha256']) return { seq, fault: 'waters-differ' };
    }
    if (kind === 'catch.announce' && !(await announcementStands(stores, body)))
      return { seq, fault: 'record-differs' };
    if (kind === 'catch.time' && !(await timingStands(stores, body))) return { seq, fault: 'record-differs' };
    if (kind === 'catch.claim' && !(await claimStands(stores, body))) return { seq, fault: 'record-differs' };
    if (kind === 'catch.handle' && !(await handlingStands(stores, body)))
      return { seq, fault: 'record-differs' };
    if (kind === 'catch.judge' && !(await verdictStands(stores, body)))
      return { seq, fault: 'record-differs' };
    for (const { label, value } of commitments.filter((one) => one.seq === seq)) {
      if (label.startsWith(CAPTURE) && !(await captureStands(stores, JSON.parse(value) as SignedCapture)))
        return { seq, fault: 'capture-differs' };
      if (label.startsWith(WELL) && !(await wellEntryStands(stores, JSON.parse(value) as WellEntry)))
        return { seq, fault: 'record-differs' };
      if (label.startsWith(WEIGHED) && !(await weighInEntryStands(stores, JSON.parse(value) as WeighInEntry)))
        return { seq, fault: 'record-differs' };
      if (label.startsWith(SPECIMEN) && !(await specimenStands(stores, JSON.parse(value) as RecordSpecimen)))
        return { seq, fault: 'record-differs' };
      if (!label.startsWith(PHOTOGRAPH)) continue;
      const photographId = label.slice(PHOTOGRAPH.length);
      const stands = await photographStands(
        stores,
        photographId,
        JSON.parse(value) as CommittedFile,
        options,
      );
      if (!stands) return { seq, fault: 'photograph-differs' };
    }
  }
  return null;
}

async function photographStands(
  stores: Stores,
  photographId: string,
  committed: CommittedFile,
  { withBytes }: CheckOptions,
): Promise<boolean> {
  const photograph = await stores.photographs.find(photographId);
  if (photograph?.sha256 !== committed.sha256) return false;
  if (!withBytes) return true;
  const bytes = await readOriginal(stores, photograph);
  if (!bytes || createHash('sha256').update(bytes).digest('hex') !== committed.sha256) return false;
  return (
    !committed.copies || canonicalEqual(await stores.photographs.copyHashes(photographId), committed.copies)
  );
}

async function captureStands(stores: Stores, { statement, signature }: SignedCapture): Promise<boolean> {
  const stored = await stores.custody.findCapture(statementHash(statement));
  return stored !== null && canonicalEqual(stored.statement, statement) && stored.signature === signature;
}

async function wellEntryStands(stores: Stores, entry: WellEntry): Promise<boolean> {
  const stored = await stores.wells.find(entry.entryId);
  return stored !== null && canonicalEqual(stored, entry);
}

async function weighInEntryStands(stores: Stores, entry: WeighInEntry): Promise<boolean> {
  const stored = await stores.weighIns.find(entry.entryId);
  return stored !== null && canonicalEqual(stored, entry);
}

async function specimenStands(stores: Stores, record: RecordSpecimen): Promise<boolean> {
  const stored = await stores.specimens.find(record.specimenId);
  return stored !== null && canonicalEqual(stored.record, record);
}

async function announcementStands(stores: Stores, body: Record<string, unknown>): Promise<boolean> {
  const stored = await stores.custody.findAnnouncement(String(body['catchId']));
  if (!stored) return false;
  const { entrantId, speciesId, capturedAt, claimedSteps } = stored.body;
  return Object.entries({ entrantId, speciesId, capturedAt, claimedSteps }).every(([field, value]) => canonicalEqual(value, body[field])); // prettier-ignore
}

async function timingStands(stores: Stores, body: Record<string, unknown>): Promise<boolean> {
  const stored = (await stores.catches.timingsOf(String(body['catchId']))).find((one) => one.deviceId === body['deviceId']); // prettier-ignore
  return stored !== undefined && canonicalEqual(stored.handling, body['handling']);
}

async function claimStands(stores: Stores, body: Record<string, unknown>): Promise<boolean> {
  const record = await stores.catches.find(String(body['catchId']));
  if (!record) return false;
  const measurement = await stores.catches.measurement(record.measurementId);
  const now = {
    entrantId: record.entrantId,
    speciesId: record.speciesId,
    dayId: record.dayId,
    ruleVersion: record.ruleVersion,
    capturedAt: record.capturedAt.toISOString(),
    capturedSource: record.capturedSource,
    inSession: record.inSession,
    marks: record.marks,
    claimedSteps: record.claimedSteps,
    measurement: { measurementId: record.measurementId, reading: measurement?.reading ?? null },
  };
  // Entries of versions without the clock hold no such field.
  const isHandledSo = canonicalEqual(record.handling, body['handling'] ?? null);
  const isClockSo = record.clockOffsetMs === (body['clockOffsetMs'] ?? null);
  return (
    isHandledSo &&
    isClockSo &&
    Object.entries(now).every(([field, value]) => canonicalEqual(value, body[field]))
  );
}

async function handlingStands(stores: Stores, body: Record<string, unknown>): Promise<boolean> {
  const record = await stores.catches.find(String(body['catchId']));
  return record !== null && canonicalEqual(record.laterHandling, body['handling']);
}

async function verdictStands(stores: Stores, body: Record<string, unknown>): Promise<boolean> {
  const verdicts = await stores.catches.verdictsOf(String(body['catchId']));
  const verdict = verdicts.find((one) => one.verdictId === body['verdictId']);
  if (!verdict) return false;
  const { decision } = verdict;
  const infractions =
    decision.kind === 'accepted' || decision.kind === 'refused' ? decision.infractions.toSorted() : [];
  return (
    decision.kind === body['kind'] &&
    (decision.kind === 'accepted' ? decision.steps : null) === body['steps'] &&
    canonicalEqual(infractions, body['infractions'])
  );
}

function canonicalEqual(a: unknown, b: unknown): boolean {
  return hashHex(canonicalBytes(a)) === hashHex(canonicalBytes(b));
}
