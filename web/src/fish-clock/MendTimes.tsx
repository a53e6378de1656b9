import { useState } from 'react';
import { WATER_STEPS, filledIn, mended, type WaterStep } from '@lauta/core/care';
import { resolveWallTime, wallTimeOf } from '@lauta/core/schedule';
import { appNow } from '../clock/appClock.ts';
import { STEP_WORDS } from '@lauta/words/care';
import type { ChangeCatch, RunningCatch } from './runningCatch.ts';

/** The instant of a wall time `HH:MM:SS` on the date of another instant; null for what is no time. */
export function instantOn(dateOfMs: number, time: string, zone: string): number | null {
  const withSeconds = time.length === 5 ? `${time}:00` : time;
  const resolved = resolveWallTime(`${wallTimeOf(dateOfMs, zone).local.slice(0, 10)}T${withSeconds}`, zone);
  return resolved.ok ? resolved.instantMs : null;
}

const timeOf = (atMs: number, zone: string): string => wallTimeOf(atMs, zone).local.slice(11, 19);

/** The taps of this fish: a time that is wrong is mended, a step that was skipped filled in; both are marked so. */
export function MendTimes({
  running,
  change,
  zone,
}: {
  running: RunningCatch;
  change: ChangeCatch;
  zone: string;
}) {
  const { events } = running;
  const [said, setSaid] = useState<string | null>(null);
  const [step, setStep] = useState<WaterStep>('netted');
  const [time, setTime] = useState('');
  const take = (result: ReturnType<typeof mended> | ReturnType<typeof filledIn>): void => {
    setSaid(result.ok ? null : 'That time does not fit between the others.');
    if (result.ok) change((now) => ({ ...now, events: result.events }));
  };
  const mend = (index: number, typed: string): void => {
    const atMs = instantOn(events[index]?.atMs ?? 0, typed, zone);
    if (atMs !== null) take(mended(events, index, atMs));
  };
  const fill = (): void => {
    const nowMs = appNow().getTime();
    const atMs = instantOn(events[0]?.atMs ?? nowMs, time, zone);
    if (atMs === null) setSaid('Type the time of the step first.');
    else take(filledIn(events, step, atMs, nowMs));
  };
  return (
    <details>
      <summary className="linklike inline-flex min-h-16 items-center">
        Correct a time or add a missed step
      </summary>
      <div className="grid gap-2">
        {events.map((event, i) => (
          <label key={`${i} ${event.step} ${event.atMs}`} className="flex items-center justify-between gap-3">
            <span>
              {STEP_WORDS[event.step]}
              {event.tappedAtMs !== undefined && <span className="text-quiet"> (mended)</span>}
            </span>
            <input
              type="time"
              step={1}
              className="input num h-16 w-40 text-lg"
              defaultValue={timeOf(event.atMs, zone)}
              onBlur={({ currentTarget: { value } }) => {
                if (value !== timeOf(event.atMs, zone)) mend(i, value);
              }}
            />
          </label>
        ))}
        <div className="grid grid-cols-[1fr_10rem] gap-2">
          <select
            aria-label="Step that was skipped"
            className="select h-16 w-full"
            value={step}
            onChange={({ currentTarget: { value } }) =>
              setStep((former) => WATER_STEPS.find((one) => one === value) ?? former)
            }
          >
            {WATER_STEPS.map((one) => (
              <option key={one} value={one}>
                {STEP_WORDS[one]}
              </option>
            ))}
          </select>
          <input
            aria-label="Its time"
            type="time"
            step={1}
            className="input num h-16 w-full text-lg"
            value={time}
            onChange={({ currentTarget: { value } }) => setTime(value)}
          />
        </div>
        <button type="button" className="btn h-16" onClick={fill}>
          Fill it in
        </button>
        {said && <p role="alert">{said}</p>}
      </div>
    </details>
  );
}
