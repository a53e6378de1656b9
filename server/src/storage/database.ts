import { fileURLToPath } from 'node:url';
import { DrizzleQueryError } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/mysql2';
import { migrate } from 'drizzle-orm/mysql2/migrator';
import mysql from 'mysql2/promise';

const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));

export type Database = ReturnType<typeof connect>;
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];
/** What a store's adapter works on: the pool, or one transaction of it. */
export type Connection = Database | Transaction;

function connect(pool: mysql.Pool) {
  return drizzle({ client: pool });
}

export function openPool(uri: string, connectionLimit = 12): mysql.Pool {
  const pool = mysql.createPool({
    uri,
    connectionLimit,
    timezone: 'Z',
    supportBigNumbers: true,
    connectTimeout: 5000,
  });
  pool.pool.on('connection', (connection) => connection.query("SET time_zone = '+00:00'"));
  return pool;
}

export function openDatabase(pool: mysql.Pool): Database {
  return connect(pool);
}

export async function migrateDatabase(database: Database): Promise<void> {
  await migrate(database, { migrationsFolder: MIGRATIONS });
}

const DEADLOCK = new Set([1213, 1205]);
const DUPLICATE = 1062;
/** The server is going down, or has killed the connection. */
const SHUTTING_DOWN = new Set([1053, 1927, 1077, 1079, 1152]);
const CONNECTION_CODES = new Set([
  'ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND', 'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN', 'POOL_CLOSED',
]); // prettier-ignore

function driverError(error: unknown): { errno?: number; code?: string; fatal?: boolean } | null {
  const cause = error instanceof DrizzleQueryError ? error.cause : error;
  return typeof cause === 'object' && cause !== null ? cause : null;
}

export function isDuplicate(error: unknown): boolean {
  return driverError(error)?.errno === DUPLICATE;
}

/** Whether the trouble is that the database can't be reached, so that trying again later helps. */
export function isDatabaseAway(error: unknown): boolean {
  const found = driverError(error);
  if (!found) return false;
  return (
    CONNECTION_CODES.has(found.code ?? '') || SHUTTING_DOWN.has(found.errno ?? 0) || found.fatal === true
  );
}

/** Runs one transaction, and again when MariaDB chose it as a deadlock's victim. */
export async function inTransaction<T>(
  database: Database,
  act: (transaction: Transaction) => Promise<T>,
): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await database.transaction(act, { isolationLevel: 'read committed' });
    } catch (error) {
      if (tries === 4 || !DEADLOCK.has(driverError(error)?.errno ?? 0)) throw error;
    }
  }
}

/** An error as it may be logged: a query's text and parameters hold names, addresses and positions. */
export function withoutData(error: unknown): unknown {
  if (!(error instanceof DrizzleQueryError)) return error;
  const { errno, code } = (error.cause ?? {}) as { errno?: number; code?: string };
  const table = /(?:from|into|update)\s+`(\w+)`/i.exec(error.query)?.[1];
  const at = error.stack?.split('\n').filter((line) => /^\s+at /.test(line)).slice(0, 8); // prettier-ignore
  return { type: 'query failed', errno, code, table, at };
}
