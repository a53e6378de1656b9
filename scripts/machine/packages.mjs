import { existsSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import { run } from './processes.mjs';
import { Trouble, say, step } from './say.mjs';

/** What Lauta needs of Debian: a file that proves that it is there, and the packages that bring it. */
const NEEDS = {
  database: { file: '/usr/sbin/mariadbd', packages: ['mariadb-server-core', 'mariadb-client'], what: 'MariaDB' },
  browser: { file: '/usr/bin/chromium-headless-shell', packages: ['chromium-headless-shell', 'fonts-liberation'], what: 'Chromium' },
}; // prettier-ignore

/**
 * Installs what is missing, when it may.
 * @param {(keyof typeof NEEDS)[]} names
 */
export async function ensurePackages(names) {
  const missing = names.map((name) => NEEDS[name]).filter((need) => !existsSync(need.file));
  if (missing.length === 0) return;
  const packages = missing.flatMap((need) => need.packages);
  const what = missing.map((need) => need.what).join(' and ');
  const byHand = `apt-get install --no-install-recommends ${packages.join(' ')}`;
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) {
    throw new Trouble(`${what} is not installed. As root on Debian: ${byHand}`);
  }
  say(`${what} is missing; installing from Debian's packages.`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  await step('apt-get update', () => withPatience(() => run('apt-get', ['update', '-qq'], { env })));
  await step(`apt-get install ${packages.join(' ')}`, () =>
    withPatience(() =>
      run(
        'apt-get',
        ['install', '-y', '-q', '--no-install-recommends', '-o', 'DPkg::Lock::Timeout=600', ...packages],
        {
          env,
        },
      ),
    ),
  );
}

/** Another apt-get may hold the lock of the lists, which its own waiting option does not cover. */
async function withPatience(/** @type {() => Promise<unknown>} */ act) {
  for (let tries = 1; ; tries++) {
    try {
      return await act();
    } catch (error) {
      if (tries === 6) throw error;
      await sleep(10_000);
    }
  }
}
