// npm start: from a bare machine to a served demo. Node's built-ins alone until the node modules are there.
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { get } from 'node:https';
import { join } from 'node:path';
import { startDatabase, withDatabase } from './machine/database.mjs';
import { dataOf } from './machine/demo.mjs';
import {
  ROOT,
  ensureBuilt,
  lautaDir,
  ledgerKeyFile,
  moveAside,
  photographCache,
} from './machine/installation.mjs';
import { keepAlive } from './machine/keepAlive.mjs';
import { ensureNodeModules } from './machine/nodeModules.mjs';
import { ensurePackages } from './machine/packages.mjs';
import { clearLeftOver, runningFrom, stop, untilEnded, writePid } from './machine/processes.mjs';
import { Trouble, endWith, say, seconds, step } from './machine/say.mjs';
import { startServer } from './machine/server.mjs';

const USAGE = `npm start                    starts Lauta with its demo, or goes on where it was
npm start -- --fresh         throws a demo away and begins anew
npm start -- --fresh=NAME    the same where a real installation is: NAME is that of one of its events; its data is
                             moved aside, and no demo takes its place
npm start -- --empty         a real installation: no demo, it asks for its first director
npm start -- --take-over     ends the Lauta that runs here, and takes its place`;

const LOOPBACK = ['127.0.0.1', 'localhost', '::1'];

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

/**
 * Flags, understood; any other is trouble.
 * @returns {{ isFresh: boolean, freshName: string | null, isEmpty: boolean, takesOver: boolean }}
 */
function readFlags(/** @type {string[]} */ flags) {
  const known = ['--fresh', '--empty', '--take-over'];
  const unknown = flags.find((flag) => !known.includes(flag) && !flag.startsWith('--fresh='));
  if (unknown) throw new Trouble(`I don't know ${unknown}.\n${USAGE}`);
  const named = flags.find((flag) => flag.startsWith('--fresh='));
  return {
    isFresh: named !== undefined || flags.includes('--fresh'),
    freshName: named === undefined ? null : named.slice('--fresh='.length),
    isEmpty: flags.includes('--empty'),
    takesOver: flags.includes('--take-over'),
  };
}

/** Ends what runs here: only when told to, or when whoever started it is gone. */
async function clearWay(/** @type {string} */ dir, /** @type {boolean} */ takesOver) {
  const starter = join(dir, 'start.pid');
  const running = runningFrom(starter, 'scripts/start.mjs');
  if (running !== null && running !== process.pid) {
    if (!takesOver)
      throw new Trouble(
        'Lauta runs here already, from another terminal or as a service. npm start -- --take-over ends it and takes its place.',
      );
    await stop(running, 60_000);
    say('  the Lauta that ran here was ended');
  }
  writePid(starter, process.pid);
  closing.push(async () => rmSync(starter, { force: true }));
  if (await clearLeftOver(join(dir, 'server.pid'), join(ROOT, 'server')))
    say('  a server that a killed run left behind was stopped');
}

/** A marker: a real installation is or was here, so that no demo, which has no passwords, takes its place. */
const realMark = (/** @type {string} */ dir) => join(dir, 'real-installation');

/**
 * Begins anew. A demo's data is thrown away; a real installation's is moved aside, when one of its events is named.
 * @param {string} dir
 * @param {string | null} name
 */
async function beginAnew(dir, name) {
  const databaseDir = join(dir, 'database');
  if (!existsSync(join(databaseDir, 'data'))) return;
  const { kind, events } = await withDatabase(databaseDir, dataOf);
  await clearLeftOver(join(databaseDir, 'mariadbd.pid'), join(databaseDir, 'data'));
  if (kind !== 'real') {
    rmSync(databaseDir, { recursive: true, force: true });
    say('  the former data is thrown away');
    return;
  }
  if (name === null || !events.includes(name))
    throw new Trouble(
      `There is a real installation here, with ${events.length} events. If it is to go, name one of them: npm start -- --fresh="NAME". Its data is then moved aside, not removed.`,
    );
  writeFileSync(realMark(dir), '');
  say(`  the former data is now in ${moveAside(databaseDir)}`);
}

/** Says it loudly where somebody else could come in without a password. */
function warnOfOpenDemo() {
  const host = process.env['LAUTA_HOST'];
  if (host === undefined || LOOPBACK.includes(host)) return;
  say(`
  ************************************************************************
  *  THIS IS A DEMO, AND IT IS SERVED TO OTHERS THAN THIS MACHINE.       *
  *  Whoever reaches ${host.padEnd(52)}*
  *  is director, judge or angler by one tap, without a password.        *
  *  For a real event: npm start -- --empty, in a directory of its own.  *
  ************************************************************************`);
}

async function main() {
  const { isFresh, freshName, isEmpty, takesOver } = readFlags(process.argv.slice(2));
  const from = performance.now();
  const dir = lautaDir();
  const databaseDir = join(dir, 'database');
  const port = Number(process.env['PORT'] ?? 4310);
  process.on('SIGINT', () => void close(130));
  process.on('SIGTERM', () => void close(143));

  say('Lauta is starting.');
  await ensurePackages(['database']);
  await ensureNodeModules(ROOT);
  await clearWay(dir, takesOver);
  if (isFresh) await beginAnew(dir, freshName);
  const hasDemo = !isEmpty && !existsSync(realMark(dir));
  const isNew = !existsSync(join(databaseDir, 'data'));
  const fixedPort = process.env['LAUTA_DB_PORT'];
  const first = await step(isNew ? 'make and start the database' : 'start the database', () =>
    startDatabase({ dir: databaseDir, durable: true, ...(fixedPort ? { port: Number(fixedPort) } : {}) }),
  );
  // The server goes on by itself when its database answers again, at the same port.
  const database = keepAlive({
    name: 'The database',
    first,
    ended: ({ pid }) => untilEnded(pid, () => isClosing),
    start: () => startDatabase({ dir: databaseDir, durable: true, port: first.port }),
    isOver: () => isClosing,
  });
  closing.push(() => database.current().stop());
  if (isClosing) return;
  const webDir = await ensureBuilt();
  const serve = () =>
    startServer({
      pidFile: join(dir, 'server.pid'),
      print: (text) => process.stdout.write(text),
      env: {
        LAUTA_DB: first.runUri(),
        LAUTA_DB_MIGRATE: first.uri(),
        LAUTA_WEB: webDir,
        LAUTA_CACHE: photographCache(),
        LAUTA_DATABASE_DIR: join(databaseDir, 'data'),
        LAUTA_LEDGER_KEY: ledgerKeyFile(dir),
        LAUTA_DEMO: hasDemo ? 'open' : 'none',
        LAUTA_LOG: process.env['LAUTA_LOG'] ?? 'warn',
        PORT: String(port),
      },
    });
  // What fails at its very start is told, not tried again.
  const firstServer = await step('start the server', serve);
  const server = keepAlive({
    name: 'The server',
    first: firstServer,
    ended: ({ ended }) => ended,
    start: serve,
    isOver: () => isClosing,
  });
  closing.push(() => server.current().stop());
  const who = /** @type {{ isDemo: boolean, isSetUp: boolean }} */ (await askWho(port));
  if (!who.isDemo && (who.isSetUp || isEmpty)) writeFileSync(realMark(dir), '');
  say(`\nLauta is at ${firstServer.address}  (after ${seconds(from)})`);
  if (who.isDemo && isEmpty) {
    say(
      'There is a demo here already, and it goes on. --empty --fresh begins a real installation in its place.',
    );
  } else if (who.isDemo) {
    say(
      'Demo: the sign-in page has a button for each role: director, judge, weigh master, angler. No passwords.',
    );
  } else if (!who.isSetUp) say('Open it to enter the first director.');
  if (who.isDemo) warnOfOpenDemo();
  say('Ctrl-C stops it.');
}

main().catch(async (error) => {
  for (const act of closing.reverse()) await act().catch(() => undefined);
  endWith(error);
});
