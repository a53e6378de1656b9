import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as uuidv7 } from 'uuid';
import { appendEntry, genesisHash, type LedgerEntry } from '@lauta/core/ledger';
import { SHIPPED_BOARDS } from '@lauta/vision';
import { DEMO_WATERS } from '@lauta/sim/demo';
import { checkInstallation, checkLedger, type LedgerCheck } from '../src/verify/checkLedger.ts';
import { passingSigner } from '../src/keys/headSigner.ts';
import { openDatabase, type Transaction } from '../src/storage/database.ts';
import { storesOn } from '../src/app/storage.mariadb.ts';
import { openDevice, register, sha256Of } from './device.ts';
import {
  HANDLING,
  NOON,
  claim,
  claimBody,
  done,
  holdEvent,
  jpeg,
  judge,
  openWorld,
  send,
  sendCommand,
  specimenBody,
  takePart,
  upload,
  uploadClip,
  type Person,
  type TestEvent,
  type World,
} from './world.ts';

/** An event in which everything happened that a ledger speaks of. */
interface Place extends TestEvent {
  accepted: string;
  second: string;
  withdrawn: string;
  answered: string;
  unclaimed: string;
  ticketId: string;
  specimenId: string;
  keyId: string;
}

let world: World;
let place: Place;

beforeAll(async () => {
  world = await openWorld();
  place = await fillEvent();
  const [triggers] = await world.pool.query('SELECT TRIGGER_NAME name FROM information_schema.triggers WHERE TRIGGER_SCHEMA = database()'); // prettier-ignore
  // What an attacker with the database's own rights would do first.
  for (const { name } of triggers as { name: string }[]) await world.pool.query(`DROP TRIGGER ${name}`);
});
afterAll(() => world.close());

async function fillEvent(): Promise<Place> {
  const event = await holdEvent(world);
  const { eventId, entrantId, angler, director, dayId } = event;
  const command = (who: Person, kind: Parameters<typeof sendCommand>[2], body: unknown) =>
    done(sendCommand(world, who, kind, eventId, body as never));
  await command(director, 'waters.publish', { waters: DEMO_WATERS });
  await command(director, 'board.add', { board: { ...SHIPPED_BOARDS[0], id: 'alder' } });
  await command(director, 'codes.reveal', { dayId, from: '2026-06-14T03:00:00Z' });
  const device = await openDevice(event);
  await register(world, angler, device);
  const lost = await openDevice(event);
  await register(world, angler, lost);
  await send(world, angler, 'post', `/api/own-keys/${lost.keyId}/revoke`).send({ why: 'lost' });

  const bytes = await jpeg({ takenLocal: '2026:06:14 11:30:00', offset: '+02:00' });
  const body = await claimBody(world, angler, eventId, entrantId, { identifierCode: 'ABCD' });
  const photographId = uuidv7();
  await upload(world, angler, eventId, bytes, photographId);
  const accepted = body.catchId;
  const capture = await device.capture({ catchId: accepted, photographSha256: sha256Of(bytes) });
  const kept = await device.capture({ catchId: accepted, photographSha256: sha256Of(await jpeg()) });
  await command(angler, 'captures.tell', { entrantId, captures: [capture, kept] });
  await command(angler, 'catch.announce', { catchId: accepted, entrantId, speciesId: 'bass', capturedAt: NOON, claimedSteps: 62, identifierCode: 'ABCD', photographs: [{ photographId, sha256: sha256Of(bytes), byteLength: bytes.length }] }); // prettier-ignore
  await command(angler, 'catch.time', { catchId: accepted, entrantId, handling: HANDLING, clockOffsetMs: 3 });
  await command(angler, 'catch.claim', { ...body, handling: HANDLING, photographs: [...body.photographs, { photographId, role: 'fish' }] }); // prettier-ignore
  await command(angler, 'catch.handle', { catchId: accepted, handling: HANDLING });
  await command(angler, 'catch.clip', {
    catchId: accepted,
    clipId: await uploadClip(world, angler, eventId),
  });
  await command(event.judge, 'frames.ask', { catchId: accepted, captureIds: [kept.statement.captureId] });
  await command(angler, 'frame.send', { catchId: accepted, captureId: kept.statement.captureId, photographId: null }); // prettier-ignore
  const first = await judge(world, event, accepted, {
    kind: 'refused',
    infractions: [],
    reason: 'Too dark.',
  });
  await judge(world, event, accepted, { kind: 'accepted', steps: 62, infractions: ['mouth-open'], note: 'Words.' }, first); // prettier-ignore
  const second = await claim(world, event, { claimedSteps: 60 });
  const withdrawn = await claim(world, event);
  await command(angler, 'catch.withdraw', { catchId: withdrawn });
  const answered = await claim(world, event);
  const sentBack = await judge(world, event, answered, { kind: 'sent-back', request: 'Another one.' });
  const more = uuidv7();
  await upload(world, angler, eventId, await jpeg(), more);
  await command(angler, 'catch.answer', { catchId: answered, answerId: uuidv7(), verdictId: sentBack, words: 'Here.', photographId: more }); // prettier-ignore
  const unclaimed = uuidv7();
  await command(event.rival, 'catch.announce', { catchId: unclaimed, entrantId: event.rivalEntrantId, speciesId: 'bass', capturedAt: NOON, claimedSteps: 70, identifierCode: null, photographs: [{ photographId: uuidv7(), sha256: 'a'.repeat(64), byteLength: 9 }] }); // prettier-ignore

  const entry = (act: unknown, i: number) => ({ entryId: uuidv7(), atMs: Date.parse(NOON) + i, act });
  await command(angler, 'well.enter', {
    entrantId,
    dayId,
    entries: [entry({ kind: 'declared', count: 3 }, 1)],
  });
  const weighMaster = await takePart(world, director, eventId, 'Weigh master', ['weigh-master']);
  const ticketId = uuidv7();
  await command(weighMaster, 'weigh-in.enter', {
    entries: [
      { kind: 'queued', ticketId, entrantId, dayId, number: 1 },
      { kind: 'checked', ticketId, alive: 4, dead: 0, short: 0, reason: null },
      { kind: 'weighed', ticketId, grossG: 6010, tareG: 450, how: 'typed', reason: null },
      { kind: 'signed', ticketId, signer: 'angler', signature: { kind: 'typed', name: 'Ola' } },
    ].map(entry),
  });
  const plain = specimenBody(entrantId);
  const shown = uuidv7();
  await upload(world, angler, eventId, await jpeg(), shown);
  const specimen = { ...plain, specimen: { ...plain.specimen, photographs: [{ photographId: shown }] } };
  await command(angler, 'specimen.record', specimen);
  const gone = await takePart(world, director, eventId, 'Gone', ['judge', 'angler']);
  await command(director, 'people.remove', { accountId: gone.accountId, roles: ['judge'], why: 'Left.' });
  return { ...event, accepted, second, withdrawn, answered, unclaimed, ticketId, specimenId: specimen.specimenId, keyId: device.keyId }; // prettier-ignore
}

class Undo extends Error {}

/** Does something to the database, checks the record as the command line would, and undoes it. */
async function checkAfter(tamper: (run: (text: string) => Promise<unknown>, tx: Transaction) => Promise<unknown>): Promise<LedgerCheck[]> {
  let found: LedgerCheck[] = [];
  await openDatabase(world.pool)
    .transaction(async (tx) => {
      await tx.execute(sql.raw('SET FOREIGN_KEY_CHECKS = 0'));
      await tamper((text) => tx.execute(sql.raw(text)), tx);
      const stores = storesOn(tx);
      const { signer } = world.lauta;
      found = [
        await checkLedger(stores, place.eventId, { withBytes: true, signer }),
        await checkInstallation(stores, { signer }),
      ];
      await tx.execute(sql.raw('SET FOREIGN_KEY_CHECKS = 1'));
      throw new Undo();
    })
    .catch((error: unknown) => {
      if (!(error instanceof Undo)) throw error;
    });
  return found;
} // prettier-ignore

const OTHER = "'01900000-0000-7000-8000-00000000abcd'";
const columnsOf = async (table: string): Promise<string[]> => {
  const [rows] = await world.pool.query(`SHOW COLUMNS FROM ${table}`);
  return (rows as { Field: string }[]).map(({ Field }) => Field);
};
/** A statement that copies a row with some columns changed. */
async function copyOf(table: string, where: string, change: Record<string, string>): Promise<string> {
  const columns = await columnsOf(table);
  return `INSERT INTO ${table} (${columns.join(', ')}) SELECT ${columns.map((one) => change[one] ?? one).join(', ')} FROM ${table} WHERE ${where} LIMIT 1`;
}

type Tampering = [name: string, statements: (at: Place) => (string | Promise<string>)[]];
const ofCatch = (at: Place) => `catch_id = '${at.accepted}'`;

const TAMPERINGS: Tampering[] = [
  // What changes standings.
  ['a rival’s accepted fish marked withdrawn', (at) => [`UPDATE catches SET withdrawn_at = '2026-06-14 10:00:00' WHERE ${ofCatch(at)}`]],
  ['a withdrawn fish back', (at) => [`UPDATE catches SET withdrawn_at = NULL WHERE catch_id = '${at.withdrawn}'`]],
  ['an extra catch with an accepting verdict', (at) => [copyOf('catches', ofCatch(at), { catch_id: OTHER, measurement_id: OTHER }), copyOf('verdicts', ofCatch(at), { catch_id: OTHER, verdict_id: 'uuid()' })]],
  ['an extra, later verdict', (at) => [copyOf('verdicts', ofCatch(at), { verdict_id: 'uuid()', seq: '9', decision: `'{"kind":"accepted","steps":999,"infractions":[],"note":""}'` })]],
  ['order of two verdicts exchanged', (at) => [`UPDATE verdicts SET seq = 9 WHERE ${ofCatch(at)} AND seq = 1`, `UPDATE verdicts SET seq = 1 WHERE ${ofCatch(at)} AND seq = 2`, `UPDATE verdicts SET seq = 2 WHERE ${ofCatch(at)} AND seq = 9`]],
  ['a bag’s weight, its commitment erased', () => ["UPDATE weigh_in_entries SET act = JSON_REPLACE(act, '$.grossG', 9010) WHERE JSON_VALUE(act, '$.kind') = 'weighed'", "UPDATE commitments SET salt = NULL, value = NULL WHERE label LIKE 'weigh-%'"]],
  ['a bag’s weight, its commitment under another label', () => ["UPDATE weigh_in_entries SET act = JSON_REPLACE(act, '$.grossG', 9010) WHERE JSON_VALUE(act, '$.kind') = 'weighed'", "UPDATE commitments SET label = CONCAT('x', label) WHERE label LIKE 'weigh-%'"]],
  ['a bag’s weight', () => ["UPDATE weigh_in_entries SET act = JSON_REPLACE(act, '$.grossG', 9010) WHERE JSON_VALUE(act, '$.kind') = 'weighed'"]],
  ['an extra weighing', () => [copyOf('weigh_in_entries', "JSON_VALUE(act, '$.kind') = 'weighed'", { entry_id: 'uuid()', at_ms: 'at_ms + 9' })]],
  ['a weighing taken out', () => ["DELETE FROM weigh_in_entries WHERE JSON_VALUE(act, '$.kind') = 'weighed'"]],
  ['a weighing under another weigh master', (at) => [`UPDATE weigh_in_entries SET account_id = '${at.judge.accountId}'`]],
  ['a weighing at another time', () => ['UPDATE weigh_in_entries SET at_ms = at_ms + 60000']],
  ['a signature', () => ["UPDATE weigh_in_entries SET act = JSON_REPLACE(act, '$.signature.name', 'Olo') WHERE JSON_VALUE(act, '$.kind') = 'signed'"]],
  ['lines-out moved', () => ["UPDATE event_sessions SET lines_out_at = lines_out_at - INTERVAL 3 HOUR"]],
  ['lines-in moved', () => ["UPDATE event_sessions SET lines_in_at = lines_in_at + INTERVAL 3 HOUR"]],
  ['wall time of a session', () => ["UPDATE event_sessions SET lines_out_local = '2026-06-14T16:00'"]],
  ['an extra session', () => [copyOf('event_sessions', '1', { session_id: 'uuid()', seq: '2' })]],
  ['a session taken out', () => ['DELETE FROM event_sessions']],
  ['a day’s date', () => ["UPDATE event_days SET date = '2026-06-15'"]],
  ['an extra day', () => [copyOf('event_days', '1', { day_id: 'uuid()', seq: '2' })]],
  // Of a catch.
  ['a claimed length', (at) => [`UPDATE catches SET claimed_steps = 80 WHERE ${ofCatch(at)}`]],
  ['a species', (at) => [`UPDATE catches SET species_id = 'carp' WHERE ${ofCatch(at)}`]],
  ['a capture time', (at) => [`UPDATE catches SET captured_at = '2026-06-14 05:00:00' WHERE ${ofCatch(at)}`]],
  ['where a capture time comes from', (at) => [`UPDATE catches SET captured_source = 'typed' WHERE ${ofCatch(at)}`]],
  ['in session or not', (at) => [`UPDATE catches SET in_session = NOT in_session WHERE ${ofCatch(at)}`]],
  ['marks', (at) => [`UPDATE catches SET marks = '["by-tape"]' WHERE ${ofCatch(at)}`]],
  ['a catch’s entrant', (at) => [`UPDATE catches SET entrant_id = '${at.rivalEntrantId}' WHERE ${ofCatch(at)}`]],
  ['a catch’s day', (at) => [`UPDATE catches SET day_id = ${OTHER} WHERE ${ofCatch(at)}`]],
  ['a catch’s rule version', (at) => [`UPDATE catches SET rule_version = 7 WHERE ${ofCatch(at)}`]],
  ['how a fish was treated', (at) => [`UPDATE catches SET handling = NULL WHERE ${ofCatch(at)}`]],
  ['how it was released', (at) => [`UPDATE catches SET later_handling = NULL WHERE ${ofCatch(at)}`]],
  ['a device’s clock', (at) => [`UPDATE catches SET clock_offset_ms = 99 WHERE ${ofCatch(at)}`]],
  ['the identifier’s code', (at) => [`UPDATE catches SET identifier_code = 'WXYZ' WHERE ${ofCatch(at)}`]],
  ['when it was received', (at) => [`UPDATE catches SET received_at = received_at - INTERVAL 1 HOUR WHERE ${ofCatch(at)}`]],
  ['when it was made', (at) => [`UPDATE catches SET made_at = made_at - INTERVAL 1 HOUR WHERE ${ofCatch(at)}`]],
  ['on which device', (at) => [`UPDATE catches SET device_id = ${OTHER} WHERE ${ofCatch(at)}`]],
  ['its state: out of the queue', (at) => [`UPDATE catches SET state = 'accepted' WHERE catch_id = '${at.second}'`]],
  ['a catch taken out', (at) => [`DELETE FROM catches WHERE ${ofCatch(at)}`]],
  ['an extra catch', (at) => [copyOf('catches', ofCatch(at), { catch_id: OTHER })]],
  ['a reading', (at) => [`UPDATE measurements SET reading = JSON_REPLACE(reading, '$.apparentMm', 499) WHERE ${ofCatch(at)}`]],
  ['a measurement of another photograph', (at) => [`UPDATE measurements SET photograph_id = (SELECT photograph_id FROM catch_photographs WHERE ${ofCatch(at)} AND seq = 1) WHERE ${ofCatch(at)}`]],
  ['an extra measurement', (at) => [copyOf('measurements', ofCatch(at), { measurement_id: 'uuid()' })]],
  // Of verdicts and answers.
  ['a verdict’s length', (at) => [`UPDATE verdicts SET decision = JSON_REPLACE(decision, '$.steps', 80) WHERE ${ofCatch(at)} AND seq = 2`]],
  ['a verdict’s infractions', (at) => [`UPDATE verdicts SET decision = JSON_REPLACE(decision, '$.infractions', JSON_ARRAY()) WHERE ${ofCatch(at)} AND seq = 2`]],
  ['a verdict’s words', (at) => [`UPDATE verdicts SET decision = JSON_REPLACE(decision, '$.note', 'Other.') WHERE ${ofCatch(at)} AND seq = 2`]],
  ['a refusal’s words', (at) => [`UPDATE verdicts SET decision = JSON_REPLACE(decision, '$.reason', 'Other.') WHERE ${ofCatch(at)} AND seq = 1`]],
  ['a request’s words', (at) => [`UPDATE verdicts SET decision = JSON_REPLACE(decision, '$.request', 'Other.') WHERE catch_id = '${at.answered}'`]],
  ['a verdict’s judge', (at) => [`UPDATE verdicts SET judge_id = '${at.director.accountId}' WHERE ${ofCatch(at)}`]],
  ['a verdict’s time', (at) => [`UPDATE verdicts SET decided_at = decided_at - INTERVAL 1 HOUR WHERE ${ofCatch(at)}`]],
  ['a verdict taken out', (at) => [`DELETE FROM verdicts WHERE ${ofCatch(at)} AND seq = 2`]],
  ['an answer’s words', () => ["UPDATE answers SET words = 'Other.'"]],
  ['an answer’s time', () => ['UPDATE answers SET answered_at = answered_at - INTERVAL 1 HOUR']],
  ['an answer taken out', () => ['DELETE FROM answers']],
  // Of photographs.
  ['a photograph’s hash', (at) => [`UPDATE photographs SET sha256 = UNHEX(SHA2(1, 256)) WHERE photograph_id IN (SELECT photograph_id FROM catch_photographs WHERE ${ofCatch(at)})`]],
  ['a photograph’s bytes', (at) => [`UPDATE photograph_chunks SET bytes = CONCAT(bytes, 'x') WHERE photograph_id IN (SELECT photograph_id FROM catch_photographs WHERE ${ofCatch(at)})`]],
  ['bytes and hash of a photograph, its commitment erased', (at) => [`UPDATE photograph_chunks SET bytes = 'x' WHERE photograph_id IN (SELECT photograph_id FROM catch_photographs WHERE ${ofCatch(at)})`, `UPDATE photographs SET sha256 = UNHEX(SHA2('x', 256)) WHERE photograph_id IN (SELECT photograph_id FROM catch_photographs WHERE ${ofCatch(at)})`, "UPDATE commitments SET salt = NULL, value = NULL WHERE label LIKE 'photograph-%'"]],
  ['the copy that others see', () => ["UPDATE photograph_copies SET bytes = CONCAT(bytes, 'x') WHERE variant = 'screen'"]],
  ['the copy that others see, and its hash', () => ["UPDATE photograph_copies SET bytes = 'x', sha256 = UNHEX(SHA2('x', 256)) WHERE variant = 'thumb'"]],
  ['what a file tells', () => ["UPDATE photographs SET exif = JSON_REPLACE(exif, '$.takenAt', '2026-06-14T05:00:00.000Z') WHERE exif IS NOT NULL"]],
  ['when a photograph was complete', () => ['UPDATE photographs SET completed_at = completed_at - INTERVAL 1 HOUR']],
  ['a photograph’s role', (at) => [`UPDATE catch_photographs SET role = 'person' WHERE ${ofCatch(at)} AND seq = 1`]],
  ['photographs of two catches exchanged', (at) => [`UPDATE catch_photographs a JOIN catch_photographs b ON a.seq = 0 AND b.seq = 0 AND a.catch_id = '${at.second}' AND b.catch_id = '${at.withdrawn}' SET a.seq = 9`, `UPDATE catch_photographs SET catch_id = '${at.second}' WHERE catch_id = '${at.withdrawn}' AND seq = 0`, `UPDATE catch_photographs SET catch_id = '${at.withdrawn}', seq = 0 WHERE catch_id = '${at.second}' AND seq = 9`]],
  ['a photograph taken from a catch', (at) => [`DELETE FROM catch_photographs WHERE ${ofCatch(at)} AND seq = 1`]],
  // Of what is published.
  ['a rule sheet’s bytes', () => ["UPDATE rule_sheets SET bytes = REPLACE(bytes, '\"bagLimit\":2', '\"bagLimit\":9')"]],
  ['a rule sheet’s bytes and hash', () => ["UPDATE rule_sheets SET bytes = REPLACE(bytes, '\"bagLimit\":2', '\"bagLimit\":9'), sha256 = UNHEX(SHA2(bytes, 256))"]],
  ['an extra rule sheet', () => [copyOf('rule_sheets', '1', { version: '2' })]],
  ['when a rule sheet was published', () => ['UPDATE rule_sheets SET published_at = published_at - INTERVAL 1 DAY']],
  ['a board', () => ["UPDATE boards SET bytes = REPLACE(bytes, '\"widthMm\":152', '\"widthMm\":151')"]],
  ['an extra board', () => [copyOf('boards', '1', { board_id: "'oak'" })]],
  ['the waters', () => ["UPDATE waters SET bytes = REPLACE(bytes, 'closed', 'open')"]],
  ['extra waters', () => [copyOf('waters', '1', { version: '2' })]],
  // Of custody.
  ['a capture’s statement', () => ["UPDATE captures SET statement = JSON_REPLACE(statement, '$.at', '2026-06-14T05:00:00.000Z')"]],
  ['a capture’s signature', () => ["UPDATE captures SET signature = REPEAT('A', 86)"]],
  ['when a capture was heard of', () => ['UPDATE captures SET heard_at = heard_at - INTERVAL 1 HOUR']],
  ['a capture taken out', () => ['DELETE FROM captures LIMIT 1']],
  ['a capture taken out, its commitment erased', () => ['DELETE FROM captures', "UPDATE commitments SET salt = NULL, value = NULL WHERE label LIKE 'capture-%'"]],
  ['an answer about a frame', () => ['UPDATE captures SET answered_at = NULL']],
  ['a device’s key struck off', (at) => [`UPDATE device_keys SET revoked_at = registered_at, revoked_why = 'lost' WHERE key_id = UNHEX('${at.keyId}')`]],
  ['a struck-off key back', () => ['UPDATE device_keys SET revoked_at = NULL, revoked_why = NULL']],
  ['a device’s key taken out', (at) => [`DELETE FROM device_keys WHERE key_id = UNHEX('${at.keyId}')`]],
  ['an extra key', (at) => [copyOf('device_keys', `key_id = UNHEX('${at.keyId}')`, { key_id: "UNHEX(SHA2('k', 256))" })]],
  ['another public key', (at) => [`UPDATE device_keys SET public_key = JSON_REPLACE(public_key, '$.x', REPEAT('A', 43)) WHERE key_id = UNHEX('${at.keyId}')`]],
  ['whose key it is', (at) => [`UPDATE device_keys SET account_id = '${at.rival.accountId}'`]],
  ['an announced length', () => ["UPDATE announcements SET body = JSON_REPLACE(body, '$.claimedSteps', 40)"]],
  ['an announcement’s hashes', () => ["UPDATE announcements SET body = JSON_REPLACE(body, '$.photographs[0].sha256', REPEAT('b', 64))"]],
  ['an announced code', () => ["UPDATE announcements SET body = JSON_REPLACE(body, '$.identifierCode', 'WXYZ')"]],
  ['when an announcement was heard', () => ['UPDATE announcements SET heard_at = heard_at - INTERVAL 1 HOUR']],
  ['an announcement taken out', (at) => [`DELETE FROM announcements WHERE catch_id = '${at.unclaimed}'`]],
  ['a second phone’s times', () => ["UPDATE timings SET handling = JSON_REPLACE(handling, '$.events[1].atMs', 1)"]],
  ['a second phone’s clock', () => ['UPDATE timings SET clock_offset_ms = 9000']],
  ['when a second phone told', () => ['UPDATE timings SET told_at = told_at - INTERVAL 1 HOUR']],
  ['an extra timing', () => [copyOf('timings', '1', { device_id: 'uuid()' })]],
  // Of wells and specimens.
  ['what a well holds', () => ["UPDATE well_entries SET act = JSON_REPLACE(act, '$.count', 5)"]],
  ['a well entry taken out', () => ['DELETE FROM well_entries']],
  ['a well entry taken out, its commitment erased', () => ['DELETE FROM well_entries', "UPDATE commitments SET salt = NULL, value = NULL WHERE label LIKE 'well-%'"]],
  ['a well entry moved to another entrant', (at) => [`UPDATE well_entries SET entrant_id = '${at.rivalEntrantId}'`]],
  ['an extra well entry', () => [copyOf('well_entries', '1', { entry_id: 'uuid()' })]],
  ['a specimen', () => ["UPDATE specimens SET record = JSON_REPLACE(record, '$.specimen.weighing.grossG', 9999)"]],
  ['a specimen taken out', () => ['DELETE FROM specimens']],
  // Of people and the event.
  ['a person’s name', (at) => [`UPDATE accounts SET name = 'Somebody' WHERE account_id = '${at.angler.accountId}'`]],
  ['a person’s address', (at) => [`UPDATE accounts SET email = 'x@y.example' WHERE account_id = '${at.angler.accountId}'`]],
  ['entrants’ members exchanged', (at) => [`UPDATE entrant_members SET account_id = '${at.rival.accountId}' WHERE entrant_id = '${at.entrantId}'`]],
  ['an entrant’s number', (at) => [`UPDATE entrants SET number = 99 WHERE entrant_id = '${at.entrantId}'`]],
  ['an extra role', (at) => [`INSERT INTO event_roles (event_id, account_id, role, accepted_at) VALUES ('${at.eventId}', '${at.angler.accountId}', 'judge', '2026-06-14 05:00:00')`]],
  ['a role taken out', (at) => [`DELETE FROM event_roles WHERE account_id = '${at.judge.accountId}'`]],
  ['a role taken up by nobody’s word', (at) => [`INSERT INTO event_roles (event_id, account_id, role, accepted_at) SELECT '${at.eventId}', account_id, 'judge', '2026-06-14 05:00:00' FROM accounts WHERE name = 'Gone'`]],
  ['the identifier of a day', (at) => [`UPDATE identifiers SET code = 'WXYZ' WHERE entrant_id = '${at.entrantId}'`]],
  ['an identifier taken out', (at) => [`DELETE FROM identifiers WHERE entrant_id = '${at.entrantId}'`]],
  ['from when codes are seen', () => ['UPDATE event_days SET codes_from = NULL']],
  ['the event’s name', () => ["UPDATE events SET name = 'Another'"]],
  ['the event’s zone', () => ["UPDATE events SET zone = 'Europe/Oslo'"]],
  ['who sees the event', () => ['UPDATE events SET is_public = NOT is_public']],
  ['the event’s results official', () => ["UPDATE events SET official_at = '2026-06-14 15:00:00'"]],
  ['the event’s row taken out', () => ['DELETE FROM events']],
  ['an account that founds', (at) => [`UPDATE accounts SET founder = 1 WHERE account_id = '${at.rival.accountId}'`]],
  ['an account kept out', (at) => [`UPDATE accounts SET suspended_at = '2026-06-14 05:00:00' WHERE account_id = '${at.rival.accountId}'`]],
  // Of receipts and commitments.
  ['a receipt', () => ["UPDATE receipts SET receipt = JSON_REPLACE(receipt, '$.seq', 2) WHERE JSON_VALUE(receipt, '$.kind') = 'catch.claim'"]],
  ['a receipt’s hash', () => ["UPDATE receipts SET receipt = JSON_REPLACE(receipt, '$.hash', REPEAT('c', 64)) WHERE JSON_VALUE(receipt, '$.kind') = 'catch.claim'"]],
  ['what a receipt stands for', () => ['UPDATE receipts SET body_sha256 = UNHEX(SHA2(1, 256))']],
  ['a receipt taken out', () => ["DELETE FROM receipts WHERE JSON_VALUE(receipt, '$.kind') = 'catch.claim'"]],
  ['all commitments erased', () => ['UPDATE commitments SET salt = NULL, value = NULL']],
  ['all commitments taken out', () => ['DELETE FROM commitments']],
  ['a commitment’s value', () => ["UPDATE commitments SET value = '\"Other.\"' WHERE label = 'words'"]],
  ['a commitment’s salt', () => ["UPDATE commitments SET salt = REPEAT('0', 64) WHERE label = 'words'"]],
  ['a commitment’s label', () => ["UPDATE commitments SET label = 'wards' WHERE label = 'words'"]],
  ['an extra commitment', () => [copyOf('commitments', "label = 'words'", { label: "'more'" })]],
  // Of the chain.
  ['an entry’s bytes', () => ["UPDATE ledger_entries SET bytes = REPLACE(bytes, '\"claimedSteps\":62', '\"claimedSteps\":72')"]],
  ['an entry’s bytes and hash', () => ["UPDATE ledger_entries SET bytes = REPLACE(bytes, '\"claimedSteps\":62', '\"claimedSteps\":72'), hash = UNHEX(SHA2(bytes, 256))"]],
  ['an entry taken out', (at) => [`DELETE FROM ledger_entries WHERE event_id = '${at.eventId}' AND seq = 12`]],
  ['the last entry cut off', (at) => [`DELETE FROM ledger_entries WHERE event_id = '${at.eventId}' ORDER BY seq DESC LIMIT 1`]],
  ['the last four cut off and the head set back', (at) => [`DELETE FROM ledger_entries WHERE event_id = '${at.eventId}' ORDER BY seq DESC LIMIT 4`, setBack(at)]],
  ['the last four cut off with their receipts and commitments, and the head set back', (at) => [`DELETE FROM ledger_entries WHERE event_id = '${at.eventId}' ORDER BY seq DESC LIMIT 4`, setBack(at), `DELETE FROM commitments WHERE event_id = '${at.eventId}' AND seq > (SELECT seq FROM ledgers WHERE event_id = '${at.eventId}')`, `DELETE FROM receipts WHERE JSON_VALUE(receipt, '$.eventId') = '${at.eventId}' AND JSON_VALUE(receipt, '$.seq') > (SELECT seq FROM ledgers WHERE event_id = '${at.eventId}')`]],
  ['the head’s row taken out', (at) => [`DELETE FROM ledgers WHERE event_id = '${at.eventId}'`]],
  ['all entries taken out, the head at its beginning', (at) => [`DELETE FROM ledger_entries WHERE event_id = '${at.eventId}'`, `UPDATE ledgers SET seq = 0, hash = UNHEX('${genesisHash(at.eventId)}') WHERE event_id = '${at.eventId}'`]],
  ['all entries, the head and the event taken out', (at) => [`DELETE FROM ledger_entries WHERE event_id = '${at.eventId}'`, `DELETE FROM ledgers WHERE event_id = '${at.eventId}'`, 'DELETE FROM events']],
  ['all of the installation’s ledger taken out', (at) => [`DELETE FROM ledger_entries WHERE event_id <> '${at.eventId}'`, `DELETE FROM ledgers WHERE event_id <> '${at.eventId}'`]],
]; // prettier-ignore

const setBack = (at: Place): string =>
  `UPDATE ledgers l JOIN (SELECT seq, hash FROM ledger_entries WHERE event_id = '${at.eventId}' ORDER BY seq DESC LIMIT 1) e SET l.seq = e.seq, l.hash = e.hash WHERE l.event_id = '${at.eventId}'`;

describe('the check of the record', () => {
  it('finds nothing where nothing was altered', async () => {
    const [event, installation] = await checkAfter(() => Promise.resolve());
    expect(event).toMatchObject({ ok: true, faults: [], erased: 0, untold: 0 });
    expect(installation).toMatchObject({ ok: true, faults: [], erased: 0 });
  });

  it.each(TAMPERINGS)('finds %s', async (_name, statements) => {
    const found = await checkAfter(async (run) => {
      for (const text of statements(place)) {
        const [done_] = (await run(await text)) as [{ affectedRows?: number }];
        expect(done_.affectedRows, 'rows that were altered').toBeGreaterThan(0);
      }
    });
    expect(found.every(({ ok }) => ok)).toBe(false);
  });

  it('names all that was altered, and not the first alone', async () => {
    const [event] = await checkAfter(async (run) => {
      await run(`UPDATE catches SET claimed_steps = 80 WHERE ${ofCatch(place)}`);
      await run("UPDATE answers SET words = 'Other.'");
      await run("UPDATE events SET name = 'Another'");
    });
    const about = event?.faults.map((one) => one.about.split(' ')[0]);
    expect(about?.toSorted()).toEqual(['answer', 'catch', 'event']);
  });

  it('calls what was erased neither fitting nor altered', async () => {
    const [event] = await checkAfter((run) => run("UPDATE commitments SET salt = NULL, value = NULL WHERE label = 'words'")); // prettier-ignore
    expect(event).toMatchObject({ ok: false, faults: [], erased: 4 });
  });

  it('finds a whole chain that was rewritten, by receipts and by the head’s signature', async () => {
    const [event] = await checkAfter(async (run, tx) => {
      const stores = storesOn(tx);
      const old = await stores.ledger.entries(place.eventId, 0, 500);
      let head = { seq: 0, hash: genesisHash(place.eventId) };
      for (const { bytes, seq } of old) {
        const entry = JSON.parse(Buffer.from(bytes).toString('utf8')) as LedgerEntry;
        const body = entry.kind === 'results.declare' || entry.body['steps'] === 62 ? { ...entry.body, steps: 99 } : entry.body; // prettier-ignore
        const made = appendEntry(head, { ...entry, body });
        head = { seq: made.seq, hash: made.hash };
        await run(`UPDATE ledger_entries SET bytes = X'${Buffer.from(made.bytes).toString('hex')}', hash = X'${made.hash}' WHERE event_id = '${place.eventId}' AND seq = ${seq}`);
      }
      await run(`UPDATE ledgers SET hash = X'${head.hash}' WHERE event_id = '${place.eventId}'`);
      await run(`UPDATE verdicts SET decision = JSON_REPLACE(decision, '$.steps', 99) WHERE ${ofCatch(place)}`);
    }); // prettier-ignore
    const faults = event?.faults.map(({ fault }) => fault);
    expect(faults).toContain('head-not-signed');
    expect(event?.faults.some(({ about }) => about.startsWith('receipt') && about.includes('hash'))).toBe(
      true,
    );
  });

  it('finds a head that another key signed', async () => {
    const [event] = await checkAfter(async (run) => {
      const stores = world.lauta.storage.read;
      const head = await stores.ledger.head(place.eventId);
      const { signature, signedBy } = passingSigner().sign(place.eventId, head ?? { seq: 0, hash: '' });
      await run(`UPDATE ledgers SET signature = '${signature}', signed_by = '${signedBy}' WHERE event_id = '${place.eventId}'`); // prettier-ignore
    });
    expect(event?.faults).toMatchObject([{ fault: 'head-not-signed' }]);
  });
});
