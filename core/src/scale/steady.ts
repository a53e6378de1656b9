/**
 * When a scale's figure may be taken. As in weighing practice a weight is taken in stable equilibrium only (OIML R 76-1,
 * 4.4.2, and NIST Handbook 44, 2.20, motion detection; from memory, so the numbers here are our own): all readings of
 * the last second and a half lie within one division. A fish that swings pulls twice in each swing, so that the window
 * spans at least two pulls of a fish on a short hook.
 */

/** One reading of the stream. */
export interface ScaleSample {
  atMs: number;
  massG: number;
}

export const STEADY_MS = 1500;
const BAND_DIVISIONS = 1;
/** A stream slower than this tells too little. */
const LEAST_SAMPLES = 6;
/**
 * Under this nothing hangs on it. Our own choice: a wandering zero stays under it, and a small fish on a coarse scale does
 * not. That a scale is meant for loads of twenty divisions and more (OIML R 76-1, from memory) is the standing's business.
 */
const LEAST_LOAD_DIVISIONS = 5;
/** A fish that has not hung still by then is not going to. Our own choice: it has hung long enough. */
export const RESTLESS_MS = 12_000;

export type ScaleState =
  | { kind: 'empty' }
  /** Something hangs on it and moves; `sinceMs` it hangs. */
  | { kind: 'moving'; sinceMs: number }
  /** It may be taken. */
  | { kind: 'steady'; massG: number }
  /** It does not settle: the middle of its readings, and how far they scatter (one standard deviation). */
  | { kind: 'restless'; massG: number; scatterG: number };

/** What the stream of a scale says now. Samples in order; only those since something hangs on it matter. */
export function scaleState(samples: readonly ScaleSample[], divisionG: number): ScaleState {
  const last = samples.at(-1);
  const least = LEAST_LOAD_DIVISIONS * divisionG;
  if (!last || last.massG < least) return { kind: 'empty' };
  const from = samples.findLastIndex(({ massG }) => massG < least) + 1;
  const loaded = samples.slice(from);
  const sinceMs = loaded[0]?.atMs ?? last.atMs;
  const recent = loaded.filter(({ atMs }) => atMs > last.atMs - STEADY_MS);
  const masses = recent.map(({ massG }) => massG).sort((a, b) => a - b);
  const isLong = last.atMs - sinceMs >= STEADY_MS && recent.length >= LEAST_SAMPLES;
  const range = (masses.at(-1) ?? 0) - (masses[0] ?? 0);
  // Shown figures are whole divisions, written with few decimals: half a division keeps that from counting as motion.
  if (isLong && range < (BAND_DIVISIONS + 0.5) * divisionG)
    return { kind: 'steady', massG: toDivision(median(masses), divisionG) };
  if (last.atMs - sinceMs < RESTLESS_MS) return { kind: 'moving', sinceMs };
  const all = loaded.slice(-Math.max(LEAST_SAMPLES, recent.length * 3)).map(({ massG }) => massG);
  const mean = all.reduce((sum, one) => sum + one, 0) / all.length;
  const variance = all.reduce((sum, one) => sum + (one - mean) ** 2, 0) / Math.max(1, all.length - 1);
  return { kind: 'restless', massG: toDivision(mean, divisionG), scatterG: Math.sqrt(variance) };
}

const median = (sorted: readonly number[]): number => sorted[sorted.length >> 1] ?? 0;
const toDivision = (massG: number, divisionG: number): number => Math.round(massG / divisionG) * divisionG;
