import jstat from 'jstat';

/** Φ, the standard normal distribution function. */
export function phi(x: number): number {
  // Beyond nine deviations a double has no more to say.
  if (x > FAR) return 1;
  return x < -FAR ? 0 : jstat.jStat.normal.cdf(x, 0, 1);
}

const FAR = 9;

/** The standard normal's quantile, p over 0 and under 1. */
export const probit = (p: number): number => jstat.jStat.normal.inv(p, 0, 1);
