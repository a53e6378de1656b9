// npm run backup [-- FILE]: everything of this installation in one file, consistent, while it serves or not.
import { existsSync, mkdirSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { withDatabase } from './machine/database.mjs';
import { dumpTo } from './machine/dump.mjs';
import { lautaDir } from './machine/installation.mjs';
import { Trouble, endWith, say, step } from './machine/say.mjs';

async function main() {
  const dir = lautaDir();
  const databaseDir = join(dir, 'database');
  if (!existsSync(join(databaseDir, 'data'))) throw new Trouble('There is no data here to back up.');
  const moment = new Date().toISOString().slice(0, 19).replace(/[-:]/g, '').replace('T', '-');
  const file = resolve(process.argv[2] ?? join(dir, 'backups', `lauta-${moment}.sql.gz`));
  if (existsSync(file)) throw new Trouble(`${file} is there already.`);
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  await step('write the backup', () => withDatabase(databaseDir, (uri) => dumpTo(file, uri)));
  say(`${file}  (${(statSync(file).size / 1e6).toFixed(1)} MB, its SHA-256 beside it)`);
  say('It holds personal data, positions and photographs: keep it as such.');
}

main().catch(endWith);
