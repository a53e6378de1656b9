// npm run bench: what the machine at hand does a second. Medians and ratios; nothing is asserted.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startDatabase } from './machine/database.mjs';
import { ROOT } from './machine/installation.mjs';
import { ensureNodeModules } from './machine/nodeModules.mjs';
import { ensurePackages } from './machine/packages.mjs';
import { runThrough } from './machine/processes.mjs';
import { endWith, step } from './machine/say.mjs';

async function main() {
  await ensurePackages(['database']);
  await ensureNodeModules(ROOT);
  const dir = mkdtempSync(join(tmpdir(), 'lauta-bench-'));
  // Durable, as it is served: a claim that is acknowledged is on the disk.
  const database = await step('start a database', () => startDatabase({ dir, durable: true }));
  try {
    process.exitCode = await runThrough(
      process.execPath,
      ['--import', 'tsx', join(ROOT, 'server/bench/bench.ts')],
      { cwd: ROOT, env: { ...process.env, LAUTA_DB: database.uri() } },
    );
  } finally {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
}

main().catch(endWith);
