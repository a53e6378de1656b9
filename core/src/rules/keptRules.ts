import type { RuleSheet, SpeciesRule } from './ruleSheet.ts';

/**
 * The rules of a sheet that its measure keeps, and no others: what is printed or asked for is what scores.
 * By weight each day's bag is weighed by itself and the days are added up, and a fish is kept or short by its length,
 * never by its weight, which nobody knows before the scale. By length a fish scores from its least length, and there is
 * no other length from which it is kept.
 */
export function keptRules<S extends RuleSheet>(sheet: S): S {
  if (sheet.measure.kind === 'weight')
    return {
      ...sheet,
      bagPeriod: 'day',
      species: sheet.species.map((species): SpeciesRule => ({ ...species, minimumSteps: null })),
    };
  return {
    ...sheet,
    species: sheet.species.map((species): SpeciesRule => {
      const kept = { ...species };
      delete kept.minimumLength;
      return kept;
    }),
  };
}
