import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { run } from './processes.mjs';
import { step } from './say.mjs';

/** Installs the node modules when they are absent or not those of the lock file. */
export async function ensureNodeModules(/** @type {string} */ root) {
  const stamp = join(root, 'node_modules', '.lauta-lock');
  const wanted = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .update(process.version)
    .digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  await step('npm ci', () => {
    const args = ['ci', '--no-audit', '--no-fund', '--loglevel=error'];
    const npm = process.env['npm_execpath'];
    return npm ? run(process.execPath, [npm, ...args], { cwd: root }) : run('npm', args, { cwd: root });
  });
  writeFileSync(stamp, wanted);
}
