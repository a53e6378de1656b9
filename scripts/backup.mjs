// npm run backup [-- FILE] [--with-key]: everything of this installation in one file, consistent, while it serves or not.
import { chmodSync, copyFileSync, existsSync, mkdirSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { withDatabase } from './machine/database.mjs';
import { dumpTo } from './machine/dump.mjs';
import { lautaDir, ledgerKeyFile } from './machine/installation.mjs';
import { Trouble, endWith, say, step } from './machine/say.mjs';

async function main() {
  const dir = lautaDir();
  const databaseDir = join(dir, 'database');
  if (!existsSync(join(databaseDir, 'data'))) throw new Trouble('There is no data here to back up.');
  const moment = new Date().toISOString().slice(0, 19).replace(/[-:]/g, '').replace('T', '-');
  const args = process.argv.slice(2);
  const [given] = args.filter((arg) => !arg.startsWith('--'));
  const file = resolve(given ?? join(dir, 'backups', `lauta-${moment}.sql.gz`));
  if (existsSync(file)) throw new Trouble(`${file} is there already.`);
  mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
  await step('write the backup', () => withDatabase(databaseDir, (uri) => dumpTo(file, uri)));
  say(`${file}  (${(statSync(file).size / 1e6).toFixed(1)} MB, its SHA-256 beside it)`);
  say('It holds personal data, positions and photographs: keep it as such.');
  if (!args.includes('--with-key')) return;
  const key = ledgerKeyFile(dir);
  if (!existsSync(key)) throw new Trouble('There is no key here yet: it is made at the first start.');
  copyFileSync(key, `${file}.ledger-key.json`);
  chmodSync(`${file}.ledger-key.json`, 0o600);
  say('The key that signs where records end lies beside it: who has both can write a record anew.');
}

main().catch(endWith);
