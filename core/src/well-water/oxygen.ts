/**
 * Oxygen in a live well. Saturation: Benson & Krause 1984, Limnology and Oceanography 29:620-632, as in Standard Methods
 * 4500-O and USGS Technical Memorandum 2011.03. Pressure by height: ISO 2533 (standard atmosphere).
 */

const KELVIN = 273.15;

/** Air pressure at a height, atm, in the standard atmosphere. */
export function pressureAtm(altitudeM: number): number {
  requireBetween('altitudeM', altitudeM, -500, 5000);
  return (1 - 2.25577e-5 * altitudeM) ** 5.25588;
}

/**
 * Oxygen at saturation, mg/l.
 * @param celsius of the water, 0 to 40
 * @param salinity practical salinity, about grams of salt in a kilogram, 0 to 40
 * @param atm total pressure, not reduced to sea level
 */
export function saturationMgL(celsius: number, salinity = 0, atm = 1): number {
  requireBetween('celsius', celsius, 0, 40);
  requireBetween('salinity', salinity, 0, 40);
  requireBetween('atm', atm, 0.5, 1.2);
  const t = celsius + KELVIN;
  const atOne = Math.exp(
    -139.34411 +
      1.575701e5 / t -
      6.642308e7 / t ** 2 +
      1.2438e10 / t ** 3 -
      8.621949e11 / t ** 4 -
      salinity * (1.7674e-2 - 10.754 / t + 2140.7 / t ** 2),
  );
  const vapour = Math.exp(11.8571 - 3840.7 / t - 216961 / t ** 2);
  const theta = 0.000975 - 1.426e-5 * celsius + 6.436e-8 * celsius ** 2;
  return (atOne * atm * (1 - vapour / atm) * (1 - theta * atm)) / ((1 - vapour) * (1 - theta));
}

/** Keep above this at all times: Gilliland & Schramm 2002, Keeping Bass Alive. */
export const LEAST_MG_L = 5;

/** A range with its middle: what nobody measured on these fish. */
export interface Range {
  low: number;
  usual: number;
  high: number;
}

/** Multiples of the resting rate that fish just caught may use. Unsure; a person can set others. */
export const USUAL_ACTIVITY: Range = { low: 1, usual: 2, high: 3 };

/**
 * What fish use, mg of oxygen an hour, as an estimate: resting rate of largemouth bass (Rice, Breck, Bartell & Kitchell
 * 1983, Environmental Biology of Fishes 9:263-275, after Beamish 1970; coefficients from memory and not checked against
 * the paper) times an activity.
 */
export function oxygenUseMgPerHour(
  massesG: readonly number[],
  celsius: number,
  activity: Range = USUAL_ACTIVITY,
): Range {
  requireBetween('celsius', celsius, 0, 40);
  const resting = massesG.reduce((sum, massG) => {
    requireBetween('massG', massG, 1, 60_000);
    const gramsAGramADay = 0.00279 * massG ** -0.355 * Math.exp(0.0811 * celsius);
    return sum + (gramsAGramADay * massG * 1000) / 24;
  }, 0);
  return { low: resting * activity.low, usual: resting * activity.usual, high: resting * activity.high };
}

export interface WellWater {
  volumeL: number;
  /** Oxygen now, mg/l. */
  nowMgL: number;
  /** At saturation in the well, mg/l. */
  saturationMgL: number;
  /** Fresh lake water that the pump brings, litres an hour, and its oxygen, mg/l. */
  pumpLPerHour: number;
  lakeMgL: number;
  /** Share of the lack to saturation that aerator and surface make good in an hour. */
  aerationPerHour: number;
}

/** Under so little an hour nothing is exchanged: a well that stands. */
const STANDING = 1e-9;

/**
 * Oxygen after a time at a constant use: the well as one mixed tank, dC/dt = −use/V + Q/V·(lake − C) + k·(saturation − C).
 * Exact for these assumptions; never under zero.
 */
export function oxygenAfter(water: WellWater, useMgPerHour: number, hours: number): number {
  const { volumeL, nowMgL } = water;
  const exchange = water.pumpLPerHour / volumeL;
  const rate = exchange + water.aerationPerHour;
  const gain =
    exchange * water.lakeMgL + water.aerationPerHour * water.saturationMgL - useMgPerHour / volumeL;
  const worked = rate < STANDING ? hours : -Math.expm1(-rate * hours) / rate;
  const after = nowMgL * Math.exp(-rate * hours) + gain * worked;
  return Math.max(0, after);
}

/** Where the oxygen ends when nothing changes, mg/l; null where it falls without end. */
export function oxygenInTheEnd(water: WellWater, useMgPerHour: number): number | null {
  const rate = water.pumpLPerHour / water.volumeL + water.aerationPerHour;
  return rate < STANDING && useMgPerHour > 0 ? null : Math.max(0, oxygenAfter(water, useMgPerHour, 1e6));
}

/** Minutes until the oxygen falls to a line; null where it never does, 0 where it is under it. */
export function minutesUntil(water: WellWater, useMgPerHour: number, lineMgL = LEAST_MG_L): number | null {
  if (water.nowMgL <= lineMgL) return 0;
  const { volumeL, nowMgL } = water;
  const exchange = water.pumpLPerHour / volumeL;
  const rate = exchange + water.aerationPerHour;
  const gain =
    exchange * water.lakeMgL + water.aerationPerHour * water.saturationMgL - useMgPerHour / volumeL;
  if (rate < STANDING) return gain >= 0 ? null : (60 * (nowMgL - lineMgL)) / -gain;
  const end = gain / rate;
  return end >= lineMgL ? null : (60 * Math.log((nowMgL - end) / (lineMgL - end))) / rate;
}

export function requireBetween(name: string, value: number, least: number, most: number): void {
  if (!Number.isFinite(value) || value < least || value > most)
    throw new RangeError(`${name}: expected ${least} to ${most}, got ${value}`);
}
