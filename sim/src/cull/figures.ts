import { CULL_METHODS, type CullMethod, type CullTally, type DayOutcome } from './simulateDay.ts';

/** What a way of culling comes to, in the mean of its days. */
export interface MethodFigures {
  /** Share of culls that let a larger fish go. */
  wrongCulls: number;
  /** A day, g. */
  lostG: number;
  /** A day. */
  liftings: number;
  /** A day. */
  hangingSeconds: number;
  /** Fish hung on the beam, a day. */
  hangings: number;
}

export interface QualityFigures extends Record<CullMethod, MethodFigures> {
  calibration: {
    /** Mean squared difference of probability and what came (Brier 1950). */
    brier: number;
    /** What the same score would be if the mean share were said each time. */
    brierOfMean: number;
    table: { from: number; to: number; count: number; said: number; came: number }[];
  };
}

const EDGES = [0, 0.5, 0.6, 0.7, 0.8, 0.9, 0.95, 0.99, 1.0000001];

export function figuresOf(days: readonly DayOutcome[]): QualityFigures {
  const per = (method: CullMethod, of: (tally: CullTally) => number): number =>
    days.reduce((total, { tallies }) => total + of(tallies[method]), 0);
  const methods = Object.fromEntries(
    CULL_METHODS.map((method): [CullMethod, MethodFigures] => [
      method,
      {
        wrongCulls:
          per(method, (one) => one.wrongCulls) /
          Math.max(
            1,
            per(method, (one) => one.culls),
          ),
        lostG: per(method, (one) => one.lostG) / days.length,
        liftings: per(method, (one) => one.liftings) / days.length,
        hangingSeconds: per(method, (one) => one.hangingSeconds) / days.length,
        hangings: per(method, (one) => one.hangings) / days.length,
      },
    ]),
  ) as Record<CullMethod, MethodFigures>;
  return { ...methods, calibration: calibrationOf(days.flatMap(({ odds }) => odds)) };
}

function calibrationOf(odds: DayOutcome['odds']): QualityFigures['calibration'] {
  const mean = (values: readonly number[]): number =>
    values.reduce((total, one) => total + one, 0) / Math.max(1, values.length);
  const came = mean(odds.map(({ isRight }) => Number(isRight)));
  return {
    brier: mean(odds.map(({ probability, isRight }) => (probability - Number(isRight)) ** 2)),
    brierOfMean: came * (1 - came),
    table: EDGES.slice(0, -1).flatMap((from, i) => {
      const to = EDGES[i + 1] ?? 1;
      const within = odds.filter(({ probability }) => probability >= from && probability < to);
      if (within.length === 0) return [];
      return [
        {
          from,
          to: Math.min(1, to),
          count: within.length,
          said: mean(within.map(({ probability }) => probability)),
          came: mean(within.map(({ isRight }) => Number(isRight))),
        },
      ];
    }),
  };
}
