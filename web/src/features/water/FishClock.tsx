import { useCallback, useEffect, useRef, useState, type ReactNode } from 'react';
import {
  FORGOTTEN_SECONDS,
  FREE_TREBLE,
  GUESSED_POUNDS,
  G_PER_POUND,
  HAZARD_CAUTION,
  HOOK_PLACES,
  UNHOOKING,
  airLimitSeconds,
  clockOf,
  clockVerdict,
  fightLimitSeconds,
  hazardOf,
  hookAdvice,
  isBoardHot,
  isLiftForbidden,
  mended,
  nextSteps,
  sideOf,
  tapped,
  untapped,
  type CatchClock,
  type ClockVerdict,
  type WaterStep,
} from '@lauta/core/care';
import type { RuleSheet } from '@lauta/core/rules';
import { appNow, useNow } from '../../clock/appClock.ts';
import { Signal, type Tone } from '../../frame/Signal.tsx';
import { changeCareChoices, useCareChoices, type CareChoices } from '../care/choices.ts';
import { giveHint } from '../care/giveHint.ts';
import { HOOK_WORDS, PHASE_WORDS, STEP_WORDS, stopwatch } from '../care/words.ts';
import { LimitBar } from './LimitBar.tsx';
import { NO_FISH, type RunningCatch } from './runningCatch.ts';
import { SchoolLines } from './SchoolLines.tsx';
import { VitalityTaps } from './VitalityTaps.tsx';

const TICK_MS = 250;
/** Two taps within this are one. */
const BOUNCE_MS = 400;
const SMALL = 'btn h-16 px-1 text-sm leading-tight';
const TONE: Record<ClockVerdict, Tone> = { good: 'clear', soon: 'look', over: 'fault' };

/** The clock of the fish that is on, and the one tap that comes next; `compact` leaves room for the bench. */
export function FishClock({
  running,
  put,
  sheet,
  speciesId,
  onSpecies,
  compact = false,
  children,
}: {
  running: RunningCatch;
  put: (next: RunningCatch) => void;
  sheet: RuleSheet;
  speciesId: string;
  onSpecies: (speciesId: string) => void;
  compact?: boolean;
  /** Ways to a photograph, above the taps. */
  children?: ReactNode;
}) {
  const choices = useCareChoices();
  const nowMs = useNow(TICK_MS).getTime();
  const [note, setNote] = useState<string | null>(null);
  const isBounce = useBounceGuard();
  const top = useRef<HTMLElement | null>(null);
  const { events } = running;
  const clock = clockOf(events, nowMs);
  const shown = figureOf(clock, running, choices);
  useSpokenVerdict(shown.verdict, shown.words, choices);

  const tap = (step: WaterStep): void => {
    // The next step's button comes to lie where this one was: a thumb that bounces must not take both.
    if (isBounce()) return;
    const done = tapped(events, step, appNow().getTime());
    if (!done.ok) return;
    setNote(null);
    put({ ...running, events: done.events });
    top.current?.scrollIntoView({ block: 'start' });
    if (choices.hints.speech) giveHint(choices.hints, { beeps: 0, words: STEP_WORDS[step] });
  };
  const isBarred = (step: WaterStep): boolean => step === 'lifted' && isLiftForbidden(choices);
  const [main, ...others] = stepsInOrder(events.at(-1)?.step, nextSteps(events));
  const isForgotten = clock.airNowMs !== null && clock.airNowMs > 1000 * FORGOTTEN_SECONDS;
  return (
    <section ref={top} aria-label="The clock of this fish" className="grid scroll-mt-32 gap-3">
      {clock.phase !== 'idle' && (
        <div className="border-base-content border-l-8 pl-3">
          <div className="flex items-baseline justify-between gap-4">
            <h2>{PHASE_WORDS[clock.phase]}</h2>
            <span className="text-quiet num">
              {clock.lifts.length > 0 &&
                `${clock.lifts.length} ${clock.lifts.length === 1 ? 'lift' : 'lifts'}, ${stopwatch(clock.airTotalMs)} in air · `}
              total {stopwatch(clock.totalMs)}
            </span>
          </div>
          <p className="flex flex-wrap items-baseline gap-x-4">
            <b className={`num leading-none ${compact ? 'text-4xl' : 'text-7xl'}`}>{shown.figure}</b>
            {shown.verdict && <Signal tone={TONE[shown.verdict]}>{shown.words}</Signal>}
          </p>
          {shown.limitSeconds !== null && (
            <LimitBar
              seconds={shown.seconds}
              limitSeconds={shown.limitSeconds}
              verdict={shown.verdict ?? 'good'}
            />
          )}
        </div>
      )}
      {isForgotten && (
        <div role="alert" className="border-error grid gap-2 border-l-4 pl-3">
          <p>
            <b>Is it back in the water?</b> The lift was never ended.
          </p>
          <button
            type="button"
            className="btn h-16"
            onClick={() => {
              const done = tapped(events, 'returned', appNow().getTime());
              const lifted = events.at(-1);
              if (!done.ok || !lifted) return;
              const limitMs = 1000 * (shown.limitSeconds ?? 0);
              const set = mended(done.events, done.events.length - 1, lifted.atMs + limitMs);
              if (set.ok) put({ ...running, events: set.events });
              setNote('The end of the lift was set to the limit, and is marked as mended.');
            }}
          >
            Yes, in time: I forgot to tap
          </button>
        </div>
      )}
      {note && <p role="status">{note}</p>}
      {/* Out of the water nothing comes before the photograph. */}
      {clock.phase === 'air' && children}
      {!compact && choices.hints.advice && <Advice clock={clock} running={running} choices={choices} />}
      {!compact && (clock.phase === 'fight' || clock.phase === 'net') && (
        <Questions {...{ clock, running, put, sheet, speciesId, onSpecies, choices }} />
      )}
      {!compact && clock.phase === 'over' && events.at(-1)?.step === 'released' && (
        <VitalityTaps running={running} put={put} />
      )}
      {clock.phase !== 'air' && children}
      <div
        className={
          clock.phase === 'idle'
            ? 'grid gap-2'
            : 'bg-base-100 border-base-300 grid gap-2 max-lg:sticky max-lg:bottom-16 max-lg:z-10 max-lg:-mx-4 max-lg:border-t max-lg:px-4 max-lg:py-3'
        }
      >
        <div className="grid auto-cols-fr grid-flow-col gap-2">
          {others.map((step) => (
            <button
              key={step}
              type="button"
              className={SMALL}
              disabled={isBarred(step)}
              onClick={() => tap(step)}
            >
              {wordsFor(step, clock)}
            </button>
          ))}
          {events.length > 0 && (
            <button
              type="button"
              className={SMALL}
              aria-label={`Undo “${STEP_WORDS[events.at(-1)?.step ?? 'hooked']}”`}
              onClick={() => {
                setNote(null);
                put({ ...running, events: untapped(events) });
              }}
            >
              Undo
            </button>
          )}
          {clock.phase === 'over' && (
            <button type="button" className={SMALL} onClick={() => put(NO_FISH)}>
              Put away, no claim
            </button>
          )}
        </div>
        {main && (
          <button
            type="button"
            className="btn btn-primary main-action"
            disabled={isBarred(main)}
            onClick={() => tap(main)}
          >
            {wordsFor(main, clock)}
          </button>
        )}
      </div>
    </section>
  );
}

function wordsFor(step: WaterStep, { lifts }: CatchClock): string {
  return step === 'lifted' && lifts.length > 0 ? 'Lift again' : STEP_WORDS[step];
}

/** The tap that comes next by the order of the work, then the others. */
function stepsInOrder(last: WaterStep | undefined, steps: readonly WaterStep[]): readonly WaterStep[] {
  // Before a fish is on there is one button; a lift without a hook-up still has a way in beside it.
  const usual: Partial<Record<WaterStep, WaterStep>> = { hooked: 'netted', netted: 'lifted', lifted: 'returned', returned: 'released' }; // prettier-ignore
  const main = last ? usual[last] : 'hooked';
  return main && steps.includes(main) ? [main, ...steps.filter((step) => step !== main)] : steps;
}

interface Figure {
  figure: string;
  seconds: number;
  limitSeconds: number | null;
  verdict: ClockVerdict | null;
  words: string;
}

/** The one figure that matters in a phase, and how it stands against its limit. */
function figureOf(clock: CatchClock, running: RunningCatch, choices: CareChoices): Figure {
  const { phase, airNowMs, restMs, fightMs, totalMs } = clock;
  if (phase === 'air' && airNowMs !== null) {
    const limitSeconds = airLimitSeconds(sideOf('air-time', choices.schools), choices);
    const seconds = airNowMs / 1000;
    const verdict = clockVerdict(seconds, limitSeconds);
    const words = { good: `of ${limitSeconds} s`, soon: `of ${limitSeconds} s: lower it`, over: `over ${limitSeconds} s: water now` }; // prettier-ignore
    return { figure: stopwatch(airNowMs), seconds, limitSeconds, verdict, words: words[verdict] };
  }
  if (phase === 'fight' && fightMs !== null && running.guessedMassG !== null) {
    const limitSeconds = fightLimitSeconds(running.guessedMassG, choices);
    const seconds = fightMs / 1000;
    const verdict = clockVerdict(seconds, limitSeconds);
    const words = { good: `of ${stopwatch(1000 * limitSeconds)}`, soon: 'bring it in soon', over: 'longer than a pound a minute' }; // prettier-ignore
    return { figure: stopwatch(fightMs), seconds, limitSeconds, verdict, words: words[verdict] };
  }
  if (phase === 'net' && restMs !== null) {
    const limitSeconds = hookAdvice(running.hookPlace, running.bleeds).restSeconds;
    const isRested = restMs >= 1000 * limitSeconds;
    const words = isRested ? 'rested' : `let it rest ${limitSeconds} s`;
    return { figure: stopwatch(restMs), seconds: restMs / 1000, limitSeconds, verdict: isRested ? 'good' : 'soon', words }; // prettier-ignore
  }
  const ms = phase === 'fight' ? (fightMs ?? 0) : totalMs;
  return { figure: stopwatch(ms), seconds: ms / 1000, limitSeconds: null, verdict: null, words: '' };
}

/** Whether a tap follows so soon on the last one that it is the same thumb's. */
function useBounceGuard(): () => boolean {
  const lastMs = useRef(-Infinity);
  return useCallback(() => {
    const nowMs = performance.now();
    const isBounce = nowMs - lastMs.current < BOUNCE_MS;
    if (!isBounce) lastMs.current = nowMs;
    return isBounce;
  }, []);
}

/** Tells a verdict when it changes, and only then: a clock that talks all the time is not heard. */
function useSpokenVerdict(verdict: ClockVerdict | null, words: string, { hints }: CareChoices): void {
  const told = useRef(verdict);
  useEffect(() => {
    if (told.current === verdict) return;
    told.current = verdict;
    if (verdict) giveHint(hints, { beeps: verdict === 'over' ? 2 : verdict === 'soon' ? 1 : 0, words });
  }, [verdict, words, hints]);
}

function Advice({
  clock,
  running,
  choices,
}: {
  clock: CatchClock;
  running: RunningCatch;
  choices: CareChoices;
}) {
  const lines: ReactNode[] = [];
  if (clock.phase === 'net') {
    if (isLiftForbidden(choices))
      lines.push(<b key="frost">Air below freezing: no lift. Eyes and gills freeze; measure it in the water or let it go.</b>); // prettier-ignore
    if (isBoardHot(choices)) lines.push('Hot day: pour water over the board again before this lift.');
    lines.push('Ready before the lift: board wet, card down, camera open, hands wet.');
    for (const words of hookAdvice(running.hookPlace, running.bleeds).words) lines.push(words);
  }
  return (
    <>
      {lines.length > 0 && (
        <ul className="grid gap-1">
          {lines.map((line, i) => (
            <li key={i}>{line}</li>
          ))}
        </ul>
      )}
      {clock.phase === 'fight' && <SchoolLines place="landing" />}
      {clock.phase === 'net' && <SchoolLines place="lift" />}
      {clock.phase === 'air' && <SchoolLines place="photographs" />}
      {clock.phase === 'over' && <SchoolLines place="release" />}
    </>
  );
}

function Questions({
  clock,
  running,
  put,
  sheet,
  speciesId,
  onSpecies,
  choices,
}: {
  clock: CatchClock;
  running: RunningCatch;
  put: (next: RunningCatch) => void;
  sheet: RuleSheet;
  speciesId: string;
  onSpecies: (speciesId: string) => void;
  choices: CareChoices;
}) {
  const [isTreble, setTreble] = useState(false);
  const name = sheet.species.find((one) => one.id === speciesId)?.name ?? '';
  const hazard = hazardOf(name);
  return (
    <>
      <Row label="Its kind">
        {sheet.species.map((one) => (
          <Pick key={one.id} isOn={one.id === speciesId} onPick={() => onSpecies(one.id)}>
            {one.name}
          </Pick>
        ))}
        <Pick isOn={isTreble} onPick={() => setTreble(!isTreble)}>
          treble swings free
        </Pick>
      </Row>
      {(hazard || isTreble) && (
        <div className="border-warning grid gap-1 border-l-4 pl-3">
          {isTreble && (
            <p>
              <b>{FREE_TREBLE.hazard}</b> {FREE_TREBLE.hold}
            </p>
          )}
          {hazard && (
            <>
              <p>
                <b>{hazard.hazard}</b>
              </p>
              <p>{hazard.hold}</p>
              <details>
                <summary className="linklike inline-flex min-h-11 items-center">
                  Holds, tools and unhooking
                </summary>
                <ul className="ml-5 list-disc">
                  <li>{hazard.never}</li>
                  <li>Lies ready: {hazard.tools.join(', ')}.</li>
                  {UNHOOKING[running.hookPlace ?? 'lip'].map((step) => (
                    <li key={step}>{step}</li>
                  ))}
                  <li className="text-quiet">{HAZARD_CAUTION}</li>
                </ul>
              </details>
            </>
          )}
        </div>
      )}
      {clock.phase === 'fight' && (
        <Row label="About how heavy, lb">
          {GUESSED_POUNDS.map((pounds) => (
            <Pick
              key={pounds}
              isOn={running.guessedMassG === pounds * G_PER_POUND}
              onPick={() => put({ ...running, guessedMassG: pounds * G_PER_POUND })}
            >
              {pounds}
            </Pick>
          ))}
        </Row>
      )}
      {clock.phase === 'net' && (
        <Row label="The hook sits">
          {HOOK_PLACES.map((place) => (
            <Pick
              key={place}
              isOn={running.hookPlace === place}
              onPick={() => put({ ...running, hookPlace: running.hookPlace === place ? null : place })}
            >
              {HOOK_WORDS[place]}
            </Pick>
          ))}
          <Pick isOn={running.bleeds} onPick={() => put({ ...running, bleeds: !running.bleeds })}>
            it bleeds
          </Pick>
        </Row>
      )}
      <details>
        <summary className="linklike inline-flex min-h-11 items-center">
          Water {choices.waterCelsius ?? '–'} °C, air {choices.airCelsius ?? '–'} °C
        </summary>
        <div className="flex gap-4">
          <Celsius
            label="water, °C"
            value={choices.waterCelsius}
            onChange={(waterCelsius) => changeCareChoices({ waterCelsius })}
          />
          <Celsius
            label="air, °C"
            value={choices.airCelsius}
            onChange={(airCelsius) => changeCareChoices({ airCelsius })}
          />
        </div>
      </details>
    </>
  );
}

function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <fieldset>
      <legend className="text-quiet">{label}</legend>
      <div className="flex flex-wrap gap-2">{children}</div>
    </fieldset>
  );
}

function Pick({ isOn, onPick, children }: { isOn: boolean; onPick: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      className={`btn h-16 min-w-16 ${isOn ? 'btn-primary' : ''}`}
      onClick={onPick}
    >
      {children}
    </button>
  );
}

function Celsius({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number | null;
  onChange: (value: number | null) => void;
}) {
  return (
    <label className="grid">
      <span className="text-quiet">{label}</span>
      <input
        type="number"
        inputMode="decimal"
        min={-40}
        max={60}
        step={0.5}
        className="input h-16 w-28 text-xl"
        defaultValue={value ?? ''}
        onChange={(change) => {
          const { valueAsNumber } = change.currentTarget;
          if (change.currentTarget.validity.valid)
            onChange(Number.isNaN(valueAsNumber) ? null : valueAsNumber);
        }}
      />
    </label>
  );
}
