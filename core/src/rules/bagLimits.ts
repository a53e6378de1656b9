import { stepsFromMm } from '../units/index.ts';
import type { RuleSheet, SpeciesRule } from './ruleSheet.ts';
import type { SpeciesId } from '../ids.ts';

/** A fish as far as limits ask: its kind, and its length where it was measured. */
export interface KeptFish {
  speciesId: SpeciesId;
  lengthMm: number | null;
}

/** Of the fish that it holds at most so many may be kept. */
export interface BagLimit {
  kind: 'bag' | 'species' | 'slot';
  speciesId: SpeciesId | null;
  most: number;
  holds(fish: KeptFish): boolean;
}

/**
 * All limits of a bag: of all fish, of each kind, and of each kind's slot. Any two of them hold each other or have no
 * fish in common, so that the legal bags are the independent sets of a laminar matroid, and taking the best fish that
 * still fits, again and again, gives the best legal bag (Edmonds 1971, Matroids and the greedy algorithm).
 */
export function bagLimits(sheet: RuleSheet): BagLimit[] {
  const limits: BagLimit[] = [{ kind: 'bag', speciesId: null, most: sheet.bagLimit, holds: () => true }];
  for (const species of sheet.species) {
    const { id, limit, slot } = species;
    if (limit !== undefined)
      limits.push({ kind: 'species', speciesId: id, most: limit, holds: (fish) => fish.speciesId === id });
    if (slot !== undefined)
      limits.push({
        kind: 'slot',
        speciesId: id,
        most: slot.allowed,
        holds: (fish) => fish.speciesId === id && isInSlot(species, fish.lengthMm),
      });
  }
  return limits;
}

/** Whether one more fish can join those that are kept. */
export function fitsLimits(limits: readonly BagLimit[], kept: readonly KeptFish[], fish: KeptFish): boolean {
  return limits.every((limit) => !limit.holds(fish) || kept.filter(limit.holds).length < limit.most);
}

/** A fish of no known length is in no slot. Lengths are taken as steps, so that twelve inches are not a hair under twelve. */
export function isInSlot({ slot }: SpeciesRule, lengthMm: number | null): boolean {
  if (!slot || lengthMm === null) return false;
  const steps = stepsFromMm(lengthMm, slot.step, 'down');
  return steps >= slot.fromSteps && steps < slot.underSteps;
}

/** Whether a fish is under the length from which its kind may be kept. Without a length nobody can say. */
export function isShort({ minimumLength }: SpeciesRule, lengthMm: number | null): boolean {
  if (!minimumLength || lengthMm === null) return false;
  return stepsFromMm(lengthMm, minimumLength.step, 'down') < minimumLength.steps;
}
