import { describe, expect, it } from 'vitest';
import { hazardOf } from './care/index.ts';
import { isSmallMouthed, speciesKey } from './species.ts';
import { standardWeightsG } from './weight/index.ts';

describe('the key of a species', () => {
  it('is the same for a sheet’s id and for its name', () => {
    for (const written of ['smallmouth-bass', 'Smallmouth bass', ' SMALLMOUTH  BASS '])
      expect(speciesKey(written)).toBe('smallmouth bass');
  });

  it('finds hazards, standard weights and the small-mouthed by either', () => {
    for (const written of ['smallmouth-bass', 'Smallmouth bass']) {
      expect(hazardOf(written)?.id).toBe('small-mouthed-bass');
      // Ws of a smallmouth of 400 mm: 10^(-5.329 + 3.2·log10 400) g (Kolander, Willis & Murphy 1993, from memory).
      expect(standardWeightsG(written, 400)[0]).toBeCloseTo(10 ** (-5.329 + 3.2 * Math.log10(400)), 6);
      expect(isSmallMouthed(written)).toBe(true);
    }
    expect(hazardOf('Small-mouthed bass')?.id).toBe('small-mouthed-bass');
    expect(isSmallMouthed('largemouth-bass')).toBe(false);
    expect(hazardOf('striped-bass')?.id).toBe('striped-bass');
  });
});
