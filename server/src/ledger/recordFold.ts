import type { DecisionInput } from '@lauta/contract';
import { commitTo, type LedgerEntry } from '@lauta/core/ledger';
import { catchState } from '@lauta/core/catch';
import type { StoredCommitment } from './ledgerStore.ts';
import type { RecordTable } from './recordRows.ts';
import type { CatchId, EntrantId, FileId, VerdictId } from '@lauta/core/ids';

/** A row that entries say must be there. A field that is absent was not told, or what told it was erased. */
export interface ExpectedRow {
  table: RecordTable;
  key: string;
  /** The last entry that spoke of it. */
  seq: number;
  fields: Record<string, unknown>;
}

export interface CommitmentFault {
  seq: number;
  label: string;
  what: 'missing' | 'extra' | 'differs';
}

export interface Expectation {
  rows: Map<string, ExpectedRow>;
  commitmentFaults: CommitmentFault[];
  /** Entries whose committed words were erased: they cannot be checked. */
  erased: Set<number>;
  /** Rows that were found so, counted by whoever compares. */
  untold: number;
  /** Rows that may be there though no entry told them: its version did not, or what told it was erased. */
  mayBeThere: (table: RecordTable, key: string, fields: Record<string, unknown>) => boolean;
  /** Entries of a kind that nobody knows how to check. */
  unknownKinds: { seq: number; kind: string }[];
}

export type Body = Record<string, unknown>;
export type Opened = { isKnown: true; value: unknown } | { isKnown: false };

const rowKey = (table: RecordTable, key: string): string => `${table} ${key}`;
export const iso = (text: unknown): string => new Date(String(text)).toISOString();
export const list = (value: unknown): Body[] => (Array.isArray(value) ? (value as Body[]) : []);
export const told = (opened: Opened, fields: (value: never) => Body): Body =>
  opened.isKnown ? fields(opened.value as never) : {};

/** What an entry of one kind says of the rows that must be there. */
export type FoldOne = (fold: Fold, entry: LedgerEntry) => void;
/** By kind of entry. */
export type Folds = Readonly<Record<string, FoldOne>>;

/** Rows as entries tell them, one after the other. */
export class Fold {
  private readonly rows = new Map<string, ExpectedRow>();
  private readonly commitmentFaults: CommitmentFault[] = [];
  private readonly erased = new Set<number>();
  private readonly unknownKinds: Expectation['unknownKinds'] = [];
  private readonly unopened: Map<string, StoredCommitment>;
  /** Of what versions before did not tell: whose codes may stand without an entry. */
  private readonly untoldCodes = new Set<string>();
  /** Of erased commitments: what rows they may have been of. */
  private readonly erasedKeys = new Set<string>();
  private readonly shown = new Map<string, number>();
  private readonly decided = new Map<string, { verdictId: VerdictId; kind: string }[]>();
  private readonly answered = new Map<string, string[]>();
  private entry: LedgerEntry | null = null;

  private readonly folds: Folds;

  constructor(commitments: readonly StoredCommitment[], folds: Folds) {
    this.folds = folds;
    this.unopened = new Map(commitments.map((one) => [`${one.seq} ${one.label}`, one]));
  }

  take(entry: LedgerEntry): void {
    this.entry = entry;
    const { kind, body, seq } = entry;
    const said = Object.hasOwn(this.folds, kind) ? this.folds[kind] : undefined;
    if (said) said(this, entry);
    else this.unknownKinds.push({ seq, kind });
    if (body['commandId'] !== undefined) this.receipt(entry);
  }

  finish(): Expectation {
    for (const { seq, label } of this.unopened.values())
      this.commitmentFaults.push({ seq, label, what: 'extra' });
    for (const row of this.rows.values()) if (row.table === 'catch') this.settleState(row);
    return {
      rows: this.rows,
      commitmentFaults: this.commitmentFaults,
      erased: this.erased,
      unknownKinds: this.unknownKinds,
      untold: 0,
      mayBeThere: (table, key, fields) =>
        this.erasedKeys.has(`${table} ${key}`) ||
        (table === 'identifier' && this.untoldCodes.has(key.split('/')[0] ?? '')) ||
        (table === 'capture' && this.erasedKeys.has(`capture ${String(fields['captureId'])}`)) ||
        (['timing', 'announcement', 'specimen-photograph'].includes(table) &&
          this.erasedKeys.has(`${table} of ${String(fields['entrantId'] ?? key.split('/')[0])}`)),
    };
  }

  /** What stands behind a commitment of the present entry. */
  open(label: string, hash: unknown): Opened {
    if (typeof hash !== 'string' || !this.entry) return { isKnown: false };
    const { seq, v } = this.entry;
    const name = `${seq} ${label}`;
    const stored = this.unopened.get(name);
    this.unopened.delete(name);
    if (!stored) {
      this.commitmentFaults.push({ seq, label, what: 'missing' });
      return { isKnown: false };
    }
    if (stored.salt === null || stored.value === null) {
      this.erased.add(seq);
      return { isKnown: false };
    }
    try {
      const value = JSON.parse(stored.value) as unknown;
      const salt = Buffer.from(stored.salt, 'hex');
      if (commitTo(salt, v === 1 ? null : label, value) === hash) return { isKnown: true, value };
    } catch {
      // What is no JSON, or no salt, is not what was committed to.
    }
    this.commitmentFaults.push({ seq, label, what: 'differs' });
    return { isKnown: false };
  }

  set(table: RecordTable, key: (string | number)[], fields: Body): void {
    const name = key.join('/');
    const id = rowKey(table, name);
    const known = this.rows.get(id);
    const seq = this.entry?.seq ?? 0;
    this.rows.set(id, { table, key: name, seq, fields: { ...known?.fields, ...fields } });
  }

  get(table: RecordTable, ...key: (string | number)[]): ExpectedRow | undefined {
    return this.rows.get(rowKey(table, key.join('/')));
  }

  remove(table: RecordTable, ...key: (string | number)[]): void {
    this.rows.delete(rowKey(table, key.join('/')));
  }

  leaveOpen(name: string): void {
    this.erasedKeys.add(name);
  }

  codesUntold(entrantId: EntrantId): void {
    this.untoldCodes.add(entrantId);
  }

  *all(table: RecordTable): Iterable<ExpectedRow> {
    for (const row of this.rows.values()) if (row.table === table) yield row;
  }

  /** Attaches a photograph to a catch, after those that it has. */
  show(catchId: CatchId, photographId: unknown, role: string): void {
    const seq = this.shown.get(catchId) ?? 0;
    this.shown.set(catchId, seq + 1);
    this.set('catch-photograph', [catchId, seq], { photographId, role });
  }

  file(photographId: FileId, hash: unknown): void {
    const opened = this.open(`photograph-${photographId}`, hash);
    this.set(
      'photograph',
      [photographId],
      told(opened, (value: Body) => value),
    );
  }

  verdict(catchId: CatchId, verdictId: VerdictId, kind: string): number {
    const former = this.decided.get(catchId) ?? [];
    former.push({ verdictId, kind });
    this.decided.set(catchId, former);
    return former.length;
  }

  answer(verdictId: VerdictId, answerId: string): void {
    this.answered.set(verdictId, [...(this.answered.get(verdictId) ?? []), answerId]);
  }

  private settleState(row: ExpectedRow): void {
    const last = this.decided.get(row.key)?.at(-1);
    const decision = { kind: last?.kind } as DecisionInput;
    const verdict = last && { verdictId: last.verdictId, catchId: row.key, seq: 0, judgeId: '', decidedAt: new Date(0), decision }; // prettier-ignore
    const answers = (last ? (this.answered.get(last.verdictId) ?? []) : []).map((answerId) => ({ answerId, catchId: row.key, verdictId: last?.verdictId ?? '', answeredAt: new Date(0), words: '', photographId: null })); // prettier-ignore
    row.fields['state'] = catchState(row.fields['withdrawnAt'] !== null, verdict, answers);
  }

  private receipt({ seq, kind, at, actorId, body, v }: LedgerEntry): void {
    const known = { accountId: actorId, kind, seq, receivedAt: at, createdAt: at };
    const opened: Opened = v === 1 ? { isKnown: false } : this.open('receipt', body['receipt']);
    this.set('receipt', [String(body['commandId'])], { ...known, ...told(opened, (value: Body) => value) });
  }
}
