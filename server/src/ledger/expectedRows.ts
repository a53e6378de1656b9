import type { CommandKind, DecisionInput, RecordSpecimen, SignedCapture } from '@lauta/contract';
import { statementHash } from '@lauta/core/custody';
import { commitTo, type LedgerEntry } from '@lauta/core/ledger';
import type { WeighInEntry } from '@lauta/core/weigh-in';
import type { WellEntry } from '@lauta/core/well';
import { catchState } from '../catch/catchState.ts';
import type { StoredCommitment } from './ledgerStore.ts';
import type { AdoptedInstallation, RecordTable } from './recordRows.ts';

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

type Body = Record<string, unknown>;
type Opened = { isKnown: true; value: unknown } | { isKnown: false };

const rowKey = (table: RecordTable, key: string): string => `${table} ${key}`;
const iso = (text: unknown): string => new Date(String(text)).toISOString();
const list = (value: unknown): Body[] => (Array.isArray(value) ? (value as Body[]) : []);
const told = (opened: Opened, fields: (value: never) => Body): Body =>
  opened.isKnown ? fields(opened.value as never) : {};

/** Folds a ledger's entries, in order, into the rows that must be there: all of them, and no others. */
export function expectedRows(
  entries: readonly LedgerEntry[],
  commitments: readonly StoredCommitment[],
): Expectation {
  const fold = new Fold(commitments);
  for (const entry of entries) fold.take(entry);
  return fold.finish();
}

class Fold {
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
  private readonly decided = new Map<string, { verdictId: string; kind: string }[]>();
  private readonly answered = new Map<string, string[]>();
  private entry: LedgerEntry | null = null;

  constructor(commitments: readonly StoredCommitment[]) {
    this.unopened = new Map(commitments.map((one) => [`${one.seq} ${one.label}`, one]));
  }

  take(entry: LedgerEntry): void {
    this.entry = entry;
    const { kind, body, seq } = entry;
    const handler = FOLDS[kind as keyof typeof FOLDS] as
      ((fold: Fold, entry: LedgerEntry) => void) | undefined;
    if (handler) handler(this, entry);
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

  codesUntold(entrantId: string): void {
    this.untoldCodes.add(entrantId);
  }

  *all(table: RecordTable): Iterable<ExpectedRow> {
    for (const row of this.rows.values()) if (row.table === table) yield row;
  }

  /** Attaches a photograph to a catch, after those that it has. */
  show(catchId: string, photographId: unknown, role: string): void {
    const seq = this.shown.get(catchId) ?? 0;
    this.shown.set(catchId, seq + 1);
    this.set('catch-photograph', [catchId, seq], { photographId, role });
  }

  file(photographId: string, hash: unknown): void {
    const opened = this.open(`photograph-${photographId}`, hash);
    this.set(
      'photograph',
      [photographId],
      told(opened, (value: Body) => value),
    );
  }

  verdict(catchId: string, verdictId: string, kind: string): number {
    const former = this.decided.get(catchId) ?? [];
    former.push({ verdictId, kind });
    this.decided.set(catchId, former);
    return former.length;
  }

  answer(verdictId: string, answerId: string): void {
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

type FoldOne = (fold: Fold, entry: LedgerEntry) => void;

const published =
  (table: RecordTable, key: string): FoldOne =>
  (fold, { at, body }) =>
    fold.set(table, [String(body[key])], { sha256: body['sha256'], bytes: body['sha256'], at });

const FOLDS: Record<CommandKind | 'people.unaccept' | InstallationKind, FoldOne> = {
  'event.create'(fold, { eventId, actorId, at, body, v }) {
    const { name, zone, isPublic, eventCode } = body;
    fold.set('event', [eventId], { name, zone, isPublic, eventCode, createdAt: at, officialAt: null });
    const instants = list(body['sessions']);
    let next = 0;
    for (const [i, day] of list(body['days']).entries()) {
      const dayId = Array.isArray(body['dayIds']) ? { dayId: body['dayIds'][i] as unknown } : {};
      fold.set('day', [i + 1], { date: day['date'], ...dayId });
      for (const [k, plan] of list(day['sessions']).entries()) {
        fold.set('session', [i + 1, k + 1], { ...plan, ...instants[next] });
        next += 1;
      }
    }
    fold.set('role', [actorId, 'director'], v === 1 ? {} : { acceptedAt: at });
    const person = v === 1 ? ({ isKnown: false } as const) : fold.open('person', body['person']);
    fold.set(
      'person',
      [actorId],
      told(person, (value: Body) => value),
    );
  },
  'rules.publish': published('rule-sheet', 'version'),
  'waters.publish': published('waters', 'version'),
  'board.add': published('board', 'boardId'),
  'people.add'(fold, { actorId, at, body, v }) {
    const accountId = String(body['accountId']);
    for (const role of list(body['roles'])) {
      const isThere = fold.get('role', accountId, String(role)) !== undefined;
      const acceptedAt = accountId === actorId ? at : null;
      if (!isThere) fold.set('role', [accountId, String(role)], v === 1 ? {} : { acceptedAt });
    }
    const person = fold.open('person', body['person']);
    fold.set(
      'person',
      [accountId],
      told(person, (value: Body) => value),
    );
    const entrant = body['entrant'] as { entrantId: string; number: number } | null;
    if (entrant) {
      fold.set('entrant', [entrant.entrantId], { number: entrant.number });
      fold.set('member', [entrant.entrantId, accountId], {});
    }
    if (v === 1) {
      if (entrant) fold.codesUntold(entrant.entrantId);
      return;
    }
    const issued = fold.open('identifiers', body['identifiers']);
    if (!issued.isKnown && entrant) fold.codesUntold(entrant.entrantId);
    if (issued.isKnown)
      for (const { entrantId, dayId, code } of list(issued.value))
        fold.set('identifier', [String(entrantId), String(dayId)], { code });
  },
  'people.accept'(fold, { at, body }) {
    for (const row of fold.all('role'))
      if (row.key.startsWith(`${String(body['accountId'])}/`) && row.fields['acceptedAt'] === null)
        row.fields['acceptedAt'] = at;
  },
  'people.unaccept'(fold, { body }) {
    for (const row of fold.all('role'))
      if (row.key.startsWith(`${String(body['accountId'])}/`)) row.fields['acceptedAt'] = null;
  },
  'people.remove'(fold, { body }) {
    const accountId = String(body['accountId']);
    for (const role of list(body['roles'])) fold.remove('role', accountId, String(role));
    const isStill = [...fold.all('role'), ...fold.all('member')].some(({ table, key }) =>
      table === 'role' ? key.startsWith(`${accountId}/`) : key.endsWith(`/${accountId}`),
    );
    if (!isStill) fold.remove('person', accountId);
    fold.open('why', body['why']);
  },
  'captures.tell'(fold, { at, body }) {
    for (const one of list(body['captures'])) {
      const captureId = String(one['captureId']);
      const opened = fold.open(`capture-${captureId}`, one['statement']);
      if (!opened.isKnown) {
        fold.leaveOpen(`capture ${captureId}`);
        continue;
      }
      const { statement, signature } = opened.value as SignedCapture;
      const hash = statementHash(statement);
      // Told again it stands as it was told first.
      if (fold.get('capture', hash)) continue;
      fold.set('capture', [hash], {
        entrantId: statement.entrantId,
        catchId: statement.catchId,
        captureId: statement.captureId,
        statement,
        signature,
        heardAt: at,
        askedAt: null,
        answeredAt: null,
        sentPhotographId: null,
      });
    }
  },
  'catch.announce'(fold, { at, body, v }) {
    const { entrantId } = body;
    if (v === 1) {
      const code = fold.open('identifier', body['identifier']);
      const photographs = fold.open('photographs', body['photographs']);
      const { catchId, speciesId, capturedAt, claimedSteps } = body;
      fold.set('announcement', [String(catchId)], {
        catchId,
        entrantId,
        speciesId,
        capturedAt,
        claimedSteps,
        heardAt: at,
        ...told(code, (identifierCode: string) => ({ identifierCode })),
        ...told(photographs, (value: unknown) => ({ photographs: value })),
      });
      return;
    }
    const opened = fold.open('announced', body['content']);
    if (!opened.isKnown) fold.leaveOpen(`announcement of ${String(entrantId)}`);
    else {
      const announced = opened.value as Body;
      fold.set('announcement', [String(announced['catchId'])], { ...announced, heardAt: at });
    }
  },
  'catch.claim'(fold, { at, body }) {
    const catchId = String(body['catchId']);
    const code = fold.open('identifier', body['identifier']);
    const measurement = body['measurement'] as { measurementId: string; reading: { kind?: string }; photographId?: string }; // prettier-ignore
    const photographs = list(body['photographs']);
    fold.set('catch', [catchId], {
      entrantId: body['entrantId'],
      speciesId: body['speciesId'],
      dayId: body['dayId'],
      ruleVersion: body['ruleVersion'],
      capturedAt: body['capturedAt'],
      capturedSource: body['capturedSource'],
      inSession: body['inSession'],
      marks: body['marks'],
      claimedSteps: body['claimedSteps'],
      measurementId: measurement.measurementId,
      handling: body['handling'] ?? null,
      laterHandling: null,
      clockOffsetMs: body['clockOffsetMs'] ?? null,
      madeAt: iso(body['madeAt']),
      receivedAt: at,
      deviceId: body['deviceId'],
      withdrawnAt: null,
      ...told(code, (identifierCode: string | null) => ({ identifierCode })),
    });
    // With one photograph there is no doubt which was measured, in versions too that did not tell.
    const measured = measurement.photographId ?? (photographs.length === 1 ? photographs[0]?.['photographId'] : undefined); // prettier-ignore
    fold.set('measurement', [measurement.measurementId], {
      catchId,
      kind: measurement.reading.kind ?? 'board',
      reading: measurement.reading,
      ...(measured === undefined ? {} : { photographId: measured }),
    });
    for (const { photographId, role, file } of photographs) {
      fold.show(catchId, photographId, String(role));
      fold.file(String(photographId), file);
    }
  },
  'catch.judge'(fold, { actorId, at, body }) {
    const catchId = String(body['catchId']);
    const verdictId = String(body['verdictId']);
    const kind = String(body['kind']);
    const words = fold.open('words', body['words']);
    fold.set('verdict', [verdictId], {
      catchId,
      seq: fold.verdict(catchId, verdictId, kind),
      judgeId: actorId,
      decidedAt: at,
      kind,
      steps: body['steps'],
      infractions: body['infractions'],
      ...told(words, (value: string) => ({ words: value })),
    });
  },
  'catch.answer'(fold, { at, body }) {
    const catchId = String(body['catchId']);
    const answerId = String(body['answerId']);
    const verdictId = String(body['verdictId']);
    const words = fold.open('words', body['words']);
    const photograph = body['photograph'] as { photographId: string; file: string } | null;
    fold.answer(verdictId, answerId);
    fold.set('answer', [answerId], {
      catchId,
      verdictId,
      answeredAt: at,
      photographId: photograph?.photographId ?? null,
      ...told(words, (value: string) => ({ words: value })),
    });
    if (!photograph) return;
    fold.show(catchId, photograph.photographId, 'board');
    fold.file(photograph.photographId, photograph.file);
  },
  'catch.handle'(fold, { body }) {
    fold.set('catch', [String(body['catchId'])], { laterHandling: body['handling'] });
  },
  'catch.time'(fold, { at, body, v }) {
    const opened: Opened = v === 1 ? { isKnown: true, value: body } : fold.open('timing', body['content']);
    if (!opened.isKnown) {
      fold.leaveOpen(`timing of ${String(body['entrantId'])}`);
      return;
    }
    const { catchId, deviceId, handling, clockOffsetMs } = opened.value as Body;
    fold.set('timing', [String(catchId), String(deviceId)], {
      entrantId: body['entrantId'],
      handling,
      clockOffsetMs,
      toldAt: at,
    });
  },
  'catch.clip'(fold, { body }) {
    fold.show(String(body['catchId']), body['clipId'], 'clip');
    fold.file(String(body['clipId']), body['file']);
  },
  'frames.ask'(fold, { at, body }) {
    for (const captureId of list(body['captureIds']))
      for (const row of capturesOf(fold, body['catchId'], captureId))
        if (row.fields['askedAt'] === null) row.fields['askedAt'] = at;
  },
  'frame.send'(fold, { at, body }) {
    const { catchId, captureId, photographId } = body;
    const asked = capturesOf(fold, catchId, captureId).find(
      ({ fields }) => fields['askedAt'] !== null && fields['answeredAt'] === null,
    );
    if (asked) Object.assign(asked.fields, { answeredAt: at, sentPhotographId: photographId });
    if (typeof photographId !== 'string') return;
    fold.show(String(catchId), photographId, 'board');
    fold.file(photographId, body['file']);
  },
  'well.enter'(fold, { at, body }) {
    const { entrantId, dayId } = body;
    for (const { entryId, content } of list(body['entries'])) {
      const opened = fold.open(`well-${String(entryId)}`, content);
      fold.set('well', [String(entryId)], {
        entrantId,
        dayId,
        heardAt: at,
        ...told(opened, ({ atMs, act }: WellEntry) => ({ atMs, act })),
      });
    }
  },
  'weigh-in.enter'(fold, { actorId, at, body }) {
    for (const { entryId, atMs, content } of list(body['entries'])) {
      const opened = fold.open(`weigh-${String(entryId)}`, content);
      fold.set('weigh-in', [String(entryId)], {
        atMs,
        accountId: actorId,
        heardAt: at,
        ...told(opened, ({ act }: WeighInEntry) => ({ act })),
      });
    }
  },
  'specimen.record'(fold, { at, body }) {
    const specimenId = String(body['specimenId']);
    const opened = fold.open(`specimen-${specimenId}`, body['content']);
    fold.set('specimen', [specimenId], {
      entrantId: body['entrantId'],
      receivedAt: at,
      ...told(opened, (record: RecordSpecimen) => ({
        record,
        correctsId: record.corrects?.specimenId ?? null,
      })),
    });
    if (opened.isKnown) {
      const { photographs } = (opened.value as RecordSpecimen).specimen;
      for (const [i, { photographId }] of photographs.entries())
        fold.set('specimen-photograph', [specimenId, i], { photographId });
    } else fold.leaveOpen(`specimen-photograph of ${specimenId}`);
    for (const { photographId, file } of list(body['photographs'])) fold.file(String(photographId), file);
  },
  'results.declare'(fold, { eventId, at, body }) {
    fold.set('event', [eventId], { officialAt: body['isOfficial'] === true ? at : null });
  },
  'codes.reveal'(fold, { body }) {
    const dayId = String(body['dayId']);
    if (body['from'] === null) fold.remove('codes-time', dayId);
    else fold.set('codes-time', [dayId], { codesFrom: iso(body['from']) });
  },
  'catch.withdraw'(fold, { at, body }) {
    fold.set('catch', [String(body['catchId'])], { withdrawnAt: at });
  },
  'catch.restore'(fold, { body }) {
    fold.set('catch', [String(body['catchId'])], { withdrawnAt: null });
  },

  'installation.open'(fold, { body }) {
    const { keys, accounts } = body as unknown as AdoptedInstallation;
    for (const { keyId, ...fields } of keys)
      fold.set('device-key', [keyId], { ...fields, thumbprint: keyId });
    for (const { accountId, ...fields } of accounts) fold.set('account', [accountId], { ...fields });
  },
  'account.found'(fold, { body }) {
    fold.set('account', [String(body['accountId'])], { founder: true, suspendedAt: null });
  },
  'account.suspend'(fold, { at, body }) {
    fold.open('why', body['why']);
    fold.set('account', [String(body['accountId'])], { founder: false, suspendedAt: at });
  },
  'account.reinstate'(fold, { body }) {
    fold.open('why', body['why']);
    fold.remove('account', String(body['accountId']));
  },
  'password.set': () => undefined,
  'password.renew': () => undefined,
  'key.register'(fold, { at, body }) {
    const { keyId, accountId, deviceId, pairingId } = body;
    fold.set('device-key', [String(keyId)], {
      accountId,
      deviceId,
      pairingId,
      thumbprint: keyId,
      registeredAt: at,
      revokedAt: null,
      revokedWhy: null,
    });
  },
  'key.revoke'(fold, { at, body }) {
    fold.set('device-key', [String(body['keyId'])], { revokedAt: at, revokedWhy: body['why'] });
  },
};

type InstallationKind = 'installation.open' | 'account.found' | 'account.suspend' | 'account.reinstate' | 'password.set' | 'password.renew' | 'key.register' | 'key.revoke'; // prettier-ignore

function capturesOf(fold: Fold, catchId: unknown, captureId: unknown): ExpectedRow[] {
  return [...fold.all('capture')].filter(
    ({ fields }) => fields['catchId'] === catchId && fields['captureId'] === captureId,
  );
}
