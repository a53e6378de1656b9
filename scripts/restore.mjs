// npm run restore -- FILE [--replace]: puts a backup in place of this installation's data.
import { existsSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { findDatabase, startDatabase } from './machine/database.mjs';
import { loadFrom } from './machine/dump.mjs';
import { ROOT, lautaDir } from './machine/installation.mjs';
import { ensurePackages } from './machine/packages.mjs';
import { runningFrom } from './machine/processes.mjs';
import { Trouble, endWith, say, step } from './machine/say.mjs';

async function main() {
  const args = process.argv.slice(2);
  const [given] = args.filter((arg) => !arg.startsWith('--'));
  if (!given) throw new Trouble('npm run restore -- FILE [--replace]');
  const file = resolve(given);
  if (!existsSync(file)) throw new Trouble(`There is no file ${file}.`);
  const dir = lautaDir();
  const databaseDir = join(dir, 'database');
  if (runningFrom(join(dir, 'server.pid'), join(ROOT, 'server')) !== null || findDatabase(databaseDir)) {
    throw new Trouble('Lauta is running here. Stop it first.');
  }
  if (existsSync(join(databaseDir, 'data'))) {
    if (!args.includes('--replace')) {
      throw new Trouble(`There is data in ${databaseDir}. With --replace the backup takes its place.`);
    }
    rmSync(databaseDir, { recursive: true, force: true });
  }
  await ensurePackages(['database']);
  const database = await step('make the database', () => startDatabase({ dir: databaseDir, durable: true }));
  try {
    await step('load the backup', () => loadFrom(file, database.uri()));
  } finally {
    await database.stop();
  }
  say('Restored. npm start serves it; npm run verify-ledger checks it.');
}

main().catch(endWith);
