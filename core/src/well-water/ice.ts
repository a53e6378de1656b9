import { requireBetween } from './oxygen.ts';

const FUSION_KJ = 333.55;
const WATER_KJ = 4.186;
const ICE_KJ = 2.1;
const WATER_KG_PER_L = 0.997;

/**
 * Ice that cools a well, kg: what melts and is warmed to the well's new temperature takes up what the water gives (heat
 * balance; exact in itself, but for walls, sun and fresh lake water, which it leaves out). Loose ice or sealed bottles.
 * @param iceCelsius at most 0
 */
export function iceKg(volumeL: number, fromCelsius: number, toCelsius: number, iceCelsius = -10): number {
  requireBetween('volumeL', volumeL, 1, 5000);
  requireBetween('fromCelsius', fromCelsius, 0, 45);
  requireBetween('toCelsius', toCelsius, 0, 45);
  requireBetween('iceCelsius', iceCelsius, -40, 0);
  if (toCelsius >= fromCelsius) return 0;
  const given = volumeL * WATER_KG_PER_L * WATER_KJ * (fromCelsius - toCelsius);
  return given / (FUSION_KJ + WATER_KJ * toCelsius + ICE_KJ * -iceCelsius);
}

/** Water warmer than this is cooled (about 75 °F: Gilliland & Schramm 2002; from memory). */
export const WARM_CELSIUS = 24;
/** Never further under the lake's surface than 10 °F (Gilliland & Schramm 2002; from memory). */
export const FURTHEST_CELSIUS = 5.5;
/** As far as 5 °F under it is enough (the same). */
export const ENOUGH_CELSIUS = 2.8;
/** No faster than about a degree in a quarter of an hour. Common practice, no source. */
export const MOST_CELSIUS_PER_HOUR = 4;

export interface CoolingPlan {
  /** Cool to here, °C; null where the lake is cool enough. */
  targetCelsius: number | null;
  iceKg: number;
  /** Spread over so many minutes at least. */
  minutes: number;
  /** The well is colder than is safe under the lake's own temperature: no more ice. */
  isTooCold: boolean;
}

/** How far, how much and how fast. */
export function planCooling(
  volumeL: number,
  lakeCelsius: number,
  wellCelsius: number,
  iceCelsius = -10,
): CoolingPlan {
  const isTooCold = wellCelsius < lakeCelsius - FURTHEST_CELSIUS;
  if (lakeCelsius <= WARM_CELSIUS) return { targetCelsius: null, iceKg: 0, minutes: 0, isTooCold };
  const target = Math.max(WARM_CELSIUS - ENOUGH_CELSIUS, lakeCelsius - ENOUGH_CELSIUS);
  const degrees = Math.max(0, wellCelsius - target);
  return {
    targetCelsius: target,
    iceKg: iceKg(volumeL, Math.max(wellCelsius, target), target, iceCelsius),
    minutes: Math.round((60 * degrees) / MOST_CELSIUS_PER_HOUR),
    isTooCold,
  };
}
