/** Says what is done and how long it took. */

export function say(/** @type {string} */ text) {
  process.stdout.write(`${text}\n`);
}

/**
 * Runs one step, with its name before it and its time after it.
 * @template T
 * @param {string} name
 * @param {() => T | Promise<T>} act
 * @returns {Promise<T>}
 */
export async function step(name, act) {
  const from = performance.now();
  try {
    const result = await act();
    say(`  ${name}: ${seconds(from)}`);
    return result;
  } catch (error) {
    say(`  ${name}: failed after ${seconds(from)}`);
    throw error;
  }
}

export function seconds(/** @type {number} */ from) {
  return `${((performance.now() - from) / 1000).toFixed(1)} s`;
}

/** Trouble that a person can mend: told in a sentence, without a stack. */
export class Trouble extends Error {}

/** Ends the process with the sentence of what went wrong. */
export function endWith(/** @type {unknown} */ error) {
  if (error instanceof Trouble) process.stderr.write(`\n${error.message}\n`);
  else process.stderr.write(`\n${error instanceof Error ? error.stack : String(error)}\n`);
  process.exit(1);
}
