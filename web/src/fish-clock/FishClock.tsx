import { useCallback, useEffect, useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import {
  FORGOTTEN_SECONDS,
  clockOf,
  isLiftForbidden,
  returnedInTime,
  tapped,
  untapped,
  type CatchClock,
  type ClockState,
  type WaterStep,
} from '@lauta/core/care';
import type { RuleSheet } from '@lauta/core/rules';
import { appNow, useNow } from '../clock/appClock.ts';
import { Signal } from '../ui/Signal.tsx';
import type { Tone } from '@lauta/words/tone';
import { useCareChoices, type CareChoices } from '../care/careChoices.ts';
import { giveHint } from '../care/giveHint.ts';
import { PHASE_WORDS, STEP_WORDS, stopwatch } from '@lauta/words/care';
import { ClockAdvice } from './ClockAdvice.tsx';
import { ClockTaps, DOCKED } from './ClockTaps.tsx';
import { useCommands } from '../camera/spokenCommands.ts';
import { clockFigure } from './clockFigure.ts';
import { FishQuestions } from './FishQuestions.tsx';
import { MendTimes } from './MendTimes.tsx';
import { LimitBar } from './LimitBar.tsx';
import { freshCatch, type ChangeCatch, type RunningCatch } from './runningCatch.ts';
import { VitalityTaps } from './VitalityTaps.tsx';
import { countWords } from '@lauta/words/count';
import type { SpeciesId } from '@lauta/core/ids';

const TICK_MS = 250;
/** Two taps within this are one. */
const BOUNCE_MS = 400;
/** After so many the count says nothing that the state has not said. */
const MOST_SECONDS_TOLD = 40;
const TONE: Record<ClockState, Tone> = { good: 'clear', soon: 'look', over: 'fault' };

const undone = (now: RunningCatch): RunningCatch => ({ ...now, events: untapped(now.events) });

interface ClockProps {
  running: RunningCatch;
  change: ChangeCatch;
  /** Begins with a fish of its own. */
  begin: (next: RunningCatch) => void;
  sheet: Pick<RuleSheet, 'species' | 'airSeconds' | 'measure'>;
  speciesId: SpeciesId;
  onSpecies: (speciesId: SpeciesId) => void;
  /** IANA zone of the times that are mended. */
  zone: string;
  compact?: boolean;
  /** Another main action has the screen: the next step stands beside it, plainer. */
  isSecond?: boolean;
  /** For a fish of which nothing is to be kept. */
  awayWords?: string;
  /** False where the usual lines of advice do not fit what is done. */
  advises?: boolean;
  /** What belongs right under the clock's face. */
  underFace?: ReactNode;
  /** A second fish is hooked while this one waits in the net. */
  onAnother?: () => void;
  /** Told where the live camera's shutter may stand: beside the taps, under the thumb. */
  setShutterPlace?: (place: HTMLElement | null) => void;
  /** Ways to a photograph, above the taps. */
  children?: ReactNode;
}

/** The clock of the fish that is on, and the one tap that comes next; `compact` leaves room for the bench. */
export function FishClock({
  running,
  change,
  begin,
  sheet,
  speciesId,
  onSpecies,
  zone,
  compact = false,
  isSecond = false,
  setShutterPlace,
  onAnother,
  awayWords = 'Discard, no claim',
  advises = true,
  underFace,
  children,
}: ClockProps) {
  const choices = useCareChoices();
  const nowMs = useNow(TICK_MS).getTime();
  const [note, setNote] = useState<string | null>(null);
  const isBounce = useBounceGuard();
  const { events } = running;
  const clock = clockOf(events, nowMs);
  const shown = clockFigure(clock, running, choices, sheet.airSeconds ?? null);
  useSpokenState(shown.state, shown.words, choices);
  useSpokenSeconds(clock.airNowMs, shown.state, choices);

  const top = useTopAfterTap(events.length, compact);

  const tap = (step: WaterStep): void => {
    // The next step's button comes to lie where this one was: a thumb that bounces must not take both.
    if (isBounce()) return;
    const atMs = appNow().getTime();
    if (!tapped(events, step, atMs).ok) return;
    setNote(null);
    change((now) => {
      const done = tapped(now.events, step, atMs);
      return done.ok ? { ...now, events: done.events } : now;
    });
    if (choices.hints.speech) giveHint(choices.hints, { beeps: 0, words: STEP_WORDS[step] });
  };
  const isBarred = (step: WaterStep): boolean => step === 'lifted' && isLiftForbidden(choices);
  useCommands((command) => {
    if (command === 'undo') change(undone);
    else if (command !== 'photograph' && !isBarred(command)) tap(command);
  });
  const isForgotten = clock.airNowMs !== null && clock.airNowMs > 1000 * FORGOTTEN_SECONDS;
  return (
    <section
      ref={top}
      aria-label="The clock of this fish"
      className={`grid scroll-mt-32 gap-3 ${clock.phase === 'idle' ? DOCKED : ''}`}
    >
      {clock.phase !== 'idle' && <ClockFace clock={clock} shown={shown} compact={compact} />}
      {isForgotten && (
        <ForgottenLift
          limitSeconds={shown.limitSeconds ?? 0}
          change={change}
          onMended={() => setNote('The end of the lift was set to the limit, and is marked as mended.')}
        />
      )}
      {note && <p role="status">{note}</p>}
      {underFace}
      {/* Out of the water nothing comes before the photograph. */}
      {clock.phase === 'air' && children}
      {!compact && (
        <AroundTheClock
          {...{ clock, running, change, sheet, speciesId, onSpecies, choices, zone }}
          advises={advises && choices.hints.advice}
        />
      )}
      {clock.phase !== 'air' && children}
      <ClockTaps
        running={running}
        clock={clock}
        isBarred={isBarred}
        isSecond={isSecond}
        awayWords={awayWords}
        tap={tap}
        undo={() => {
          setNote(null);
          change(undone);
        }}
        putAway={() => begin(freshCatch())}
        {...(onAnother ? { onAnother } : {})}
        {...(setShutterPlace ? { setShutterPlace } : {})}
      />
    </section>
  );
}

/**
 * After a tap the page is another one: the clock is brought into view once that is laid out, not before. A small clock
 * that comes anew stands over a bench that has just taken the screen.
 */
function useTopAfterTap(taps: number, compact: boolean) {
  const top = useRef<HTMLElement | null>(null);
  const laidOut = useRef(compact ? -1 : taps);
  useLayoutEffect(() => {
    if (laidOut.current === taps) return;
    laidOut.current = taps;
    const toTop = (): void => top.current?.scrollIntoView({ block: 'start' });
    toTop();
    // What opens with the step, such as the camera, is laid out a frame later.
    const frame = requestAnimationFrame(toTop);
    return () => cancelAnimationFrame(frame);
  }, [taps]);
  return top;
}

function ClockFace({
  clock,
  shown,
  compact,
}: {
  clock: CatchClock;
  shown: ReturnType<typeof clockFigure>;
  compact: boolean;
}) {
  return (
    <div className="border-base-content border-l-8 pl-3">
      <div className="flex items-baseline justify-between gap-4">
        <h2>{PHASE_WORDS[clock.phase]}</h2>
        <span className="text-quiet num">
          {clock.lifts.length > 0 &&
            `${countWords(clock.lifts.length, 'lift', 'lifts')}, ${stopwatch(clock.airTotalMs)} in air · `}
          total {stopwatch(clock.totalMs)}
        </span>
      </div>
      <p className="flex flex-wrap items-baseline gap-x-4">
        <b className={`num leading-none ${compact ? 'text-4xl' : 'text-7xl'}`}>{shown.figure}</b>
        {shown.state && <Signal tone={TONE[shown.state]}>{shown.words}</Signal>}
      </p>
      {shown.limitSeconds !== null && (
        <LimitBar seconds={shown.seconds} limitSeconds={shown.limitSeconds} state={shown.state ?? 'good'} />
      )}
    </div>
  );
}

function ForgottenLift({
  limitSeconds,
  change,
  onMended,
}: {
  limitSeconds: number;
  change: ChangeCatch;
  onMended: () => void;
}) {
  return (
    <div role="alert" className="border-error grid gap-2 border-l-4 pl-3">
      <p>
        <b>Is it back in the water?</b> The lift was never ended.
      </p>
      <button
        type="button"
        className="btn h-16"
        onClick={() => {
          const atMs = appNow().getTime();
          change((now) => ({
            ...now,
            events: returnedInTime(now.events, atMs, limitSeconds),
          }));
          onMended();
        }}
      >
        Yes, in time: I forgot to tap
      </button>
    </div>
  );
}

/** Advice for the phase, what is asked of the fish in it, and how a time is put right. */
function AroundTheClock({
  clock,
  running,
  change,
  sheet,
  speciesId,
  onSpecies,
  choices,
  zone,
  advises,
}: Pick<ClockProps, 'running' | 'change' | 'sheet' | 'speciesId' | 'onSpecies' | 'zone'> & {
  clock: CatchClock;
  choices: CareChoices;
  advises: boolean;
}) {
  const { phase } = clock;
  return (
    <>
      {advises && <ClockAdvice clock={clock} running={running} choices={choices} />}
      {(phase === 'fight' || phase === 'net') && (
        <FishQuestions {...{ clock, running, change, sheet, speciesId, onSpecies, choices }} />
      )}
      {phase === 'net' && (
        <details>
          <summary className="linklike inline-flex min-h-16 items-center lg:min-h-11">
            Is it ready to go?
          </summary>
          <VitalityTaps running={running} change={change} />
        </details>
      )}
      {phase === 'over' && running.events.at(-1)?.step === 'released' && (
        <VitalityTaps running={running} change={change} />
      )}
      {(phase === 'net' || phase === 'over') && <MendTimes running={running} change={change} zone={zone} />}
    </>
  );
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

/** Counts the seconds of a lift aloud: eyes and hands are at the fish. A state that changes is told instead. */
function useSpokenSeconds(airNowMs: number | null, state: ClockState | null, { hints }: CareChoices): void {
  const second = airNowMs === null ? null : Math.floor(airNowMs / 1000);
  const told = useRef({ second, state });
  useEffect(() => {
    const former = told.current;
    if (former.second === second) return;
    told.current = { second, state };
    const isTold = second === null || second === 0 || second > MOST_SECONDS_TOLD;
    if (!isTold && former.state === state) giveHint(hints, { beeps: 0, words: String(second) });
  }, [second, state, hints]);
}

/** Tells a state when it changes, and only then: a clock that talks all the time is not heard. */
function useSpokenState(state: ClockState | null, words: string, { hints }: CareChoices): void {
  const told = useRef(state);
  useEffect(() => {
    if (told.current === state) return;
    told.current = state;
    if (state) giveHint(hints, { beeps: state === 'over' ? 2 : state === 'soon' ? 1 : 0, words });
  }, [state, words, hints]);
}
