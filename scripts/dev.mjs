// npm run dev: the same installation with pages and server that reload by themselves when a source changes.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { startDatabase } from './machine/database.mjs';
import { ROOT, lautaDir, photographCache } from './machine/installation.mjs';
import { ensureNodeModules } from './machine/nodeModules.mjs';
import { ensurePackages } from './machine/packages.mjs';
import { clearLeftOver, stop } from './machine/processes.mjs';
import { endWith, say, step } from './machine/say.mjs';

async function main() {
  const dir = lautaDir();
  await ensurePackages(['database']);
  await ensureNodeModules(ROOT);
  await clearLeftOver(join(dir, 'server.pid'), join(ROOT, 'server'));
  const database = await step('start the database', () =>
    startDatabase({ dir: join(dir, 'database'), durable: true }),
  );
  const port = process.env['PORT'] ?? '4310';
  const env = {
    ...process.env,
    LAUTA_DB: database.uri(),
    LAUTA_CACHE: photographCache(),
    LAUTA_DEMO: 'open',
    LAUTA_API: `http://127.0.0.1:${port}`,
    PORT: port,
  };
  const tsx = join(ROOT, 'node_modules/tsx/dist/cli.mjs');
  const vite = join(ROOT, 'node_modules/vite/bin/vite.js');
  const children = [
    spawn(process.execPath, [tsx, 'watch', '--clear-screen=false', 'server/src/bin/main.ts'], { cwd: ROOT, env, stdio: 'inherit', detached: true }),
    spawn(process.execPath, [vite], { cwd: join(ROOT, 'web'), env, stdio: 'inherit', detached: true }),
  ]; // prettier-ignore
  const close = async () => {
    for (const child of children) await stop(child.pid ?? 0, 5000);
    await database.stop();
    process.exit(0);
  };
  process.once('SIGINT', () => void close());
  process.once('SIGTERM', () => void close());
  say('Pages: http://127.0.0.1:4311');
}

main().catch(endWith);
