import { readFileSync, readdirSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import mysql from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { commandSchema } from '@lauta/contract';
import { weighInOf } from '@lauta/core/weigh-in';
import { liveWellOf } from '@lauta/core/well';
import { checkLedger } from '../src/verify/checkLedger.ts';
import { computeStandings } from '../src/scoring/standings.ts';
import { openPool } from '../src/storage/database.ts';
import { mariadbStorage } from '../src/app/storage.mariadb.ts';
import type { Storage } from '../src/storage/storage.ts';

/** Dumps and commands of every landed version, as they were written then. They are never edited. */
const FIXTURES = new URL('./fixtures/', import.meta.url);
/** How many ledger entries each dump holds. */
const ENTRIES: Record<string, number> = {
  'database.v1.sql.gz': 10,
  'database.v2.sql.gz': 9,
  'database.v3.sql.gz': 9,
  'database.v4.sql.gz': 8,
  'database.v5.sql.gz': 12,
  'database.v6.sql.gz': 9,
  'database.v7.sql.gz': 18,
  'database.v8.sql.gz': 15,
  'database.v9.sql.gz': 13,
  'database.v10.sql.gz': 14,
  'database.v11.sql.gz': 24,
};
const named = (pattern: RegExp) => readdirSync(FIXTURES).filter((name) => pattern.test(name));

describe.each(named(/^database\..*\.sql\.gz$/))('the database of %s', (name) => {
  const address = inject('databaseAddress');
  const database = `lauta_landed_${process.pid}_${Math.random().toString(36).slice(2, 8)}`;
  let storage: Storage;
  let admin: mysql.Connection;
  beforeAll(async () => {
    admin = await mysql.createConnection({ uri: address, multipleStatements: true });
    await admin.query(`CREATE DATABASE ${database} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`);
    await admin.query(`USE ${database}`);
    const dump = gunzipSync(readFileSync(new URL(name, FIXTURES))).toString('utf8');
    // The client's own word for statements that hold semicolons; the triggers here are single statements.
    await admin.query(dump.replaceAll(/^DELIMITER .*$/gm, '').replaceAll(';;', ';'));
    storage = mariadbStorage(openPool(address.replace(/\/$/, `/${database}`), { connectionLimit: 4 }));
    await storage.migrate();
  });
  afterAll(async () => {
    await storage.close();
    await admin.query(`DROP DATABASE ${database}`);
    await admin.end();
  });

  it('is migrated, its record fits, and its standings are what they were', async () => {
    const [event] = await storage.read.events.all();
    const eventId = event?.eventId ?? '';
    const check = await checkLedger(storage.read, eventId);
    expect(check).toMatchObject({ ok: true, faults: [], entries: ENTRIES[name] });
    // What versions before 11 entered nothing about: the two entrants' codes of a day.
    expect(check.untold).toBe(2);
    // A well and a bag, in versions that have them.
    const well = liveWellOf((await storage.read.wells.ofEvent(eventId)).map(({ entryId, atMs, act }) => ({ entryId, atMs, act }))); // prettier-ignore
    const { tickets, scales, contradictions } = weighInOf(await storage.read.weighIns.ofEvent(eventId));
    expect([well.contradictions, contradictions]).toEqual([[], []]);
    const version = Number(/v(\d+)/.exec(name)?.[1]);
    const isWithScale = version >= 8;
    expect([well.fish.length, tickets.length]).toEqual(isWithScale ? [5, 1] : [0, 0]);
    expect(scales.size).toBe(version >= 10 ? 1 : 0);
    const specimens = await storage.read.specimens.inEvent(eventId);
    expect(specimens.length).toBe(version >= 9 ? 2 : 0);
    const { standings } = await computeStandings(storage.read, eventId, { include: 'all', dayId: null });
    // Two fish of 62 steps, one of them with a quarter inch off for an open mouth.
    expect(standings.map((one) => one.score.steps)).toEqual([123, 0]);
    const [first] = standings;
    if (first?.kind !== 'catches') throw new Error('expected catches');
    expect(first.bag.counting.map((fish) => fish.standing)).toEqual(['provisional', 'official']);
  });
});

describe('commands that an old page may still send', () => {
  it.each(named(/^commands\..*\.json$/))('%s are all understood', (name) => {
    const commands = JSON.parse(readFileSync(new URL(name, FIXTURES), 'utf8')) as unknown[];
    expect(commands.length).toBeGreaterThanOrEqual(8);
    for (const command of commands) expect(commandSchema.safeParse(command).error).toBeUndefined();
  });
});
