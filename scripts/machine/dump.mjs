import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import {
  createReadStream,
  createWriteStream,
  existsSync,
  readFileSync,
  renameSync,
  writeFileSync,
} from 'node:fs';
import { basename } from 'node:path';
import { Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { Trouble } from './say.mjs';

/** Arguments and environment that lead a MariaDB client to an address, the password off the command line. */
function client(/** @type {string} */ uri) {
  const { username, password, hostname, port, pathname } = new URL(uri);
  return {
    args: ['--no-defaults', `--host=${hostname}`, `--port=${port}`, `--user=${username}`, '--protocol=tcp'],
    env: { ...process.env, MYSQL_PWD: password },
    database: pathname.slice(1),
  };
}

const sumFile = (/** @type {string} */ file) => `${file}.sha256`;

async function sha256Of(/** @type {string} */ file) {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}

/**
 * Writes everything that the installation holds (photographs and the salts of the ledger's commitments included)
 * as it stood at one moment, while the server goes on, into one compressed file, its SHA-256 beside it.
 */
export async function dumpTo(/** @type {string} */ file, /** @type {string} */ uri) {
  const { args, env, database } = client(uri);
  const dump = spawn(
    'mariadb-dump',
    [...args, '--single-transaction', '--quick', '--hex-blob', '--triggers', '--no-tablespaces', '--max-allowed-packet=64M', database], // prettier-ignore
    { env, stdio: ['ignore', 'pipe', 'pipe'] },
  );
  let trouble = '';
  dump.stderr.on('data', (chunk) => (trouble += chunk));
  const ended = once(dump, 'close');
  const part = `${file}.part`;
  await pipeline(dump.stdout, createGzip({ level: 5 }), createWriteStream(part, { mode: 0o600 }));
  const [code] = await ended;
  if (code !== 0) throw new Trouble(`mariadb-dump ended with ${code}: ${trouble}`);
  const sum = await sha256Of(part);
  renameSync(part, file);
  writeFileSync(sumFile(file), `${sum}  ${basename(file)}\n`);
}

/** A dump's own last line (mariadb-dump): what ends otherwise was cut off. */
const LAST_LINE = '-- Dump completed';

/**
 * Reads a file of `dumpTo` to its end, before anything is touched for it: its sum, its compression, its last line.
 * @param {string} file
 * @param {{ withoutSum: boolean }} options
 */
export async function checkDump(file, { withoutSum }) {
  if (!existsSync(file)) throw new Trouble(`There is no file ${file}.`);
  if (existsSync(sumFile(file))) {
    const [expected] = readFileSync(sumFile(file), 'utf8').split(' ');
    if (expected !== (await sha256Of(file))) throw new Trouble(`${file} is not the file that was written: its SHA-256 differs.`); // prettier-ignore
  } else if (!withoutSum) {
    throw new Trouble(`${sumFile(file)} is missing, which tells whether the backup is whole. --without-sum goes on without it.`); // prettier-ignore
  }
  let end = '';
  const last = new Writable({
    write(chunk, _encoding, done) {
      end = (end + chunk.toString('latin1')).slice(-200);
      done();
    },
  });
  await pipeline(createReadStream(file), createGunzip(), last).catch(() => {
    throw new Trouble(`${file} is no backup, or one that breaks off: it cannot be read to its end.`);
  });
  if (!end.includes(LAST_LINE)) throw new Trouble(`${file} breaks off: its last line is missing.`);
}

/** Loads a file of `dumpTo`, which was checked before, into an empty database. */
export async function loadFrom(/** @type {string} */ file, /** @type {string} */ uri) {
  const { args, env, database } = client(uri);
  const load = spawn('mariadb', [...args, '--max-allowed-packet=64M', database], {
    env,
    stdio: ['pipe', 'ignore', 'pipe'],
  });
  let trouble = '';
  load.stderr.on('data', (chunk) => (trouble += chunk));
  const ended = once(load, 'close');
  await pipeline(createReadStream(file), createGunzip(), load.stdin);
  const [code] = await ended;
  if (code !== 0) throw new Trouble(`mariadb ended with ${code}: ${trouble}`);
}
