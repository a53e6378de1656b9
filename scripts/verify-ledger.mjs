// npm run verify-ledger: checks the record of every event, and names the first entry that does not fit.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { withDatabase } from './machine/database.mjs';
import { ROOT, lautaDir, ledgerKeyFile } from './machine/installation.mjs';
import { runThrough } from './machine/processes.mjs';
import { Trouble, endWith } from './machine/say.mjs';

async function main() {
  const databaseDir = join(lautaDir(), 'database');
  if (!existsSync(join(databaseDir, 'data'))) throw new Trouble('There is no data here to check.');
  const key = ledgerKeyFile(lautaDir());
  process.exitCode = await withDatabase(databaseDir, (uri) =>
    runThrough(
      process.execPath,
      ['--import', 'tsx', join(ROOT, 'server/src/ledger/verifyLedger.ts'), ...process.argv.slice(2)],
      {
        cwd: ROOT,
        env: { ...process.env, LAUTA_DB: uri, ...(existsSync(key) ? { LAUTA_LEDGER_KEY: key } : {}) },
      },
    ),
  );
}

main().catch(endWith);
