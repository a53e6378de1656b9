import {
  airLimitSeconds,
  clockState,
  fightLimitSeconds,
  hookAdvice,
  restSeconds,
  sideOf,
  type CatchClock,
  type ClockState,
} from '@lauta/core/care';
import type { CareChoices } from '../care/careChoices.ts';
import { stopwatch } from '@lauta/words/care';
import type { RunningCatch } from './runningCatch.ts';

/** The figure on the clock's face, and how it stands against its limit. */
export interface ClockFigure {
  figure: string;
  seconds: number;
  limitSeconds: number | null;
  state: ClockState | null;
  words: string;
}

/** The one figure that matters in a phase, and how it stands against its limit. */
export function clockFigure(
  clock: CatchClock,
  running: RunningCatch,
  choices: CareChoices,
  sheetAirSeconds: number | null,
): ClockFigure {
  const { phase, airNowMs, restMs, fightMs, totalMs } = clock;
  if (phase === 'air' && airNowMs !== null) {
    const limitSeconds = airLimitSeconds(sideOf('air-time', choices.schools), choices, sheetAirSeconds);
    const seconds = airNowMs / 1000;
    const state = clockState(seconds, limitSeconds);
    const words = { good: `of ${limitSeconds} s`, soon: `of ${limitSeconds} s: lower it`, over: `over ${limitSeconds} s: water now` }; // prettier-ignore
    return { figure: stopwatch(airNowMs), seconds, limitSeconds, state, words: words[state] };
  }
  if (phase === 'fight' && fightMs !== null && running.guessedMassG !== null) {
    const limitSeconds = fightLimitSeconds(running.guessedMassG, choices);
    const seconds = fightMs / 1000;
    const state = clockState(seconds, limitSeconds);
    const words = { good: `of ${stopwatch(1000 * limitSeconds)}`, soon: 'bring it in soon', over: 'longer than a pound a minute' }; // prettier-ignore
    return { figure: stopwatch(fightMs), seconds, limitSeconds, state, words: words[state] };
  }
  if (phase === 'net' && restMs !== null) {
    const advice = hookAdvice(running.hookPlace, running.bleeds);
    const limitSeconds = restSeconds(sideOf('resting', choices.schools), advice, clock.lifts.length);
    if (limitSeconds === null)
      return { figure: stopwatch(restMs), seconds: restMs / 1000, limitSeconds, state: 'good', words: 'lift once it lies still' }; // prettier-ignore
    const isRested = restMs >= 1000 * limitSeconds;
    const words = isRested ? 'rested' : `let it rest ${limitSeconds} s`;
    return { figure: stopwatch(restMs), seconds: restMs / 1000, limitSeconds, state: isRested ? 'good' : 'soon', words }; // prettier-ignore
  }
  const ms = phase === 'fight' ? (fightMs ?? 0) : totalMs;
  return { figure: stopwatch(ms), seconds: ms / 1000, limitSeconds: null, state: null, words: '' };
}
