import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import type { Database } from './database.ts';

/** What is added to and never changed: the server's own account can't, whatever it is made to do. */
const ADDED_TO = [
  'ledger_entries', 'commitments', 'receipts', 'rule_sheets', 'boards', 'waters', 'verdicts', 'answers', 'measurements',
  'catch_photographs', 'catch_ids', 'timings', 'announcements', 'well_entries', 'weigh_in_entries', 'specimens',
  'specimen_photographs',
]; // prettier-ignore
/** What changes and is never removed. */
const NEVER_REMOVED = ['events', 'event_days', 'event_sessions', 'ledgers', 'catches', 'captures', 'entrants', 'entrant_members', 'accounts', 'identifiers', 'device_keys']; // prettier-ignore
/** Where the migrations keep what they have done: the server only looks. */
const LOOKED_AT = ['__drizzle_migrations'];

function rightsOn(table: string): string {
  if (LOOKED_AT.includes(table)) return 'SELECT';
  if (ADDED_TO.includes(table)) return 'SELECT, INSERT';
  return NEVER_REMOVED.includes(table) ? 'SELECT, INSERT, UPDATE' : 'SELECT, INSERT, UPDATE, DELETE';
}

/**
 * Gives an account what the server needs while it runs, table by table, and nothing else: no change of the tables
 * themselves, no trigger, no other database. Asked of an account that may grant, after the migrations.
 */
export async function grantLeastRights(database: Database, account: string, password: string): Promise<void> {
  const [rows] = (await database.execute(sql`select table_name as name from information_schema.tables where table_schema = database() and table_type = 'BASE TABLE'`)) as unknown as [{ name: string }[]]; // prettier-ignore
  // Some seventy statements that are on the disk one by one: not at each start. Another password is another account.
  const wanted = rows.map(({ name }) => `${name} ${rightsOn(name)}`).sort();
  const mark = createHash('sha256')
    .update([account, password, ...wanted].join('\n'))
    .digest('hex');
  const [marked] = (await database.execute(sql`select value from settings where name = 'rights-granted'`)) as unknown as [{ value: string }[]]; // prettier-ignore
  if (marked[0]?.value === mark) return;
  for (const host of ['127.0.0.1', 'localhost'])
    for (const { name } of rows)
      await database.execute(sql.raw(`GRANT ${rightsOn(name)} ON \`${name}\` TO '${account}'@'${host}'`));
  await database.execute(sql`replace into settings (name, value) values ('rights-granted', ${mark})`);
}
