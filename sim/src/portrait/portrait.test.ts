import { describe, expect, it } from 'vitest';
import { lookPortrait, type PortraitHint } from '@lauta/vision/portrait';
import { PORTRAIT_FAULTS, drawPortrait, type PortraitFault } from './index.ts';

const SEEDS = [31, 32, 33];
const SIZE = { widthPx: 640, heightPx: 480 };

function hintsOf(kind: 'held' | 'water', fault: PortraitFault | null): PortraitHint[][] {
  return SEEDS.map((seed) => {
    const { isHeld, findings } = lookPortrait(drawPortrait(seed, { kind, fault, ...SIZE }).raster);
    expect(isHeld).toBe(kind === 'held');
    return findings.map(({ hint }) => hint);
  });
}

// Scenes of our own renderer, which the limits were set on: other seeds, the same manner (no source).
describe('a portrait', () => {
  it.each(['held', 'water'] as const)('of a fish %s without a fault gets hardly a hint', (kind) => {
    expect(hintsOf(kind, null).filter((hints) => hints.length > 0).length).toBeLessThanOrEqual(1);
  });

  it.each([
    ...PORTRAIT_FAULTS.held.map((fault) => ['held', fault] as const),
    ...PORTRAIT_FAULTS.water.map((fault) => ['water', fault] as const),
  ])('of a fish %s with %s gets that hint', (kind, fault) => {
    const told = hintsOf(kind, fault).filter((hints) => hints.includes(fault));
    expect(told.length).toBeGreaterThanOrEqual(SEEDS.length - 1);
  });

  it('points to where a hand lies across the fish', () => {
    const { raster, nosePx, tailPx } = drawPortrait(31, { kind: 'water', fault: 'hand-over-flank', ...SIZE });
    const place = lookPortrait(raster).findings.find(({ hint }) => hint === 'hand-over-flank')?.place;
    const seenPx = (place?.[0] ?? NaN) * SIZE.widthPx;
    expect(seenPx).toBeGreaterThan(nosePx[0] + 0.3 * (tailPx[0] - nosePx[0]));
    expect(seenPx).toBeLessThan(nosePx[0] + 0.75 * (tailPx[0] - nosePx[0]));
  });

  it.each([
    ['one colour', () => 120],
    ['noise', (i: number) => (i * 7919) % 256],
    ['black', () => 0],
    ['white', () => 255],
  ])('of nothing but %s shows no fish, and says so', (_what, value) => {
    const data = Uint8ClampedArray.from({ length: 4 * 320 * 240 }, (_, i) => (i % 4 === 3 ? 255 : value(i)));
    expect(lookPortrait({ widthPx: 320, heightPx: 240, data }).findings).toEqual([{ hint: 'no-fish', place: null }]); // prettier-ignore
  });

  it('of a few pixels is no trouble', () => {
    const data = new Uint8ClampedArray(4 * 3 * 2).fill(90);
    expect(lookPortrait({ widthPx: 3, heightPx: 2, data }).findings[0]?.hint).toBe('no-fish');
  });
});
