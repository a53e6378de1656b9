import { spawn } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';

/**
 * Runs a command to its end. Its output is shown when `loud`, else kept and thrown with a failure.
 * @param {string} command
 * @param {string[]} args
 * @param {{ cwd?: string, env?: NodeJS.ProcessEnv, loud?: boolean, input?: string }} [options]
 * @returns {Promise<string>} standard output
 */
export function run(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd: options.cwd,
      env: options.env ?? process.env,
      stdio: [options.input === undefined ? 'ignore' : 'pipe', options.loud ? 'inherit' : 'pipe', options.loud ? 'inherit' : 'pipe'], // prettier-ignore
    });
    let out = '';
    let err = '';
    child.stdout?.on('data', (chunk) => (out += chunk));
    child.stderr?.on('data', (chunk) => (err += chunk));
    if (options.input !== undefined) child.stdin?.end(options.input);
    child.on('error', reject);
    child.on('close', (code) => {
      if (code === 0) resolve(out);
      else reject(new Error(`${command} ${args.join(' ')} ended with ${code}\n${out.slice(-4000)}${err.slice(-4000)}`)); // prettier-ignore
    });
  });
}

/** A port on loopback that nobody listens on at the moment. */
export function freePort() {
  return /** @type {Promise<number>} */ (
    new Promise((resolve, reject) => {
      const server = createServer();
      server.on('error', reject);
      server.listen(0, '127.0.0.1', () => {
        const address = server.address();
        const port = typeof address === 'object' && address ? address.port : 0;
        server.close(() => resolve(port));
      });
    })
  );
}

export function isRunning(/** @type {number} */ pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}

export function writePid(/** @type {string} */ file, /** @type {number | undefined} */ pid) {
  writeFileSync(file, `${pid}\n`);
}

/**
 * Ends a process that an earlier, killed run left behind. It is ours only when its command line holds `mark`,
 * so that a number that has since gone to another process is let be.
 * @returns {Promise<boolean>} whether one was found
 */
export async function clearLeftOver(/** @type {string} */ pidFile, /** @type {string} */ mark) {
  const pid = runningFrom(pidFile, mark);
  if (pid !== null) await stop(pid);
  rmSync(pidFile, { force: true });
  return pid !== null;
}

/** The process that a pid file names, if it still runs and its command line holds `mark`. */
export function runningFrom(/** @type {string} */ pidFile, /** @type {string} */ mark) {
  try {
    const pid = Number(readFileSync(pidFile, 'utf8').trim());
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(mark) ? pid : null;
  } catch {
    return null;
  }
}

/** Until a process that is no child of this one has ended, or nobody cares any more. */
export async function untilEnded(/** @type {number} */ pid, /** @type {() => boolean} */ isOver) {
  while (isRunning(pid) && !isOver()) await sleep(500);
}

/** Asks a process to end, and ends it when it has not done so after `patienceMs`. */
export async function stop(/** @type {number} */ pid, patienceMs = 20_000) {
  const until = Date.now() + patienceMs;
  try {
    process.kill(pid, 'SIGTERM');
    while (isRunning(pid) && Date.now() < until) await sleep(50);
    if (isRunning(pid)) process.kill(pid, 'SIGKILL');
  } catch {
    // Gone already.
  }
}

/**
 * Runs a command with this process's own input and output, and passes an ending signal on.
 * @param {string} command
 * @param {string[]} args
 * @param {{ cwd?: string, env?: NodeJS.ProcessEnv }} [options]
 * @returns {Promise<number>} its exit code
 */
export async function runThrough(command, args, options = {}) {
  const child = spawn(command, args, { ...options, stdio: 'inherit' });
  const pass = (/** @type {NodeJS.Signals} */ signal) => child.kill(signal);
  process.on('SIGTERM', pass);
  process.on('SIGINT', pass);
  try {
    return await new Promise((resolve, reject) => {
      child.on('error', reject);
      child.on('close', (code) => resolve(code ?? 1));
    });
  } finally {
    process.off('SIGTERM', pass);
    process.off('SIGINT', pass);
  }
}
