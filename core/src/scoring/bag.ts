import { bagLimits, fitsLimits, isLengthSheet, type KeptFish, type RuleSheet } from '../rules/index.ts';
import { mmFromSteps } from '../units/index.ts';
import type { FishScore } from './scoreFish.ts';

export interface Bag {
  /** What counts, longest first. */
  counting: FishScore[];
  /** Fish that would count if the bag were larger. */
  culled: FishScore[];
  notCounting: FishScore[];
  totalSteps: number;
}

/** Longest first; of two equal fish the earlier capture, then the smaller id, so that the order never depends on the input's. */
export function byScore(a: FishScore, b: FishScore): number {
  return b.scoreSteps - a.scoreSteps || a.capturedAtMs - b.capturedAtMs || (a.catchId < b.catchId ? -1 : 1);
}

/** The best legal bag of all fish of the event, or of each day where the sheet fills a bag a day. */
export function fillBag(sheet: RuleSheet, fish: readonly FishScore[]): Bag {
  const bag: Bag = { counting: [], culled: [], notCounting: [], totalSteps: 0 };
  const limits = bagLimits(sheet);
  const taken = new Map<string, KeptFish[]>();
  for (const one of fish.toSorted(byScore)) {
    if (one.notCounting !== null) {
      bag.notCounting.push(one);
      continue;
    }
    const period = sheet.bagPeriod === 'day' ? one.dayId : 'event';
    const kept = taken.get(period) ?? [];
    const next = keptFish(sheet, one);
    if (fitsLimits(limits, kept, next)) {
      taken.set(period, [...kept, next]);
      bag.counting.push(one);
      bag.totalSteps += one.scoreSteps;
    } else bag.culled.push(one);
  }
  return bag;
}

/** A slot is of the length before deductions. */
function keptFish(sheet: RuleSheet, { speciesId, grossSteps }: FishScore): KeptFish {
  return {
    speciesId,
    lengthMm: isLengthSheet(sheet) ? mmFromSteps(grossSteps, sheet.measure.step) : null,
  };
}

/**
 * When the bag's total was first complete: the capture time of the fish with which the best bag of all fish
 * caught until then first reached the final total. Null for an empty bag.
 */
export function completedAtMs(sheet: RuleSheet, bag: Bag): number | null {
  if (bag.counting.length === 0) return null;
  const inOrder = [...bag.counting, ...bag.culled].sort((a, b) => a.capturedAtMs - b.capturedAtMs);
  for (let count = 1; count < inOrder.length; count++) {
    const last = inOrder[count - 1];
    const next = inOrder[count];
    // Fish with the same capture time arrive together.
    if (last && next && last.capturedAtMs === next.capturedAtMs) continue;
    if (fillBag(sheet, inOrder.slice(0, count)).totalSteps === bag.totalSteps)
      return last?.capturedAtMs ?? null;
  }
  return inOrder.at(-1)?.capturedAtMs ?? null;
}
