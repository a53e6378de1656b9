import { describe, expect, it } from 'vitest';
import { distanceM } from '../evidence/index.ts';
import { placeOnWaters, watersTrouble, type WaterArea } from './index.ts';

const square = (west: number, south: number, size: number): number[][] => [
  [west, south],
  [west + size, south],
  [west + size, south + size],
  [west, south + size],
  [west, south],
];
const area = (name: string, use: WaterArea['use'], ...rings: number[][][]): WaterArea => ({
  name,
  use,
  geometry: { type: 'Polygon', coordinates: rings },
});
/** A mere with an island, and a bay of it that is closed. */
const MERE = [
  area('mere', 'open', square(19, 51, 0.1), square(19.04, 51.04, 0.02)),
  area('bay', 'closed', square(19, 51, 0.02)),
];

describe('where a place lies', () => {
  it.each([
    ['on the water', 51.08, 19.05, 'open', 'mere'],
    ['on the island', 51.05, 19.05, 'outside', null],
    ['in the closed bay', 51.01, 19.01, 'closed', 'bay'],
    ['ashore', 51.2, 19.05, 'outside', null],
  ])('%s', (_, latitude, longitude, where, name) => {
    expect(placeOnWaters(MERE, { latitude, longitude })).toMatchObject({ where, name });
  });

  it('is told with how far it is from where one may fish, within a per cent of the great circle', () => {
    const { awayM } = placeOnWaters(MERE, { latitude: 51.2, longitude: 19.05 });
    const expected = distanceM({ latitude: 51.2, longitude: 19.05 }, { latitude: 51.1, longitude: 19.05 });
    expect(Math.abs(awayM / expected - 1)).toBeLessThan(0.01);
    expect(placeOnWaters(MERE, { latitude: 51.08, longitude: 19.05 }).awayM).toBe(0);
    // In the middle of the closed bay the nearest edge is a hundredth of a degree of longitude away: cos 51° of 1111 m.
    expect(placeOnWaters(MERE, { latitude: 51.01, longitude: 19.01 }).awayM).toBeCloseTo(700, -1);
  });

  it('is found in any part of a water of several', () => {
    const parts: WaterArea = {
      name: 'two meres',
      use: 'open',
      geometry: { type: 'MultiPolygon', coordinates: [[square(19, 51, 0.1)], [square(20, 51, 0.1)]] },
    };
    expect(placeOnWaters([parts], { latitude: 51.05, longitude: 20.05 }).where).toBe('open');
    expect(placeOnWaters([parts], { latitude: 51.05, longitude: 19.5 }).where).toBe('outside');
  });
});

describe('areas that cannot be used', () => {
  it.each([
    ['whose ring is not closed (RFC 7946, 3.1.6)', [area('a', 'open', square(19, 51, 0.1).slice(0, -1))], 'ring-not-closed'],
    ['whose ring crosses itself', [area('a', 'open', [[0, 0], [1, 1], [1, 0], [0, 1], [0, 0]])], 'ring-crosses-itself'],
    ['of which none is open', [area('a', 'closed', square(19, 51, 0.1))], 'no-open-area'],
  ])('%s are said to be so', (_, areas, trouble) => {
    expect(watersTrouble(areas)?.trouble).toBe(trouble);
  }); // prettier-ignore

  it('are none where all is well', () => {
    expect(watersTrouble(MERE)).toBeNull();
  });
});
