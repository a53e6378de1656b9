import { describe, expect, it } from 'vitest';
import { G_PER_POUND } from '../units/index.ts';
import {
  judgeScale,
  kindOfClass,
  leastLoadG,
  noiseVarianceOf,
  roundingVariance,
  takeScaleAct,
  toleranceG,
  withinTolerance,
  type ScaleAct,
  type Scales,
} from './index.ts';

const lb = (pounds: number): number => pounds * G_PER_POUND;
const HUNDREDTH = lb(0.01);

describe('the tolerance of an accuracy class', () => {
  // NIST Handbook 44, section 2.20, table 6 (maintenance tolerances), worked for a scale of hundredths of a pound.
  it.each([
    [4, 0.01],
    [5, 0.01],
    [5.01, 0.02],
    [20, 0.02],
    [20.01, 0.03],
    [40, 0.03],
    [40.01, 0.05],
  ])('class III, hundredths of a pound: at %f lb it may be off by %f lb', (load, allowed) => {
    expect(toleranceG('III', HUNDREDTH, lb(load)) / G_PER_POUND).toBeCloseTo(allowed, 9);
  });

  // NIST Handbook 44, section 2.20, table 6.
  it.each([
    [50, 1],
    [51, 2],
    [200, 2],
    [201, 3],
    [400, 3],
    [401, 5],
  ])('class IIII, 20 g: at %i divisions it may be off by %i', (divisions, allowed) => {
    expect(toleranceG('IIII', 20, 20 * divisions)).toBe(20 * allowed);
  });

  // NIST Handbook 44, section 2.20, table 8.
  it('does not hold under the smallest load: 20 divisions for class III, 10 for class IIII', () => {
    expect(leastLoadG('III', HUNDREDTH) / G_PER_POUND).toBeCloseTo(0.2, 9);
    expect(leastLoadG('IIII', 20)).toBe(200);
  });
});

describe('a known weight on a marked scale', () => {
  const marked = { kind: kindOfClass('III', 5, 15_000), accuracyClass: 'III' } as const;

  it('is within the tolerance to its very edge', () => {
    // 10 kg are 2000 divisions: two of them are allowed (NIST Handbook 44, 2.20, table 6).
    expect(withinTolerance(marked, { trueG: 10_000, readG: 10_010 })).toBe(true);
    expect(withinTolerance(marked, { trueG: 10_000, readG: 9990 })).toBe(true);
    expect(withinTolerance(marked, { trueG: 10_000, readG: 10_015 })).toBe(false);
    expect(withinTolerance(marked, { trueG: 2000, readG: 1990 })).toBe(false);
  });

  it('empty shows nothing at all: a division is too much', () => {
    expect(withinTolerance(marked, { trueG: 0, readG: 0 })).toBe(true);
    expect(withinTolerance(marked, { trueG: 0, readG: -5 })).toBe(false);
  });

  it('says nothing where there is no mark: nobody promised anything', () => {
    expect(withinTolerance({ ...marked, accuracyClass: null }, { trueG: 10_000, readG: 12_000 })).toBeNull();
  });
});

describe('what a mark says before any check', () => {
  const kind = kindOfClass('III', 5, 15_000);

  it('is its tolerance as two standard deviations, at nothing and at full load', () => {
    expect(2 * Math.sqrt(noiseVarianceOf({ kind, repeats: [] }))).toBeCloseTo(5, 9);
    expect(kind.repeatabilityG ** 2 + roundingVariance(5)).toBeCloseTo(2.5 ** 2, 9);
    expect(2 * kind.gainSigma * 15_000).toBeCloseTo(toleranceG('III', 5, 15_000), 9);
  });

  it('and a check of today makes its weights surer than the mark alone', () => {
    const doubt = (checks: { atMs: number; trueG: number; readG: number }[]): number =>
      judgeScale({ kind, checks, repeats: [] }, 6000, 28.35, 0).sigmaG;
    const sure = doubt([{ atMs: 0, trueG: 0, readG: 0 }, { atMs: 0, trueG: 6000, readG: 6005 }]); // prettier-ignore
    expect(sure).toBeLessThan(doubt([]));
  });
});

describe('the logbook', () => {
  const described: ScaleAct = { kind: 'scale', scaleId: 's', name: 'Bench', scale: kindOfClass('III', 5, 15_000), accuracyClass: 'III' }; // prettier-ignore

  it('keeps checks and repeats with their scale, also when that is described anew', () => {
    const scales: Scales = new Map();
    takeScaleAct(scales, 1, described);
    takeScaleAct(scales, 2, { kind: 'scale-check', scaleId: 's', trueG: 5000, readG: 5005 });
    takeScaleAct(scales, 3, { kind: 'scale-repeat', scaleId: 's', readG: [900, 905, 900] });
    takeScaleAct(scales, 4, { ...described, name: 'Bench by the door' });
    expect(scales.get('s')).toMatchObject({
      name: 'Bench by the door',
      accuracyClass: 'III',
      checks: [{ atMs: 2, trueG: 5000, readG: 5005 }],
      repeats: [[900, 905, 900]],
    });
  });

  it('of before marks were asked for has none', () => {
    const scales: Scales = new Map();
    takeScaleAct(scales, 1, { kind: 'scale', scaleId: 's', name: 'Hanging', scale: described.scale });
    expect(scales.get('s')?.accuracyClass).toBeNull();
  });

  it('takes no check of a scale that nobody described', () => {
    const scales: Scales = new Map();
    takeScaleAct(scales, 1, { kind: 'scale-check', scaleId: 's', trueG: 0, readG: 0 });
    expect(scales.size).toBe(0);
  });
});
