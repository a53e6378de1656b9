import { clockOf, type Handling } from '../care/index.ts';
import { judgeWeight, weightRange } from '../weight/index.ts';
import type { FileId, SpeciesId } from '../ids.ts';

/** What is done with a large fish on the bank, in the order of the work. */
export const SPECIMEN_CARE = [
  'mat-wet',
  'hook-out-in-net',
  'fins-flat',
  'sling-wet',
  'water-over',
  'held-low',
  'sling-to-water',
] as const;
export type SpecimenCare = (typeof SPECIMEN_CARE)[number];

export const WOUND_PLACES = ['hook-hole', 'mouth', 'flank', 'fin', 'older'] as const;
export type WoundPlace = (typeof WOUND_PLACES)[number];

export interface Wound {
  place: WoundPlace;
  /** Dressed, where local rules allow it and a dressing was at hand. */
  isDressed: boolean;
}

/** How the empty wet sling, and what it hangs from, were taken off the reading. */
export type Tare = { kind: 'zeroed' } | { kind: 'noted'; slingG: number; standG: number };

export interface SpecimenWeighing {
  tare: Tare;
  /** What the scale showed with the fish in the sling, g. */
  grossG: number;
  /** What it showed with the empty wet sling once more, g; null where nobody looked. */
  emptyAfterG: number | null;
  /** The scale's step, g. */
  divisionG: number;
}

export interface SpecimenWeight {
  netG: number;
  /** Standard uncertainty by the steps and the zero alone, g: how true the scale is stands in its logbook. */
  sigmaG: number;
  /** How far the empty scale moved meanwhile, g; null where nobody looked. */
  movedG: number | null;
}

/** Half-width of a rectangular distribution to its standard deviation (GUM, JCGM 100:2008, 4.3.7). */
const RECTANGULAR = Math.sqrt(3);

/** What the empty scale showed before the fish was hung, g. */
function emptyBeforeG(tare: Tare): number {
  return tare.kind === 'zeroed' ? 0 : tare.slingG + tare.standG;
}

/**
 * A fish's weight without its sling. Where the empty sling was looked at before and after, the zero is taken to have
 * crept evenly in between: its middle is subtracted, and half of the way is the bound of the error.
 * Steps and creep are rectangular distributions (GUM, JCGM 100:2008, 4.3.7), summed by 5.1.2 of the same.
 * @returns null where nothing was hung, or less than the sling weighs
 */
export function specimenWeight({
  tare,
  grossG,
  emptyAfterG,
  divisionG,
}: SpecimenWeighing): SpecimenWeight | null {
  const before = emptyBeforeG(tare);
  const movedG = emptyAfterG === null ? null : emptyAfterG - before;
  const netG = grossG - before - (movedG ?? 0) / 2;
  if (!(netG > 0)) return null;
  const step = divisionG / 2 / RECTANGULAR;
  // A scale that is set to zero is not read: it adds no step.
  const empty = [tare.kind === 'noted' ? step : 0, ...(movedG === null ? [] : [step])];
  const creep = Math.abs(movedG ?? 0) / 2 / RECTANGULAR;
  return { netG, sigmaG: Math.hypot(step, Math.hypot(...empty) / empty.length, creep), movedG };
}

/** What a specimen's record holds. */
export interface Specimen {
  speciesId: SpeciesId;
  lengthMm: number | null;
  weighing: SpecimenWeighing;
  care: readonly SpecimenCare[];
  wounds: readonly Wound[];
  photographs: readonly { photographId: FileId }[];
  handling?: Handling | undefined;
}

export type SpecimenFinding =
  | { kind: 'sling-dry' }
  | { kind: 'zero-not-checked' }
  | { kind: 'zero-moved'; movedG: number }
  | { kind: 'light' | 'heavy'; lightestG: number; heaviestG: number }
  | { kind: 'no-photograph' }
  | { kind: 'long-in-air'; seconds: number; limitSeconds: number }
  | { kind: 'return-not-told' };

/** So many steps of the scale may the zero creep before the weighing is better done again; common practice, no source. */
const ZERO_STEPS = 1;

/**
 * What a reader of the record should look at; nothing is refused for it.
 * @param speciesName by which the usual weight at a length is known, see `weightRange`
 */
export function specimenFindings(
  { lengthMm, weighing, care, photographs, handling }: Specimen,
  speciesName: string,
): SpecimenFinding[] {
  const findings: SpecimenFinding[] = [];
  const weight = specimenWeight(weighing);
  if (!care.includes('sling-wet')) findings.push({ kind: 'sling-dry' });
  if (weight) {
    const { movedG, netG } = weight;
    if (movedG === null) findings.push({ kind: 'zero-not-checked' });
    else if (Math.abs(movedG) > ZERO_STEPS * weighing.divisionG)
      findings.push({ kind: 'zero-moved', movedG });
    const range = lengthMm === null ? null : weightRange(speciesName, lengthMm);
    const fit = range ? judgeWeight(range, netG) : 'fits';
    if (range && fit !== 'fits')
      findings.push({ kind: fit, lightestG: range.lightestG, heaviestG: range.heaviestG });
  }
  if (photographs.length === 0) findings.push({ kind: 'no-photograph' });
  if (handling) {
    const { lifts, phase } = clockOf(handling.events, handling.events.at(-1)?.atMs ?? 0);
    const longestMs = Math.max(0, ...lifts.map(({ fromMs, toMs }) => (toMs ?? fromMs) - fromMs));
    if (longestMs > 1000 * handling.airLimitSeconds)
      findings.push({
        kind: 'long-in-air',
        seconds: longestMs / 1000,
        limitSeconds: handling.airLimitSeconds,
      });
    if (phase !== 'over') findings.push({ kind: 'return-not-told' });
  } else findings.push({ kind: 'return-not-told' });
  return findings;
}
