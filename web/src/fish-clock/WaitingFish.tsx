import { clockOf } from '@lauta/core/care';
import { useNow } from '../clock/appClock.ts';
import { stopwatch } from '@lauta/words/care';
import type { RunningCatch } from './runningCatch.ts';

/** Fish that wait while another one is on: how long, and a way back to each. */
export function WaitingFish({
  waiting,
  takeUp,
}: {
  waiting: readonly RunningCatch[];
  takeUp: (one: RunningCatch) => void;
}) {
  const nowMs = useNow().getTime();
  return (
    <ul aria-label="Waiting fish" className="grid gap-2">
      {waiting.map((one) => {
        const { restMs, totalMs, phase } = clockOf(one.events, nowMs);
        return (
          <li
            key={one.catchId}
            className="border-warning flex items-center justify-between gap-3 border-l-4 pl-3"
          >
            <span>
              {phase === 'net' ? 'Another waits in the net: ' : 'Another is not done: '}
              <b className="num">{stopwatch(restMs ?? totalMs)}</b>
            </span>
            <button type="button" className="btn h-16" onClick={() => takeUp(one)}>
              Continue with this fish
            </button>
          </li>
        );
      })}
    </ul>
  );
}
