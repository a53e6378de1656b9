import { fitsLimits, type BagLimit, type KeptFish } from '../rules/index.ts';
import type { FishId } from '../ids.ts';

/** A fish aboard, as far as limits and values ask. */
export interface AboardFish extends KeptFish {
  fishId: FishId;
  /** Has to stay, whatever it weighs: it died, and the sheet lets no dead fish be culled. */
  mustStay: boolean;
}

/**
 * The best legal bag of what is aboard, as places in the list: those that must stay, then the best that still fit.
 * Exact, because the limits make a laminar matroid (see `bagLimits`), and what must stay only contracts it.
 * @param values of each fish, in whatever unit
 */
export function bestBag(
  fish: readonly AboardFish[],
  limits: readonly BagLimit[],
  values: readonly number[],
): number[] {
  const order = fish.map((_, i) => i).sort((a, b) => before(fish, values, a, b));
  const kept: number[] = [];
  for (const i of order) {
    const one = fish[i];
    if (!one) continue;
    const others = kept.flatMap((k) => fish[k] ?? []);
    if (one.mustStay || fitsLimits(limits, others, one)) kept.push(i);
  }
  return kept.sort((a, b) => a - b);
}

function before(fish: readonly AboardFish[], values: readonly number[], a: number, b: number): number {
  const stay = Number(fish[b]?.mustStay ?? false) - Number(fish[a]?.mustStay ?? false);
  return stay || (values[b] ?? 0) - (values[a] ?? 0) || a - b;
}

/** Whether all of them together keep every limit. */
export function isLegal(fish: readonly AboardFish[], limits: readonly BagLimit[]): boolean {
  return limits.every(({ holds, most }) => fish.filter(holds).length <= most);
}

/** Which limits each fish counts towards, so that bags can be filled for thousands of draws. */
export interface LimitTable {
  most: readonly number[];
  holds: readonly (readonly number[])[];
}

/** Limits that are kept by all fish together can't bind and are left out. */
export function limitTable(fish: readonly AboardFish[], limits: readonly BagLimit[]): LimitTable {
  const binding = limits.filter(({ holds, most }) => fish.filter(holds).length > most);
  return {
    most: binding.map(({ most }) => most),
    holds: fish.map((one) => binding.flatMap((limit, k) => (limit.holds(one) ? [k] : []))),
  };
}

/** What the release of some fish costs at these values: the best bag of all less the best bag without it. */
export function releaseLosses(
  fish: readonly AboardFish[],
  table: LimitTable,
  values: readonly number[],
  releases: readonly number[],
): number[] {
  const order = fish.map((_, i) => i).sort((a, b) => before(fish, values, a, b));
  const left = new Float64Array(table.most.length);
  const total = (without: number): number => {
    table.most.forEach((most, k) => (left[k] = most));
    let sum = 0;
    for (const i of order) {
      if (i === without) continue;
      const holds = table.holds[i] ?? [];
      if (!fish[i]?.mustStay && isFull(left, holds)) continue;
      for (const k of holds) left[k] = (left[k] ?? 0) - 1;
      sum += values[i] ?? 0;
    }
    return sum;
  };
  const all = total(-1);
  return releases.map((i) => all - total(i));
}

function isFull(left: Float64Array, holds: readonly number[]): boolean {
  for (const k of holds) if ((left[k] ?? 0) <= 0) return true;
  return false;
}
