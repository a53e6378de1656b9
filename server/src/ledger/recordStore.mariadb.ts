import { and, asc, eq, or, sql } from 'drizzle-orm';
import { keyIdOf } from '@lauta/core/custody';
import { hashHex } from '@lauta/core/ledger';
import { exifSha256 } from './exifSha256.ts';
import type { Connection } from '../storage/database.ts';
import * as tables from '../storage/schema.ts';
import type { RecordRow, RecordStore, RecordTable } from './recordRows.ts';
import type { EventId } from '@lauta/core/ids';

const instant = (at: Date | null): string | null => at?.toISOString() ?? null;

const row = (table: RecordTable, key: (string | number)[], fields: Record<string, unknown>): RecordRow => ({
  table,
  key: key.join('/'),
  fields,
});

export function mariadbRecordStore(db: Connection): RecordStore {
  return {
    async ofEvent(eventId) {
      const rows: RecordRow[] = [];
      rows.push(...(await eventRows(db, eventId)));
      rows.push(...(await peopleRows(db, eventId)));
      rows.push(...(await publishedRows(db, eventId)));
      rows.push(...(await catchRows(db, eventId)));
      rows.push(...(await custodyRows(db, eventId)));
      rows.push(...(await wellRows(db, eventId)));
      rows.push(...(await photographRows(db, eventId)));
      rows.push(...(await receiptRows(db, eventId)));
      return rows;
    },
    async ofInstallation() {
      const { keys, accounts } = await adopted(db);
      const stored = await db
        .select({ keyId: tables.deviceKeys.keyId, publicKey: tables.deviceKeys.publicKey })
        .from(tables.deviceKeys);
      const thumbs = new Map(stored.map(({ keyId, publicKey }) => [keyId, keyIdOf(publicKey)]));
      return [
        ...keys.map(({ keyId, ...fields }) =>
          row('device-key', [keyId], { ...fields, thumbprint: thumbs.get(keyId) }),
        ),
        ...accounts.map(({ accountId, ...fields }) => row('account', [accountId], fields)),
      ];
    },
    installation: () => adopted(db),
  };
}

async function adopted(db: Connection) {
  const keys = await db.select().from(tables.deviceKeys).orderBy(asc(tables.deviceKeys.registeredAt));
  const accounts = await db
    .select({
      accountId: tables.accounts.accountId,
      founder: tables.accounts.founder,
      suspendedAt: tables.accounts.suspendedAt,
    })
    .from(tables.accounts)
    .where(or(eq(tables.accounts.founder, true), sql`${tables.accounts.suspendedAt} is not null`));
  return {
    keys: keys.map(({ keyId, accountId, deviceId, pairingId, registeredAt, revokedAt, revokedWhy }) => ({
      keyId,
      accountId,
      deviceId,
      pairingId,
      registeredAt: registeredAt.toISOString(),
      revokedAt: instant(revokedAt),
      revokedWhy,
    })),
    accounts: accounts.map((one) => ({ ...one, suspendedAt: instant(one.suspendedAt) })),
  };
}

async function eventRows(db: Connection, eventId: EventId): Promise<RecordRow[]> {
  const { events, eventDays, eventSessions } = tables;
  const found = await db.select().from(events).where(eq(events.eventId, eventId));
  const days = await db.select().from(eventDays).where(eq(eventDays.eventId, eventId));
  const sessions = await db
    .select({ session: eventSessions, day: eventDays.seq })
    .from(eventSessions)
    .innerJoin(eventDays, eq(eventDays.dayId, eventSessions.dayId))
    .where(eq(eventDays.eventId, eventId));
  return [
    ...found.map(({ name, zone, isPublic, eventCode, createdAt, officialAt }) =>
      row('event', [eventId], {
        name,
        zone,
        isPublic,
        eventCode,
        createdAt: instant(createdAt),
        officialAt: instant(officialAt),
      }),
    ),
    ...days.map(({ seq, date, dayId }) => row('day', [seq], { date, dayId })),
    ...days.flatMap(({ dayId, codesFrom }) =>
      codesFrom ? [row('codes-time', [dayId], { codesFrom: instant(codesFrom) })] : [],
    ),
    ...sessions.map(({ day, session }) =>
      row('session', [day, session.seq], {
        sessionId: session.sessionId,
        linesInLocal: session.linesInLocal,
        linesOutLocal: session.linesOutLocal,
        linesInAt: instant(session.linesInAt),
        linesOutAt: instant(session.linesOutAt),
      }),
    ),
  ];
}

async function peopleRows(db: Connection, eventId: EventId): Promise<RecordRow[]> {
  const { eventRoles, accounts, entrants, entrantMembers, identifiers } = tables;
  const roles = await db
    .select({ role: eventRoles, name: accounts.name, email: accounts.email })
    .from(eventRoles)
    .innerJoin(accounts, eq(accounts.accountId, eventRoles.accountId))
    .where(eq(eventRoles.eventId, eventId));
  const people = await db
    .select({
      entrant: entrants,
      accountId: entrantMembers.accountId,
      name: accounts.name,
      email: accounts.email,
    })
    .from(entrants)
    .leftJoin(entrantMembers, eq(entrantMembers.entrantId, entrants.entrantId))
    .leftJoin(accounts, eq(accounts.accountId, entrantMembers.accountId))
    .where(eq(entrants.eventId, eventId));
  const codes = await db
    .select({ identifier: identifiers })
    .from(identifiers)
    .innerJoin(entrants, eq(entrants.entrantId, identifiers.entrantId))
    .where(eq(entrants.eventId, eventId));
  const named = new Map<string, { name: string; email: string }>();
  for (const { role, name, email } of roles) named.set(role.accountId, { name, email });
  for (const { accountId, name, email } of people)
    if (accountId !== null && name !== null && email !== null) named.set(accountId, { name, email });
  const numbers = new Map(people.map(({ entrant }) => [entrant.entrantId, entrant.number]));
  return [
    ...roles.map(({ role }) =>
      row('role', [role.accountId, role.role], { acceptedAt: instant(role.acceptedAt) }),
    ),
    ...[...numbers].map(([entrantId, number]) => row('entrant', [entrantId], { number })),
    ...people.flatMap(({ entrant, accountId }) =>
      accountId === null ? [] : [row('member', [entrant.entrantId, accountId], {})],
    ),
    ...[...named].map(([accountId, fields]) => row('person', [accountId], fields)),
    ...codes.map(({ identifier: { entrantId, dayId, code } }) =>
      row('identifier', [entrantId, dayId], { code }),
    ),
  ];
}

async function publishedRows(db: Connection, eventId: EventId): Promise<RecordRow[]> {
  const sheets = await db.select().from(tables.ruleSheets).where(eq(tables.ruleSheets.eventId, eventId));
  const waters = await db.select().from(tables.waters).where(eq(tables.waters.eventId, eventId));
  const boards = await db.select().from(tables.boards).where(eq(tables.boards.eventId, eventId));
  const published = (table: RecordTable, key: string | number, bytes: Uint8Array, sha256: string, at: Date) =>
    row(table, [key], { sha256, bytes: hashHex(bytes), at: instant(at) });
  return [
    ...sheets.map((one) => published('rule-sheet', one.version, one.bytes, one.sha256, one.publishedAt)),
    ...waters.map((one) => published('waters', one.version, one.bytes, one.sha256, one.publishedAt)),
    ...boards.map((one) => published('board', one.boardId, one.bytes, one.sha256, one.addedAt)),
  ];
}

async function catchRows(db: Connection, eventId: EventId): Promise<RecordRow[]> {
  const { catches, measurements, catchPhotographs, verdicts, answers } = tables;
  const ofEvent = eq(catches.eventId, eventId);
  const caught = await db.select().from(catches).where(ofEvent);
  const measured = await db
    .select({ one: measurements })
    .from(measurements)
    .innerJoin(catches, eq(catches.catchId, measurements.catchId))
    .where(ofEvent);
  const shown = await db
    .select({ one: catchPhotographs })
    .from(catchPhotographs)
    .innerJoin(catches, eq(catches.catchId, catchPhotographs.catchId))
    .where(ofEvent);
  const decided = await db
    .select({ one: verdicts })
    .from(verdicts)
    .innerJoin(catches, eq(catches.catchId, verdicts.catchId))
    .where(ofEvent);
  const answered = await db
    .select({ one: answers })
    .from(answers)
    .innerJoin(catches, eq(catches.catchId, answers.catchId))
    .where(ofEvent);
  return [
    ...caught.map(({ catchId, ...one }) =>
      row('catch', [catchId], {
        ...one,
        capturedAt: instant(one.capturedAt),
        madeAt: instant(one.madeAt),
        receivedAt: instant(one.receivedAt),
        withdrawnAt: instant(one.withdrawnAt),
      }),
    ),
    ...measured.map(({ one: { measurementId, ...fields } }) => row('measurement', [measurementId], fields)),
    ...shown.map(({ one: { catchId, seq, photographId, role } }) =>
      row('catch-photograph', [catchId, seq], { photographId, role }),
    ),
    ...decided.map(({ one: { verdictId, decidedAt, ...fields } }) =>
      row('verdict', [verdictId], { ...fields, decidedAt: instant(decidedAt) }),
    ),
    ...answered.map(({ one: { answerId, answeredAt, ...fields } }) =>
      row('answer', [answerId], { ...fields, answeredAt: instant(answeredAt) }),
    ),
  ];
}

async function custodyRows(db: Connection, eventId: EventId): Promise<RecordRow[]> {
  const { timings, announcements, captures } = tables;
  const timed = await db.select().from(timings).where(eq(timings.eventId, eventId));
  const announced = await db.select().from(announcements).where(eq(announcements.eventId, eventId));
  const signed = await db.select().from(captures).where(eq(captures.eventId, eventId));
  return [
    ...timed.map(({ catchId, deviceId, entrantId, handling, clockOffsetMs, toldAt }) =>
      row('timing', [catchId, deviceId], { entrantId, handling, clockOffsetMs, toldAt: instant(toldAt) }),
    ),
    ...announced.map(({ catchId, entrantId, body, heardAt }) =>
      row('announcement', [catchId], { ...body, entrantId, heardAt: instant(heardAt) }),
    ),
    ...signed.map(({ hash, heardAt, askedAt, answeredAt, ...fields }) =>
      row('capture', [hash], {
        ...fields,
        heardAt: instant(heardAt),
        askedAt: instant(askedAt),
        answeredAt: instant(answeredAt),
      }),
    ),
  ];
}

async function wellRows(db: Connection, eventId: EventId): Promise<RecordRow[]> {
  const { wellEntries, weighInEntries, specimens, specimenPhotographs } = tables;
  const well = await db.select().from(wellEntries).where(eq(wellEntries.eventId, eventId));
  const weighed = await db.select().from(weighInEntries).where(eq(weighInEntries.eventId, eventId));
  const recorded = await db.select().from(specimens).where(eq(specimens.eventId, eventId));
  const shown = await db
    .select({ one: specimenPhotographs })
    .from(specimenPhotographs)
    .innerJoin(specimens, eq(specimens.specimenId, specimenPhotographs.specimenId))
    .where(eq(specimens.eventId, eventId));
  return [
    ...well.map(({ entryId, heardAt, ...fields }) =>
      row('well', [entryId], { ...fields, heardAt: instant(heardAt) }),
    ),
    ...weighed.map(({ entryId, heardAt, ...fields }) =>
      row('weigh-in', [entryId], { ...fields, heardAt: instant(heardAt) }),
    ),
    ...recorded.map(({ specimenId, entrantId, record, correctsId, receivedAt }) =>
      row('specimen', [specimenId], { entrantId, record, correctsId, receivedAt: instant(receivedAt) }),
    ),
    ...shown.map(({ one: { specimenId, seq, photographId } }) =>
      row('specimen-photograph', [specimenId, seq], { photographId }),
    ),
  ];
}

/** Photographs that belong to a catch or specimen; others stand in no entry yet. */
async function photographRows(db: Connection, eventId: EventId): Promise<RecordRow[]> {
  const { photographs, photographCopies, catchPhotographs, specimenPhotographs } = tables;
  const found = await db
    .selectDistinct({ one: photographs })
    .from(photographs)
    .leftJoin(catchPhotographs, eq(catchPhotographs.photographId, photographs.photographId))
    .leftJoin(specimenPhotographs, eq(specimenPhotographs.photographId, photographs.photographId))
    .where(
      and(
        eq(photographs.eventId, eventId),
        or(sql`${catchPhotographs.catchId} is not null`, sql`${specimenPhotographs.specimenId} is not null`),
      ),
    );
  const copied = await db
    .select({
      photographId: photographCopies.photographId,
      variant: photographCopies.variant,
      sha256: photographCopies.sha256,
    })
    .from(photographCopies)
    .innerJoin(photographs, eq(photographs.photographId, photographCopies.photographId))
    .where(eq(photographs.eventId, eventId));
  const copies = new Map<string, Record<string, string>>();
  for (const { photographId, variant, sha256 } of copied)
    copies.set(photographId, { ...copies.get(photographId), [variant]: sha256 });
  return found.map(({ one }) =>
    row('photograph', [one.photographId], {
      sha256: one.sha256,
      byteLength: one.byteLength,
      mediaType: one.mediaType,
      widthPx: one.widthPx,
      heightPx: one.heightPx,
      exifSha256: exifSha256(one.exif),
      completedAt: instant(one.completedAt),
      copies: copies.get(one.photographId) ?? null,
    }),
  );
}

async function receiptRows(db: Connection, eventId: EventId): Promise<RecordRow[]> {
  const { receipts } = tables;
  const kept = await db
    .select()
    .from(receipts)
    .where(sql`json_value(${receipts.receipt}, '$.eventId') = ${eventId}`);
  return kept.map(({ accountId, idempotencyKey, bodySha256, receipt, createdAt }) =>
    row('receipt', [String(receipt['commandId'])], {
      accountId,
      idempotencyKey,
      bodySha256,
      createdAt: instant(createdAt),
      kind: receipt['kind'],
      seq: receipt['seq'],
      receivedAt: receipt['receivedAt'],
      result: receipt['result'],
      ...(receipt['hash'] === undefined ? {} : { hash: receipt['hash'] }),
    }),
  );
}
