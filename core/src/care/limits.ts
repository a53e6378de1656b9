import { G_PER_POUND, type UnitSystem } from '../units/index.ts';
import type { HookAdvice } from './hazards.ts';
import type { SideOf } from './schools.ts';

/**
 * Limits of the clock. Published work gives directions (longer air and warmer water are worse: Gingerich et al. 2007;
 * under about 10 s where possible: Cook et al. 2015, Fisheries 40:452) and no formula: the figures here are the
 * schools' (common practice), and the shortening by warmth is our own guidance. Never a survival probability.
 */
export interface WaterConditions {
  /** Null where nobody measured. */
  waterCelsius: number | null;
  airCelsius: number | null;
}

const AIR_SECONDS: Record<SideOf<'air-time'>, number> = {
  'six-seconds': 6,
  // A breath held at work; each person's own differs (from memory).
  breath: 15,
  'thirty-seconds': 30,
};

/** Up to here the school's figure holds; from the second on only half of it. */
const WARM_CELSIUS = [20, 28] as const;

/** Share of the school's time that warm water leaves, 1 to 0.5. */
export function warmthShare(waterCelsius: number | null): number {
  if (waterCelsius === null) return 1;
  const [from, to] = WARM_CELSIUS;
  return 1 - 0.5 * Math.min(1, Math.max(0, (waterCelsius - from) / (to - from)));
}

/** Below freezing eyes and gills can freeze: no lift at all (common practice). */
export function isLiftForbidden({ airCelsius }: WaterConditions): boolean {
  return airCelsius !== null && airCelsius < 0;
}

/** From here on a board in the sun is wetted anew before each lift (common practice). */
const HOT_AIR_CELSIUS = 27;

export function isBoardHot({ airCelsius }: WaterConditions): boolean {
  return airCelsius !== null && airCelsius >= HOT_AIR_CELSIUS;
}

/**
 * Seconds that one lift may last.
 * @param bySheetSeconds what the event's rule sheet sets: it holds over every school
 */
export function airLimitSeconds(
  side: SideOf<'air-time'>,
  conditions: WaterConditions,
  bySheetSeconds: number | null = null,
): number {
  if (isLiftForbidden(conditions)) return 0;
  const limit = Math.min(
    bySheetSeconds ?? Infinity,
    AIR_SECONDS[side] * warmthShare(conditions.waterCelsius),
  );
  return Math.max(1, Math.round(limit));
}

/** Guesses for one tap while the fish pulls, g: round numbers of pounds or kilograms. */
export const GUESSED_MASSES_G: Readonly<Record<UnitSystem, readonly number[]>> = {
  us: [1, 2, 4, 6, 9, 14].map((pounds) => pounds * G_PER_POUND),
  metric: [500, 1000, 2000, 3000, 4000, 6000],
};

const FIGHT_SECONDS_PER_POUND = 60;
/** Even the smallest fish takes so long to bring in, s. */
const LEAST_FIGHT_SECONDS = 60;

/** A pound a minute is the upper limit of a fight (common practice); warm water shortens it. */
export function fightLimitSeconds(guessedMassG: number, conditions: WaterConditions): number {
  const seconds =
    (guessedMassG / G_PER_POUND) * FIGHT_SECONDS_PER_POUND * warmthShare(conditions.waterCelsius);
  return Math.max(LEAST_FIGHT_SECONDS, Math.round(seconds));
}

/**
 * Seconds in the net before the next lift, at least. The school of resting lands a fish fresh and lets it recover;
 * the other waits until it lies still, which no clock tells: before the first lift it sets none. After a lift, and for
 * a hurt fish, both rest (common practice, no source).
 * @param advice what hook and blood ask for
 * @param liftsBefore how often it was out of the water already
 */
export function restSeconds(side: SideOf<'resting'>, advice: HookAdvice, liftsBefore: number): number | null {
  return side === 'tire' && advice.mayBeTagged && liftsBefore === 0 ? null : advice.restSeconds;
}

/** How a running time stands against its limit. */
export type ClockState = 'good' | 'soon' | 'over';

const SOON_SHARE = 0.7;

export function clockState(seconds: number, limitSeconds: number): ClockState {
  if (seconds > limitSeconds) return 'over';
  return seconds >= SOON_SHARE * limitSeconds ? 'soon' : 'good';
}

/** So long out of the water nobody keeps a fish on purpose: the clock asks whether the tap was forgotten. */
export const FORGOTTEN_SECONDS = 90;
