import {
  LEAST_MG_L,
  minutesUntil,
  oxygenAfter,
  oxygenInTheEnd,
  oxygenUseMgPerHour,
  planCooling,
  pressureAtm,
  saturationMgL,
  unionisedShare,
  type CoolingPlan,
  type Range,
  type WellWater,
} from '@lauta/core/well-water';
import type { LiveWell } from '@lauta/core/well';
import type { WellChoices } from './wellChoices.ts';

export interface Forecast {
  saturationMgL: number;
  use: Range;
  /** Minutes until 5 mg/l with everything off: by the highest and the lowest use; null is never. */
  minutesOff: { low: number | null; high: number | null };
  /** Where it ends with the pump on, by the highest and lowest use, mg/l. */
  endsOn: { low: number | null; high: number | null };
  /** Points of two hours: pump off and on, each by the highest and the lowest use. */
  curve: { minute: number; offLow: number; offHigh: number; onLow: number; onHigh: number }[];
  cooling: CoolingPlan;
  /** Un-ionised ammonia, mg/l; null where it was not measured. */
  unionisedMgL: number | null;
}

const MINUTES = 120;
const STEP_MINUTES = 5;
/** Salt of a per cent is ten grams in a kilogram. */
const SALINITY_PER_PERCENT = 10;

/** Everything the page shows, from what a person said of the well and what the fish aboard weigh. */
export function forecastOf(well: WellChoices, massesG: readonly number[]): Forecast {
  const atm = pressureAtm(well.altitudeM);
  const saturation = saturationMgL(well.wellCelsius, SALINITY_PER_PERCENT * well.saltPercent, atm);
  const low = Math.min(well.activityLow, well.activityHigh);
  const high = Math.max(well.activityLow, well.activityHigh);
  const use = oxygenUseMgPerHour(massesG, well.wellCelsius, { low, usual: (low + high) / 2, high });
  const off: WellWater = {
    volumeL: well.volumeL,
    nowMgL: well.measuredMgL ?? saturation,
    saturationMgL: saturation,
    pumpLPerHour: 0,
    lakeMgL: saturationMgL(well.lakeCelsius, 0, atm),
    aerationPerHour: 0,
  };
  const on: WellWater = { ...off, pumpLPerHour: well.pumpLPerHour, aerationPerHour: well.aerationPerHour };
  const curve = Array.from({ length: MINUTES / STEP_MINUTES + 1 }, (_, i) => {
    const minute = i * STEP_MINUTES;
    const at = (water: WellWater, mgPerHour: number): number => oxygenAfter(water, mgPerHour, minute / 60);
    return {
      minute,
      offLow: at(off, use.high),
      offHigh: at(off, use.low),
      onLow: at(on, use.high),
      onHigh: at(on, use.low),
    };
  });
  return {
    saturationMgL: saturation,
    use,
    minutesOff: { low: minutesUntil(off, use.high), high: minutesUntil(off, use.low) },
    endsOn: { low: oxygenInTheEnd(on, use.high), high: oxygenInTheEnd(on, use.low) },
    curve,
    cooling: planCooling(well.volumeL, well.lakeCelsius, well.wellCelsius),
    unionisedMgL:
      well.ammoniaMgL === null ? null : well.ammoniaMgL * unionisedShare(well.wellCelsius, well.ph),
  };
}

/** Minutes that are left with the pump off, by the highest use; null while it runs or where nothing falls. */
export function minutesLeft({ pumpOffAtMs }: WellChoices, forecast: Forecast, nowMs: number): number | null {
  const { low } = forecast.minutesOff;
  return pumpOffAtMs === null || low === null ? null : low - (nowMs - pumpOffAtMs) / 60_000;
}

/** A fish that was not weighed is taken for a kilogram; one whose reading is a slip breathes all the same. */
const UNWEIGHED_G = 1000;
const LEAST_FISH_G = 50;

/** About what the fish aboard weigh, g: for what they breathe the last reading is good enough. */
export function massesAboard({ fish }: Pick<LiveWell, 'fish'>): number[] {
  return fish.map(({ readings }) => Math.max(LEAST_FISH_G, readings.at(-1)?.readG ?? UNWEIGHED_G));
}

export const LINE_MG_L = LEAST_MG_L;
