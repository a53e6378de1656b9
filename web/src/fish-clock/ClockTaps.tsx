import { mainStep, nextSteps, type CatchClock, type WaterStep } from '@lauta/core/care';
import { STEP_WORDS } from '@lauta/words/care';
import type { RunningCatch } from './runningCatch.ts';

/** At the screen’s lower edge, under the thumb; before a fish is on that is the whole clock. */
export const DOCKED =
  'bg-base-100 border-base-300 max-lg:sticky max-lg:bottom-16 max-lg:z-10 max-lg:-mx-4 max-lg:border-t max-lg:px-4 max-lg:py-3';
const SMALL = 'btn h-16 px-1 text-sm leading-tight';

/** The one tap that comes next, and beside it the rarer ones. */
export function ClockTaps({
  running,
  clock,
  isBarred,
  isSecond,
  awayWords,
  tap,
  undo,
  putAway,
  onAnother,
  setShutterPlace,
}: {
  running: RunningCatch;
  clock: CatchClock;
  /** A school does not allow it. */
  isBarred: (step: WaterStep) => boolean;
  isSecond: boolean;
  awayWords: string;
  tap: (step: WaterStep) => void;
  undo: () => void;
  putAway: () => void;
  onAnother?: () => void;
  setShutterPlace?: (place: HTMLElement | null) => void;
}) {
  const { events } = running;
  const main = mainStep(events);
  const isFilmed = setShutterPlace !== undefined && clock.phase === 'air';
  const others = nextSteps(events).filter((step) => step !== main && !(isFilmed && step === 'released'));
  return (
    <div className={`grid gap-2 ${clock.phase === 'idle' ? '' : DOCKED}`}>
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
            onClick={undo}
          >
            Undo
          </button>
        )}
        {onAnother && clock.phase === 'net' && (
          <button type="button" className={SMALL} onClick={onAnother}>
            Another fish on
          </button>
        )}
        {isFilmed && <div ref={setShutterPlace} className="grid min-w-0" />}
        {clock.phase === 'over' && !running.isClaimed && (
          <button type="button" className={SMALL} onClick={putAway}>
            {awayWords}
          </button>
        )}
      </div>
      {main && (
        <button
          type="button"
          className={`btn main-action ${isSecond ? '' : 'btn-primary'}`}
          disabled={isBarred(main)}
          onClick={() => tap(main)}
        >
          {wordsFor(main, clock)}
        </button>
      )}
    </div>
  );
}

function wordsFor(step: WaterStep, { lifts }: CatchClock): string {
  return step === 'lifted' && lifts.length > 0 ? 'Lift again' : STEP_WORDS[step];
}
