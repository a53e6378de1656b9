// npm run -s ledger-key [-- --rotate]: the fingerprint of the key that signs where records end, or another key in its place.
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, lautaDir, ledgerKeyFile } from './machine/installation.mjs';
import { runThrough, runningFrom } from './machine/processes.mjs';
import { Trouble, endWith } from './machine/say.mjs';

async function main() {
  const dir = lautaDir();
  const file = ledgerKeyFile(dir);
  if (!existsSync(file)) throw new Trouble('There is no key here yet: it is made at the first start.');
  if (
    process.argv.includes('--rotate') &&
    runningFrom(join(dir, 'server.pid'), join(ROOT, 'server')) !== null
  )
    throw new Trouble('Lauta is running here, with the key until now. Stop it first.');
  process.exitCode = await runThrough(
    process.execPath,
    ['--import', 'tsx', join(ROOT, 'server/src/bin/ledgerKey.ts'), ...process.argv.slice(2)],
    { cwd: ROOT, env: { ...process.env, LAUTA_LEDGER_KEY: file } },
  );
}

main().catch(endWith);
