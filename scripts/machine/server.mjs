import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './installation.mjs';
import { clearLeftOver, stop, writePid } from './processes.mjs';

const MAIN = join(ROOT, 'server', 'src', 'bin', 'main.ts');

/**
 * Starts the server and waits until it serves. Its output goes on through `print`.
 * @param {{ env: Record<string, string>, pidFile: string, print: (text: string) => void }} options
 */
export async function startServer({ env, pidFile, print }) {
  await clearLeftOver(pidFile, MAIN);
  const child = spawn(process.execPath, ['--import', 'tsx', MAIN], {
    cwd: ROOT,
    env: { ...process.env, ...env },
    // Detached: Ctrl-C is answered here, so that the server ends before its database.
    detached: true,
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  writePid(pidFile, child.pid);
  const ended = once(child, 'exit').then(([code]) => {
    rmSync(pidFile, { force: true });
    return /** @type {number | null} */ (code);
  });
  child.stderr.on('data', (chunk) => print(String(chunk)));
  const address = await new Promise((resolve, reject) => {
    let seen = '';
    child.stdout.on('data', (chunk) => {
      seen = (seen + chunk).slice(-4000);
      const ready = /^ready (\S+)$/m.exec(seen);
      if (ready) resolve(ready[1]);
      print(String(chunk).replace(/^ready .*\n/m, ''));
    });
    void ended.then((code) => reject(new Error(`the server ended with ${code} before it served`)));
  });
  return { address: /** @type {string} */ (address), ended, stop: () => stop(child.pid ?? 0) };
}
