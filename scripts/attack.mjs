// npm run attack: all that was once found by attacking, tried again on loopback against servers and databases of its own:
// tamperings of the database, photographs exchanged and made to cost, rivals, accounts, every field of every command with
// 39 values, faults of machine and database. Ends by itself, with the figures.
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT, ensureBuilt } from './machine/installation.mjs';
import { ensureNodeModules } from './machine/nodeModules.mjs';
import { ensurePackages } from './machine/packages.mjs';
import { runThrough } from './machine/processes.mjs';
import { endWith, say } from './machine/say.mjs';

const PARTS = [
  ['tamperings of the database', 'server/test/tampering.test.ts'],
  ['the ledger, its heads and keys', 'server/test/ledger.test.ts'],
  ['photographs: exchanged, hostile, too many', 'server/test/uploads.test.ts'],
  ['files that are no photograph', 'server/test/photographs.test.ts'],
  ['rivals, officials, senders', 'server/test/rivals.test.ts'],
  ['accounts, passwords, sign-ins', 'server/test/accounts.test.ts'],
  ['who may call what', 'server/test/routes.test.ts'],
  ['every field of every command', 'server/test/fuzz.test.ts'],
  ['the same moment: twenty times at once', 'server/test/races.test.ts'],
  ['starts, stops, backups, rights', 'scripts/machine.test.ts'],
  ['faults of machine, disk and database under load', 'scripts/faults.test.ts'],
];

async function main() {
  await ensurePackages(['database']);
  await ensureNodeModules(ROOT);
  await ensureBuilt();
  const dir = mkdtempSync(join(tmpdir(), 'lauta-attack-'));
  const report = join(dir, 'report.json');
  const from = performance.now();
  await runThrough(
    process.execPath,
    [join(ROOT, 'node_modules/vitest/vitest.mjs'), 'run', ...PARTS.map(([, file]) => /** @type {string} */ (file)), '--no-file-parallelism', '--reporter=json', `--outputFile.json=${report}`], // prettier-ignore
    { cwd: ROOT, env: { ...process.env, LAUTA_ATTACK: 'whole' } },
  );
  /** @type {{ testResults: { name: string, assertionResults: { status: string, fullName: string }[] }[] } | null} */
  const found = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null;
  rmSync(dir, { recursive: true, force: true });
  let failed = found ? 0 : 1;
  say('\n| what was tried | cases | held |\n| --- | --- | --- |');
  for (const [what, file] of PARTS) {
    const results = found?.testResults.find(({ name }) => name.endsWith(/** @type {string} */ (file)));
    const cases = results?.assertionResults ?? [];
    const held = cases.filter(({ status }) => status === 'passed').length;
    failed += cases.length === 0 ? 1 : cases.length - held;
    say(`| ${what} | ${cases.length} | ${held} |`);
    for (const one of cases.filter(({ status }) => status !== 'passed'))
      say(`  did not hold: ${one.fullName}`);
  }
  say(`\nAfter ${((performance.now() - from) / 1000).toFixed(0)} s.`);
  process.exitCode = failed === 0 ? 0 : 1;
}

main().catch(endWith);
