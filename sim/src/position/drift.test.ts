import { describe, expect, it } from 'vitest';
import { distanceM } from '@lauta/core/evidence';
import { placeOnWaters, watersTrouble, type WaterArea } from '@lauta/core/waters';
import { DEMO_WATERS, IN_REED_BAY } from '../demo/index.ts';
import { driftOverMere } from './index.ts';

const AREAS = DEMO_WATERS.features.map(({ geometry, properties }): WaterArea => ({
  ...properties,
  geometry,
}));
const MORNING_MS = Date.parse('2026-06-14T04:00:00Z');

describe('the simulated receiver', () => {
  it('stays on the open mere, whoever’s boat and whenever', () => {
    for (let i = 0; i < 400; i++) {
      const fix = driftOverMere(`boat ${i % 40}`, MORNING_MS + i * 97_000);
      expect(placeOnWaters(AREAS, fix).where, `boat ${i % 40}`).toBe('open');
    }
  });

  it('drifts slowly: no faster than an oar between minutes, and it does move within an hour', () => {
    let farthest = 0;
    const start = driftOverMere('a', MORNING_MS);
    for (let minute = 1; minute <= 60; minute++) {
      const [was, is] = [minute - 1, minute].map((one) => driftOverMere('a', MORNING_MS + one * 60_000));
      if (!was || !is) throw new Error('fix: expected two');
      // Noise of two receptions aside.
      expect(distanceM(was, is)).toBeLessThan(60 + 40);
      farthest = Math.max(farthest, distanceM(start, is));
    }
    expect(farthest).toBeGreaterThan(60);
  });

  it('is the same for the same boat at the same instant', () => {
    expect(driftOverMere('a', MORNING_MS)).toEqual(driftOverMere('a', MORNING_MS));
    expect(driftOverMere('a', MORNING_MS)).not.toEqual(driftOverMere('b', MORNING_MS));
  });
});

describe('the waters of the demo', () => {
  it('can be published, with a bay in them that is closed', () => {
    expect(watersTrouble(AREAS)).toBeNull();
    expect(placeOnWaters(AREAS, IN_REED_BAY)).toMatchObject({ where: 'closed', name: 'Reed Bay' });
    expect(placeOnWaters(AREAS, IN_REED_BAY).awayM).toBeGreaterThan(150);
  });
});
