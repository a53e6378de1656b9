import { createHash } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { homedir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { run } from './processes.mjs';
import { step } from './say.mjs';

export const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '../..');

/** Where an installation keeps its database and its cache of photographs. */
export function lautaDir() {
  const dir = resolve(ROOT, process.env['LAUTA_DIR'] ?? '.lauta');
  mkdirSync(dir, { recursive: true, mode: 0o700 });
  return dir;
}

/** Rendered photographs, by seed and renderer: the user's (XDG Base Directory), so that another clone has them too. */
export function photographCache() {
  const own = process.env['LAUTA_CACHE'];
  if (own) return resolve(ROOT, own);
  return join(process.env['XDG_CACHE_HOME'] || join(homedir(), '.cache'), 'lauta', 'photographs');
}

/** The key that signs where ledgers end: beside the database, never in it. */
export const ledgerKeyFile = (/** @type {string} */ dir) => join(dir, 'ledger-key.json');

/** Moves a directory out of the way, under the moment at which it was. @returns where it is now */
export function moveAside(/** @type {string} */ path) {
  const moment = new Date().toISOString().slice(0, 19).replace(/[-:]/g, '').replace('T', '-');
  const aside = `${path}.before-${moment}`;
  renameSync(path, aside);
  return aside;
}

const SOURCES = [
  'web',
  'core/src',
  'vision/src',
  'vision/data',
  'words/src',
  'contract/src',
  'sim/src',
  'package-lock.json',
];
const NOT_SOURCES = new Set(['dist', 'node_modules']);

/** Builds the pages when their sources are not those of the last build. */
export async function ensureBuilt() {
  const dist = join(ROOT, 'web', 'dist');
  const stamp = join(dist, '.sources');
  const wanted = fingerprint();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return dist;
  await step('build the pages', () =>
    run(process.execPath, [join(ROOT, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'], {
      cwd: join(ROOT, 'web'),
    }),
  );
  writeFileSync(stamp, wanted);
  return dist;
}

/** By content, so that a checkout that only touches times builds nothing. */
function fingerprint() {
  const hash = createHash('sha256');
  const add = (/** @type {string} */ path) => {
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) if (!NOT_SOURCES.has(name)) add(join(path, name));
    } else hash.update(path).update(readFileSync(path));
  };
  for (const source of SOURCES) add(join(ROOT, source));
  return hash.digest('hex');
}
