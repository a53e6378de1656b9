import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { withDatabase } from './database.mjs';
import { ROOT, lautaDir, ledgerKeyFile } from './installation.mjs';
import { runThrough } from './processes.mjs';
import { Trouble } from './say.mjs';

/**
 * Runs a part of the server by itself on the data that is here, with the arguments of this command and its key.
 * @param {string} file under server/src
 * @returns {Promise<number>} its exit status
 */
export async function runOnDatabase(file) {
  const databaseDir = join(lautaDir(), 'database');
  if (!existsSync(join(databaseDir, 'data'))) throw new Trouble('There is no data here.');
  const key = ledgerKeyFile(lautaDir());
  return withDatabase(databaseDir, (uri) =>
    runThrough(
      process.execPath,
      ['--import', 'tsx', join(ROOT, 'server/src', file), ...process.argv.slice(2)],
      {
        cwd: ROOT,
        env: { ...process.env, LAUTA_DB: uri, ...(existsSync(key) ? { LAUTA_LEDGER_KEY: key } : {}) },
      },
    ),
  );
}
