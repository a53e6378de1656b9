// npm run restore -- FILE [--replace] [--without-sum] [--without-check]: puts a backup in place of this installation's data.
import { copyFileSync, existsSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { findDatabase, startDatabase } from './machine/database.mjs';
import { ask, dataOf } from './machine/demo.mjs';
import { checkDump, loadFrom } from './machine/dump.mjs';
import { ROOT, lautaDir, ledgerKeyFile, moveAside } from './machine/installation.mjs';
import { ensureNodeModules } from './machine/nodeModules.mjs';
import { ensurePackages } from './machine/packages.mjs';
import { run, runningFrom } from './machine/processes.mjs';
import { Trouble, endWith, say, step } from './machine/say.mjs';

const FLAGS = ['--replace', '--without-sum', '--without-check'];

async function main() {
  const args = process.argv.slice(2);
  const [given] = args.filter((arg) => !arg.startsWith('--'));
  const unknown = args.find((arg) => arg.startsWith('--') && !FLAGS.includes(arg));
  if (!given || unknown) throw new Trouble(`npm run restore -- FILE [${FLAGS.join('] [')}]`);
  const file = resolve(given);
  const dir = lautaDir();
  const databaseDir = join(dir, 'database');
  if (runningFrom(join(dir, 'server.pid'), join(ROOT, 'server')) !== null || findDatabase(databaseDir)) {
    throw new Trouble('Lauta is running here. Stop it first.');
  }
  const isReplacing = existsSync(join(databaseDir, 'data'));
  if (isReplacing && !args.includes('--replace')) {
    throw new Trouble(`There is data in ${databaseDir}. With --replace the backup takes its place.`);
  }
  await step('read the backup to its end', () =>
    checkDump(file, { withoutSum: args.includes('--without-sum') }),
  );
  await ensurePackages(['database']);
  await ensureNodeModules(ROOT);
  // What is here stays as it is until the backup has shown that it is whole.
  const newDir = join(dir, 'database.restoring');
  rmSync(newDir, { recursive: true, force: true });
  const trusted = await load(file, newDir, !args.includes('--without-check')).catch((error) => {
    rmSync(newDir, { recursive: true, force: true });
    throw error;
  });
  if (isReplacing) say(`  the former data is now in ${moveAside(databaseDir)}`);
  renameSync(newDir, databaseDir);
  keepKey(file, dir, trusted);
  say('Restored: everybody signs in anew. npm start serves it.');
}

/**
 * Loads a backup into a directory of its own, brings it up to this version, and checks every record in it.
 * @returns the public keys by which its records were signed
 */
async function load(
  /** @type {string} */ file,
  /** @type {string} */ newDir,
  /** @type {boolean} */ isChecked,
) {
  const database = await step('make a database for it', () => startDatabase({ dir: newDir, durable: true }));
  const uri = database.uri();
  const node = (/** @type {string} */ source) =>
    run(process.execPath, ['--import', 'tsx', join(ROOT, source)], {
      cwd: ROOT,
      env: { ...process.env, LAUTA_DB: uri },
    });
  try {
    await step('load the backup', () => loadFrom(file, uri));
    await step('bring it up to this version', () => node('server/src/bin/migrateOnly.ts'));
    if (isChecked)
      await step('check every record in it', () => node('server/src/bin/verifyLedger.ts')).catch((error) => {
        throw new Trouble(`${error.message}\nThe backup's own record does not fit. --without-check takes it all the same.`); // prettier-ignore
      });
    // Whoever had signed out, or was offered something, before or after the backup: nothing of it comes back.
    await ask(uri, 'DELETE FROM sign_ins; DELETE FROM invitations; UPDATE pairings SET ended_at = UTC_TIMESTAMP(3) WHERE ended_at IS NULL'); // prettier-ignore
    if ((await dataOf(uri)).kind === 'real') writeFileSync(join(lautaDir(), 'real-installation'), '');
    const [keys = '[]'] = await ask(uri, "SELECT TO_BASE64(value) FROM settings WHERE name = 'ledger-keys'");
    return keys === '[]'
      ? []
      : JSON.parse(Buffer.from(keys.replaceAll('\\n', ''), 'base64').toString('utf8'));
  } finally {
    await database.stop();
  }
}

/** The key that signs comes with the backup only where it was asked for; else this installation signs with its own. */
function keepKey(/** @type {string} */ file, /** @type {string} */ dir, /** @type {string[]} */ trusted) {
  const trustedFile = `${ledgerKeyFile(dir)}.trusted`;
  /** @type {string[]} */
  const before = existsSync(trustedFile) ? JSON.parse(readFileSync(trustedFile, 'utf8')) : [];
  writeFileSync(trustedFile, JSON.stringify([...new Set([...before, ...trusted])]), { mode: 0o600 });
  const key = `${file}.ledger-key.json`;
  if (!existsSync(key)) return;
  const own = ledgerKeyFile(dir);
  if (existsSync(own)) moveAside(own);
  copyFileSync(key, own);
  say('  the key that signs where records end came with it');
}

main().catch(endWith);
