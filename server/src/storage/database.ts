import type { EventEmitter } from 'node:events';
import type { Socket } from 'node:net';
import { fileURLToPath } from 'node:url';
import { DrizzleQueryError } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/mysql2';
import { migrate } from 'drizzle-orm/mysql2/migrator';
import type { PoolConnection } from 'mysql2';
import mysql from 'mysql2/promise';

const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));

export type Database = ReturnType<typeof connect>;
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];
/** What a store's adapter works on: the pool, or one transaction of it. */
export type Connection = Database | Transaction;

function connect(pool: mysql.Pool) {
  return drizzle({ client: pool });
}

/** So long the database may think about one of the server's statements; a lock is waited for less. */
const SILENCE_MS = 15_000;

/** `isServing`: what the database leaves unanswered for long is answered as away. Migrations may take their time. */
export function openPool(
  uri: string,
  { connectionLimit = 12, isServing = false }: { connectionLimit?: number; isServing?: boolean } = {},
): mysql.Pool {
  const pool = mysql.createPool({
    uri,
    connectionLimit,
    timezone: 'Z',
    supportBigNumbers: true,
    connectTimeout: 5000,
  });
  pool.pool.on('connection', (connection) => {
    if (isServing) dropWhenSilent(connection);
    connection.query("SET time_zone = '+00:00'");
  });
  return pool;
}

/** One that neither answers nor breaks off, such as a process that is stopped, is away: who asks it is told so. */
function dropWhenSilent(connection: Pick<PoolConnection, 'query'>): void {
  const { stream } = connection as unknown as { stream: Socket };
  const ask = connection.query.bind(connection) as (...args: unknown[]) => EventEmitter;
  connection.query = ((...args: unknown[]) => {
    const command = ask(...args);
    const timer = setTimeout(() => {
      stream.destroy(Object.assign(new Error('the database is silent'), { code: 'ETIMEDOUT' }));
    }, SILENCE_MS);
    command.once('end', () => clearTimeout(timer));
    return command;
  }) as PoolConnection['query'];
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
/** ER_DISK_FULL, ER_ERROR_ON_WRITE, ER_RECORD_FILE_FULL. */
const NO_ROOM = new Set([1021, 1026, 1114]);
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

/** Whether the database found no room for what it was to write: the disk filled up faster than it is looked at. */
export function isWithoutRoom(error: unknown): boolean {
  return NO_ROOM.has(driverError(error)?.errno ?? 0);
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
