// A database for one run of the tests, in memory where there is room for it, gone afterwards.
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startDatabase } from './database.mjs';

/** Vitest's global set-up: hands the address without a database's name to the tests as `databaseAddress`. */
export default async function setUp(
  /** @type {{ provide: (name: string, value: string) => void }} */ project,
) {
  const dir = mkdtempSync(join(existsSync('/dev/shm') ? '/dev/shm' : tmpdir(), 'lauta-test-'));
  const database = await startDatabase({ dir, durable: false });
  project.provide('databaseAddress', database.uri(''));
  return async () => {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  };
}
