import type { SpecimenCare, SpecimenFinding, WoundPlace } from '@lauta/core/specimen';
import { formatMass, formatSmallMass, type MassUnit } from '@lauta/core/units';
import type { Tone } from './tone.ts';

export const CARE_WORDS: Record<SpecimenCare, string> = {
  'mat-wet': 'mat down and wet',
  'hook-out-in-net': 'hook out in the net',
  'fins-flat': 'fins flat to the body',
  'sling-wet': 'sling wet, its zip shut',
  'water-over': 'water over the fish',
  'held-low': 'knelt, held low over the mat',
  'sling-to-water': 'back in the sling',
};

export const WOUND_WORDS: Record<WoundPlace, string> = {
  'hook-hole': 'hook hole',
  mouth: 'mouth',
  flank: 'flank or scales',
  fin: 'fin',
  older: 'an older wound',
};

/** What a reader of a record should look at. */
export function findingWords(finding: SpecimenFinding, unit: MassUnit): { tone: Tone; words: string } {
  switch (finding.kind) {
    case 'sling-dry':
      return { tone: 'look', words: 'nobody said that the sling was wet' };
    case 'zero-not-checked':
      return { tone: 'look', words: 'the empty sling was not weighed again' };
    case 'zero-moved':
      return {
        tone: 'look',
        words: `the empty scale moved by ${formatSmallMass(Math.abs(finding.movedG), unit)} meanwhile`,
      };
    case 'light':
    case 'heavy':
      return {
        tone: 'look',
        words: `${finding.kind} for its length: fish of this kind weigh ${formatMass(finding.lightestG, unit)} to ${formatMass(finding.heaviestG, unit)}`,
      };
    case 'no-photograph':
      return { tone: 'look', words: 'no photograph' };
    case 'long-in-air':
      return {
        tone: 'fault',
        words: `${Math.round(finding.seconds)} s out of the water, of ${finding.limitSeconds} s`,
      };
    case 'return-not-told':
      return { tone: 'look', words: 'nobody tapped that it swam off' };
  }
}
