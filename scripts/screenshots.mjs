// npm run screenshots [-- -g NAME]: one current picture of each main view in docs/screenshots, from the demo at a frozen moment.
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startDatabase } from './machine/database.mjs';
import { ROOT, ensureBuilt, photographCache } from './machine/installation.mjs';
import { ensureNodeModules } from './machine/nodeModules.mjs';
import { ensurePackages } from './machine/packages.mjs';
import { freePort, runThrough } from './machine/processes.mjs';
import { endWith, step } from './machine/say.mjs';
import { startServer } from './machine/server.mjs';

async function main() {
  await ensurePackages(['database', 'browser']);
  await ensureNodeModules(ROOT);
  const webDir = await ensureBuilt();
  const dir = mkdtempSync(join(existsSync('/dev/shm') ? '/dev/shm' : tmpdir(), 'lauta-shots-'));
  const database = await step('start a database', () => startDatabase({ dir, durable: false }));
  try {
    /** @type {(value: unknown) => void} */
    let allIn = () => undefined;
    const loaded = new Promise((resolve) => (allIn = resolve));
    const server = await startServer({
      pidFile: join(dir, 'server.pid'),
      print: (text) => {
        process.stdout.write(text);
        if (text.includes('catches are in, after')) allIn(null);
      },
      env: {
        LAUTA_DB: database.uri(),
        LAUTA_WEB: webDir,
        LAUTA_CACHE: photographCache(),
        LAUTA_DEMO: 'open',
        LAUTA_LOG: 'warn',
        LAUTA_NOW: '2026-06-14T10:46:00Z',
        PORT: String(await freePort()),
      },
    });
    await loaded;
    process.exitCode = await runThrough(
      process.execPath,
      [
        join(ROOT, 'node_modules/@playwright/test/cli.js'),
        'test',
        '--config',
        'e2e/screenshots.config.ts',
        ...process.argv.slice(2),
      ],
      { cwd: ROOT, env: { ...process.env, LAUTA_URL: server.address } },
    );
    await server.stop();
  } finally {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  }
}

main().catch(endWith);
