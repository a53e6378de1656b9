import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { specimenFindings, specimenWeight, type Specimen, type SpecimenWeighing } from './index.ts';

const weighing = (change: Partial<SpecimenWeighing> = {}): SpecimenWeighing => ({
  tare: { kind: 'zeroed' },
  grossG: 9070,
  emptyAfterG: 0,
  divisionG: 10,
  ...change,
});

const specimen = (change: Partial<Specimen> = {}): Specimen => ({
  speciesId: 'common-carp',
  lengthMm: 850,
  weighing: weighing(),
  care: ['mat-wet', 'sling-wet', 'held-low'],
  wounds: [],
  photographs: [{ photographId: '0190c1d2-0000-7000-8000-000000000001' }],
  handling: {
    events: [
      { step: 'netted', atMs: 0 },
      { step: 'lifted', atMs: 60_000 },
      { step: 'returned', atMs: 80_000 },
      { step: 'released', atMs: 140_000 },
    ],
    airLimitSeconds: 30,
    guessedMassG: null,
    waterCelsius: null,
    airCelsius: null,
    hookPlace: null,
    bleeds: false,
    signs: {},
  },
  ...change,
});
const kinds = (one: Specimen, name = 'common carp'): string[] =>
  specimenFindings(one, name).map(({ kind }) => kind);

describe('the weight of a fish in a sling', () => {
  it('is gross less sling and stand (common practice, no source)', () => {
    const noted = weighing({ tare: { kind: 'noted', slingG: 620, standG: 110 }, grossG: 9800, emptyAfterG: null }); // prettier-ignore
    expect(specimenWeight(noted)?.netG).toBe(9070);
    expect(specimenWeight(weighing({ emptyAfterG: null }))?.netG).toBe(9070);
  });

  it('takes the middle of a zero that crept, with the way as the bound of the error', () => {
    const crept = specimenWeight(weighing({ emptyAfterG: 40 }));
    expect(crept?.netG).toBe(9050);
    expect(crept?.movedG).toBe(40);
    // Half-width a: a/√3 (GUM, JCGM 100:2008, 4.3.7). Steps of 10 g: 5/√3 for the gross, half of that for the mean of
    // an exact zero and a reading; 20/√3 for the creep.
    expect(crept?.sigmaG).toBeCloseTo(Math.sqrt((25 + 6.25 + 400) / 3), 9);
  });

  it('of one rounded reading has the step divided by √12 as its uncertainty (GUM, JCGM 100:2008, F.2.2.1)', () => {
    expect(specimenWeight(weighing({ emptyAfterG: null }))?.sigmaG).toBeCloseTo(10 / Math.sqrt(12), 9);
  });

  it('is none where nothing hangs, or less than the sling', () => {
    expect(specimenWeight(weighing({ grossG: 0, emptyAfterG: null }))).toBeNull();
    const light = weighing({ tare: { kind: 'noted', slingG: 800, standG: 0 }, grossG: 790, emptyAfterG: null }); // prettier-ignore
    expect(specimenWeight(light)).toBeNull();
  });

  it('does not depend on whether the tare was zeroed or noted, as long as nothing moved', () => {
    const grams = fc.integer({ min: 0, max: 3000 });
    fc.assert(
      fc.property(grams, grams, fc.integer({ min: 1, max: 40_000 }), (slingG, standG, fishG) => {
        const empty = slingG + standG;
        const noted = specimenWeight(
          weighing({
            tare: { kind: 'noted', slingG, standG },
            grossG: empty + fishG,
            emptyAfterG: empty,
          }),
        );
        const zeroed = specimenWeight(weighing({ grossG: fishG }));
        expect(noted?.netG).toBe(fishG);
        expect(zeroed?.netG).toBe(fishG);
        // Two readings more: never surer than the scale that was set to zero.
        expect(noted?.sigmaG ?? 0).toBeGreaterThanOrEqual(zeroed?.sigmaG ?? Infinity);
      }),
    );
  });
});

describe('what a reader of the record should look at', () => {
  it('is nothing where all was done', () => {
    expect(kinds(specimen())).toEqual([]);
  });

  it('names what was left out, one by one', () => {
    expect(kinds(specimen({ care: ['mat-wet'] }))).toEqual(['sling-dry']);
    expect(kinds(specimen({ weighing: weighing({ emptyAfterG: null }) }))).toEqual(['zero-not-checked']);
    expect(kinds(specimen({ weighing: weighing({ emptyAfterG: 10 }) }))).toEqual([]);
    expect(kinds(specimen({ weighing: weighing({ emptyAfterG: -20 }) }))).toEqual(['zero-moved']);
    expect(kinds(specimen({ photographs: [] }))).toEqual(['no-photograph']);
    expect(kinds(specimen({ handling: undefined }))).toEqual(['return-not-told']);
  });

  it('compares with the usual weight at a length, where the kind has an equation', () => {
    // Common carp of 850 mm: 10^(−4.639 + 2.92 · log10 850) = 8220 g (Bister et al. 2000, as collected in Neumann, Guy
    // & Willis 2012; from memory): 9070 g is more than half heavier.
    expect(kinds(specimen({ weighing: weighing({ grossG: 5700 }) }))).toEqual([]);
    expect(kinds(specimen({ weighing: weighing({ grossG: 2000 }) }))).toEqual(['light']);
    expect(kinds(specimen({ weighing: weighing({ grossG: 20_000 }) }))).toEqual(['heavy']);
    expect(kinds(specimen({ weighing: weighing({ grossG: 20_000 }) }), 'wels')).toEqual([]);
  });

  it('measures the longest time in air, and sees where the way back was not told', () => {
    const { handling } = specimen();
    if (!handling) throw new Error('expected a handling');
    const long = { ...handling, airLimitSeconds: 15 };
    expect(specimenFindings(specimen({ handling: long }), 'common carp')).toEqual([
      { kind: 'long-in-air', seconds: 20, limitSeconds: 15 },
    ]);
    const open = { ...handling, events: handling.events.slice(0, 3) };
    expect(kinds(specimen({ handling: open }))).toEqual(['return-not-told']);
  });
});
