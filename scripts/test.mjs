// npm test: sets up what is missing and checks everything. Ends with one line, "N passed, N failed".
// With --only static|unit|server|machine|e2e (several, by commas) just that part.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { existsSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { startDatabase } from './machine/database.mjs';
import { ROOT, ensureBuilt, photographCache } from './machine/installation.mjs';
import { ensureNodeModules } from './machine/nodeModules.mjs';
import { ensurePackages } from './machine/packages.mjs';
import { freePort, run, runThrough } from './machine/processes.mjs';
import { Trouble, say, seconds, step } from './machine/say.mjs';
import { startServer } from './machine/server.mjs';

const WORKSPACES = ['core', 'vision', 'contract', 'words', 'sim', 'server', 'web/src', 'e2e', 'scripts'];
const PARTS = ['static', 'unit', 'server', 'machine', 'e2e'];

let passed = 0;
let failed = 0;

/** @type {(() => Promise<unknown>)[]} */
const closing = [];
async function close() {
  for (const act of closing.splice(0).reverse()) await act().catch(() => undefined);
}

/** One check that either holds or does not. */
async function check(/** @type {string} */ name, /** @type {() => Promise<unknown>} */ act) {
  try {
    await step(name, act);
    passed += 1;
  } catch (error) {
    failed += 1;
    say(error instanceof Error ? error.message : String(error));
  }
}

const bin = (/** @type {string} */ path) => join(ROOT, 'node_modules', path);

/** Format, lint, types and who imports whom, as many at once as there are cores: each is one process of one core. */
async function checkStatically() {
  say('Format, lint, types, imports');
  const node = (/** @type {string[]} */ ...args) => run(process.execPath, args, { cwd: ROOT });
  const cruise = (/** @type {string} */ rules) =>
    node(
      bin('dependency-cruiser/bin/dependency-cruise.mjs'),
      '--config',
      `scripts/rules/${rules}.config.mjs`,
      ...WORKSPACES,
    );
  /** @type {[string, () => Promise<unknown>][]} */
  const checks = [
    // Workspace after workspace, each once: what imports one reads its declarations.
    ['types', () => node(bin('typescript/bin/tsc'), '--build')],
    ['lint', () => node(bin('eslint/bin/eslint.js'), '.')],
    ['imports', () => cruise('dependencies')],
    ['circles of folders', () => cruise('circles')],
    ['licences', () => node('scripts/notice.mjs', '--check')],
    ['format', () => node(bin('prettier/bin/prettier.cjs'), '--check', '.')],
  ];
  const work = async () => {
    for (let next = checks.shift(); next; next = checks.shift()) await check(...next);
  };
  await Promise.all(Array.from({ length: availableParallelism() }, work));
}

/** @param {string[]} projects */
async function runVitest(projects) {
  say(`Tests: ${projects.join(', ')}`);
  const report = join(mkdtempSync(join(tmpdir(), 'lauta-report-')), 'vitest.json');
  const args = projects.flatMap((project) => ['--project', project]);
  const from = performance.now();
  const code = await runThrough(
    process.execPath,
    [
      bin('vitest/vitest.mjs'),
      'run',
      ...args,
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${report}`,
    ],
    { cwd: ROOT },
  );
  const counts = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null;
  passed += counts?.numPassedTests ?? 0;
  failed += counts?.numFailedTests ?? 0;
  // A file that can't be loaded has no failed test, yet the run has failed.
  if (code !== 0 && !(counts?.numFailedTests > 0)) failed += 1;
  say(`  ${projects.join(', ')}: ${seconds(from)}`);
}

/** The built application in a real browser: one server with the demo, one as a new installation. */
async function runBrowserTests() {
  say('Browser tests');
  const webDir = await ensureBuilt();
  const dir = mkdtempSync(join(existsSync('/dev/shm') ? '/dev/shm' : tmpdir(), 'lauta-e2e-'));
  const database = await step('start a database', () => startDatabase({ dir, durable: false }));
  closing.push(async () => {
    await database.stop();
    rmSync(dir, { recursive: true, force: true });
  });
  const serve = async (/** @type {string} */ name, /** @type {Record<string, string>} */ env) => {
    const server = await startServer({
      pidFile: join(dir, `${name}.pid`),
      print: (text) => process.stdout.write(text),
      env: {
        LAUTA_WEB: webDir,
        LAUTA_LOG: 'warn',
        LAUTA_CACHE: photographCache(),
        LAUTA_TRIES_PER_ADDRESS: '1000',
        PORT: String(await freePort()),
        ...env,
      },
    });
    closing.push(() => server.stop());
    return server.address;
  };
  const demo = await step('serve a demo of 12 catches', () =>
    serve('demo', { LAUTA_DB: database.uri(), LAUTA_DEMO: 'open', LAUTA_DEMO_CATCHES: '12' }),
  );
  await run('mariadb', ['--no-defaults', '--protocol=tcp', '--host=127.0.0.1', `--port=${database.port}`, '--user=lauta', '-e', 'CREATE DATABASE lauta_empty CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci'], { env: { ...process.env, MYSQL_PWD: database.password } }); // prettier-ignore
  const empty = await serve('empty', { LAUTA_DB: database.uri('lauta_empty') });
  const report = join(dir, 'playwright.json');
  const from = performance.now();
  const code = await runThrough(
    process.execPath,
    [bin('@playwright/test/cli.js'), 'test', '--config', 'e2e/playwright.config.ts'],
    {
      cwd: ROOT,
      env: { ...process.env, LAUTA_URL: demo, LAUTA_EMPTY_URL: empty, PLAYWRIGHT_JSON_OUTPUT_NAME: report },
    },
  );
  const heard = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : null;
  const stats = heard?.stats ?? null;
  for (const line of slowest(heard?.suites ?? [])) say(`  ${line}`);
  for (const page of failedPages(heard?.suites ?? [])) say(page);
  for (const failure of failures(heard?.suites ?? [])) say(failure);
  // One that passes only when it is tried again has failed.
  const wrong = (stats?.unexpected ?? 0) + (stats?.flaky ?? 0);
  for (const { name, status } of resultsOf(heard?.suites ?? []))
    if (status === 'flaky') say(`  flaky: ${name}`);
  passed += stats?.expected ?? 0;
  failed += wrong;
  if (code !== 0 && wrong === 0) failed += 1;
  say(`  browser tests: ${seconds(from)}`);
}

/**
 * Each browser test with its last result.
 * @param {any[]} suites of Playwright's report
 * @returns {{ name: string, status: string, result: any }[]}
 */
function resultsOf(suites) {
  return suites.flatMap(({ suites: inner = [], specs = [] }) => [
    ...resultsOf(inner),
    ...specs.map((/** @type {any} */ { file, title, tests }) => ({
      name: `${file} › ${title}`,
      status: tests[0]?.status,
      result: tests[0]?.results.at(-1),
    })),
  ]);
}

/**
 * What takes the browser's time, the longest first.
 * @param {any[]} suites of Playwright's report
 */
function slowest(suites) {
  const times = resultsOf(suites).map(({ name, result }) => ({ name, ms: result?.duration ?? 0 }));
  times.sort((a, b) => b.ms - a.ms);
  return times.slice(0, 12).map(({ name, ms }) => `${(ms / 1000).toFixed(0).padStart(4)} s  ${name}`);
}

/** Of what a page showed when its test failed so much is printed, lines. */
const PAGE_LINES = 120;

/**
 * What each failed test says: the reporter printed it far above.
 * @param {any[]} suites of Playwright's report
 */
function failures(suites) {
  return resultsOf(suites).flatMap(({ name, result }) =>
    (result?.errors ?? []).map((/** @type {any} */ error) => `Failed: ${name}\n${error.message}`),
  );
}

/**
 * What the pages showed when a test failed: where the run is read its files are often gone.
 * @param {any[]} suites of Playwright's report
 */
function failedPages(suites) {
  return resultsOf(suites).flatMap(({ name, result }) => {
    const kept = result?.attachments.find(
      (/** @type {any} */ one) => one.name === 'error-context' && one.path,
    );
    if (!kept || !existsSync(kept.path)) return [];
    const lines = readFileSync(kept.path, 'utf8').split('\n');
    const from = lines.findIndex((line) => line.startsWith('```yaml'));
    return from < 0
      ? []
      : [`What was on the page of ${name}:`, ...lines.slice(from, from + PAGE_LINES)].join('\n');
  });
}

async function main() {
  const from = performance.now();
  const at = process.argv.indexOf('--only');
  const parts = at === -1 ? PARTS : (process.argv[at + 1] ?? '').split(',');
  const unknown = parts.find((part) => !PARTS.includes(part));
  if (unknown !== undefined) throw new Trouble(`--only takes ${PARTS.join(', ')}; not ${unknown}.`);
  say('Setting up.');
  await ensurePackages(['database', 'browser']);
  await ensureNodeModules(ROOT);
  if (parts.includes('static')) await checkStatically();
  const projects = parts.filter((part) => ['unit', 'server', 'machine'].includes(part));
  const quick = projects.filter((project) => project !== 'machine');
  if (quick.length > 0) await runVitest(quick);
  if (projects.includes('machine')) {
    // Alone: it measures how long a start takes.
    await ensureBuilt();
    await runVitest(['machine']);
  }
  if (parts.includes('e2e')) await runBrowserTests();
  await close();
  say(`All after ${seconds(from)}.`);
}

for (const signal of /** @type {const} */ (['SIGINT', 'SIGTERM'])) {
  process.on(signal, () => {
    void close().then(() => process.exit(1));
  });
}

main()
  .catch(async (error) => {
    failed += 1;
    await close();
    say(error instanceof Trouble ? error.message : String(error?.stack ?? error));
  })
  .finally(() => {
    say(`${passed} passed, ${failed} failed`);
    process.exit(failed > 0 || passed === 0 ? 1 : 0);
  });
