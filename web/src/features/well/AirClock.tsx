import { useState } from 'react';
import { airLimitSeconds, clockState, sideOf } from '@lauta/core/care';
import { appNow, useNow } from '../../clock/appClock.ts';
import { Signal } from '../../ui/Signal.tsx';
import { useCareChoices } from '../../care/careChoices.ts';

/** Longer than any fish lives out of the water: a clock that was forgotten. */
const LONGEST_S = 3600;

export interface AirTime {
  /** When the lift that lasts began, ms since 1970; null in the water. */
  fromMs: number | null;
  /** Whole seconds of the lifts that ended. */
  before: number;
  isTold: boolean;
  toggle: () => void;
  /** Seconds in air until now; null where nobody tapped. */
  seconds: () => number | null;
}

const since = (fromMs: number | null, nowMs: number): number =>
  fromMs === null ? 0 : Math.min(LONGEST_S, Math.max(0, Math.round((nowMs - fromMs) / 1000)));

/** The time that one fish spends out of the well while a panel is open. */
export function useAirTime(): AirTime {
  const [{ fromMs, before, isTold }, set] = useState<{
    fromMs: number | null;
    before: number;
    isTold: boolean;
  }>({ fromMs: null, before: 0, isTold: false });
  const nowMs = (): number => appNow().getTime();
  return {
    fromMs,
    before,
    isTold,
    toggle: () =>
      set((now) =>
        now.fromMs === null
          ? { fromMs: nowMs(), before: now.before, isTold: true }
          : { fromMs: null, before: now.before + since(now.fromMs, nowMs()), isTold: true },
      ),
    seconds: () => (isTold ? Math.min(LONGEST_S, before + since(fromMs, nowMs())) : null),
  };
}

/** A tap when the fish leaves the water, one when it is back; entering what was done is the second one too. */
export function AirClock({ air, limitSeconds }: { air: AirTime; limitSeconds: number | null }) {
  const nowMs = useNow(250).getTime();
  const care = useCareChoices();
  const isOut = air.fromMs !== null;
  const lift = since(air.fromMs, nowMs);
  const limit = airLimitSeconds(sideOf('air-time', care.schools), care, limitSeconds);
  const state = clockState(lift, limit);
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
      <button
        type="button"
        aria-pressed={isOut}
        className={`btn h-16 ${isOut ? 'btn-primary' : ''}`}
        onClick={air.toggle}
      >
        {isOut ? 'Back in the water' : air.isTold ? 'Out of the water again' : 'Out of the water'}
      </button>
      {isOut ? (
        <p role="timer">
          <b className="num text-4xl">{lift}</b> s{' '}
          <Signal tone={state === 'good' ? 'clear' : state === 'soon' ? 'look' : 'fault'}>
            {state === 'over' ? `over ${limit} s: water now` : `of ${limit} s`}
          </Signal>
        </p>
      ) : (
        air.isTold && <p className="text-quiet">{air.before} s in air</p>
      )}
    </div>
  );
}
