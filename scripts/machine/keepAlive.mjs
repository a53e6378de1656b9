// Starts something again when it has ended by itself, each time after a longer wait, and says so.
import { setTimeout as sleep } from 'node:timers/promises';
import { say } from './say.mjs';

const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 30_000;
/** Whatever ran so long has not failed at its start. */
const GOOD_MS = 60_000;

/**
 * @template T
 * @param {{ name: string, first: T, ended: (running: T) => Promise<unknown>, start: () => Promise<T>,
 *   isOver: () => boolean }} options
 * @returns {{ current: () => T }} whatever runs now
 */
export function keepAlive({ name, first, ended, start, isOver }) {
  let current = first;
  const watch = async () => {
    let waitMs = FIRST_WAIT_MS;
    for (;;) {
      const from = Date.now();
      await ended(current);
      if (isOver()) return;
      if (Date.now() - from > GOOD_MS) waitMs = FIRST_WAIT_MS;
      for (;;) {
        say(`${name} has ended by itself; it is started again in ${(waitMs / 1000).toFixed(1)} s.`);
        await sleep(waitMs);
        if (isOver()) return;
        waitMs = Math.min(LONGEST_WAIT_MS, waitMs * 2);
        try {
          current = await start();
          say(`${name} runs again.`);
          break;
        } catch (error) {
          say(error instanceof Error ? error.message : String(error));
        }
      }
    }
  };
  void watch();
  return { current: () => current };
}
