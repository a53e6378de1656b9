// npm start: from a bare machine to a served demo. Node's built-ins alone until the node modules are there.
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { get } from 'node:https';
import { join } from 'node:path';
import { startDatabase } from './machine/database.mjs';
import { ROOT, ensureBuilt, lautaDir } from './machine/installation.mjs';
import { ensureNodeModules } from './machine/nodeModules.mjs';
import { ensurePackages } from './machine/packages.mjs';
import { clearLeftOver } from './machine/processes.mjs';
import { Trouble, endWith, say, seconds, step } from './machine/say.mjs';
import { startServer } from './machine/server.mjs';

const USAGE = `npm start               starts Lauta with its demo, or goes on where it was
npm start -- --fresh    throws this installation's data away and begins anew
npm start -- --empty    a real installation: no demo, it asks for its first director`;

/** @type {(() => Promise<unknown>)[]} */
const closing = [];
let isClosing = false;

async function close(/** @type {number} */ code) {
  if (isClosing) return;
  isClosing = true;
  say('\nStopping: the server, then the database. The data stays.');
  for (const act of closing.reverse()) await act();
  process.exit(code);
}

/** What the server says of itself, over whatever it serves. */
async function askWho(/** @type {number} */ port) {
  const certFile = process.env['LAUTA_TLS_CERT'];
  const set = process.env['LAUTA_HOST'] ?? '0.0.0.0';
  // All addresses include this one.
  const host = set === '0.0.0.0' || set === '::' ? '127.0.0.1' : set;
  if (!certFile) return (await fetch(`http://${host}:${port}/api/who`)).json();
  return new Promise((resolve, reject) => {
    // This very certificate, whatever name it is for.
    const trust = { ca: readFileSync(certFile), checkServerIdentity: () => undefined };
    get({ host, port, path: '/api/who', ...trust }, (response) => {
      let text = '';
      response.on('data', (chunk) => (text += chunk)).on('end', () => resolve(JSON.parse(text)));
    }).on('error', reject);
  });
}

async function main() {
  const flags = process.argv.slice(2);
  const unknown = flags.find((flag) => !['--fresh', '--empty'].includes(flag));
  if (unknown) throw new Trouble(`I don't know ${unknown}.\n${USAGE}`);
  const from = performance.now();
  const dir = lautaDir();
  const databaseDir = join(dir, 'database');
  const port = Number(process.env['PORT'] ?? 4310);
  process.on('SIGINT', () => void close(130));
  process.on('SIGTERM', () => void close(143));

  say('Lauta is starting.');
  await ensurePackages(['database']);
  await ensureNodeModules(ROOT);
  const pidFile = join(dir, 'server.pid');
  if (await clearLeftOver(pidFile, join(ROOT, 'server')))
    say('  a server that a killed run left behind was stopped');
  if (flags.includes('--fresh')) {
    await clearLeftOver(join(databaseDir, 'mariadbd.pid'), join(databaseDir, 'data'));
    rmSync(databaseDir, { recursive: true, force: true });
    say('  the former data is thrown away');
  }
  const isNew = !existsSync(join(databaseDir, 'data'));
  const fixedPort = process.env['LAUTA_DB_PORT'];
  const database = await step(isNew ? 'make and start the database' : 'start the database', () =>
    startDatabase({ dir: databaseDir, durable: true, ...(fixedPort ? { port: Number(fixedPort) } : {}) }),
  );
  closing.push(() => database.stop());
  if (isClosing) return;
  const webDir = await ensureBuilt();
  const server = await step('start the server', () =>
    startServer({
      pidFile,
      print: (text) => process.stdout.write(text),
      env: {
        LAUTA_DB: database.uri(),
        LAUTA_WEB: webDir,
        LAUTA_CACHE: join(dir, 'photographs'),
        LAUTA_DATABASE_DIR: join(databaseDir, 'data'),
        LAUTA_DEMO: flags.includes('--empty') ? 'none' : 'open',
        LAUTA_LOG: process.env['LAUTA_LOG'] ?? 'warn',
        PORT: String(port),
      },
    }),
  );
  closing.push(() => server.stop());
  void server.ended.then((code) => {
    if (!isClosing) say(`The server ended by itself, with ${code}.`);
    return close(code ?? 1);
  });
  const who = /** @type {{ isDemo: boolean, isSetUp: boolean }} */ (await askWho(port));
  say(`\nLauta is at ${server.address}  (after ${seconds(from)})`);
  if (who.isDemo && flags.includes('--empty')) {
    say(
      'There is a demo here already, and it goes on. --empty --fresh begins a real installation in its place.',
    );
  } else if (who.isDemo) {
    say(
      'Demo: the sign-in page has a button for each role: director, judge, weigh master, angler. No passwords.',
    );
  } else if (!who.isSetUp) say('Open it to enter the first director.');
  say('Ctrl-C stops it.');
}

main().catch(async (error) => {
  for (const act of closing.reverse()) await act().catch(() => undefined);
  endWith(error);
});
