// npm run bench-photos [-- --quick] [--count N]: how well the bench reads simulated photographs that no threshold was
// tuned on, and the shared samples when they are beside the project. Prints tables; asserts nothing.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './machine/installation.mjs';
import { ensureNodeModules } from './machine/nodeModules.mjs';
import { ensurePackages } from './machine/packages.mjs';
import { endWith } from './machine/say.mjs';

async function main() {
  await ensurePackages(['browser']);
  await ensureNodeModules(ROOT);
  const { status } = spawnSync(
    process.execPath,
    ['--import', 'tsx', join(ROOT, 'server/bench/benchPhotos.ts'), ...process.argv.slice(2)],
    { cwd: ROOT, stdio: 'inherit' },
  );
  process.exitCode = status ?? 1;
}

main().catch(endWith);
