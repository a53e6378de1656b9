import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  iceKg,
  minutesUntil,
  oxygenAfter,
  oxygenInTheEnd,
  oxygenUseMgPerHour,
  planCooling,
  pressureAtm,
  saltG,
  saturationMgL,
  unionisedShare,
  type WellWater,
} from './index.ts';

/**
 * Oxygen at saturation in fresh water, 0 to 35 °C by the degree, mg/l: another equation (Garcia & Gordon 1992) in another
 * library (python3-gsw 3.6.16: O2sol_SP_pt(0, t) · 31.9988 · rho_t_exact(0, t, 0) / 1e6).
 */
// prettier-ignore
const GSW = [14.6213, 14.2161, 13.8294, 13.4601, 13.1072, 12.7698, 12.4471, 12.1382, 11.8424, 11.5590, 11.2872, 11.0265, 10.7763, 10.5360, 10.3051, 10.0832, 9.8696, 9.6640, 9.4661, 9.2753, 9.0913, 8.9139, 8.7425, 8.5770, 8.4170, 8.2622, 8.1124, 7.9673, 7.8266, 7.6902, 7.5578, 7.4292, 7.3042, 7.1826, 7.0641, 6.9487];

describe('oxygen at saturation', () => {
  // As printed in Standard Methods, table 4500-O:I, and by the USGS (from memory, each digit).
  it.each([
    [0, 14.621],
    [5, 12.77],
    [10, 11.288],
    [15, 10.084],
    [20, 9.092],
    [25, 8.263],
    [30, 7.559],
    [35, 6.949],
  ])('in fresh water of %d °C is %d mg/l, as the published table has it', (celsius, mgL) => {
    expect(Math.abs(saturationMgL(celsius) - mgL)).toBeLessThan(0.002);
  });

  it('agrees with another equation in another library at every degree', () => {
    GSW.forEach((mgL, celsius) => expect(Math.abs(saturationMgL(celsius) - mgL)).toBeLessThan(0.003));
    expect(GSW).toHaveLength(36);
  });

  // The same library at a salinity of 3, 5 and 35: at most 0.02 % from these.
  it.each([
    [25, 3, 8.124],
    [25, 5, 8.032],
    [20, 35, 7.396],
  ])('of %d °C with salt of %d is %d mg/l', (celsius, salinity, mgL) => {
    expect(saturationMgL(celsius, salinity)).toBeCloseTo(mgL, 2);
  });

  it('under less air is less: Standard Methods’ own example, 20 °C at 0.700 atm is 6.30 mg/l', () => {
    expect(saturationMgL(20, 0, 0.7)).toBeCloseTo(6.3, 2);
  });

  // GNU units 2.22: stdatmP(1000 m) / atm, stdatmP(1500 m), stdatmP(5000 ft).
  it.each([
    [0, 1],
    [1000, 0.887009876584],
    [1500, 0.834538991281],
    [1524, 0.832085300961],
  ])('pressure at %d m is %d atm', (altitudeM, atm) => {
    expect(pressureAtm(altitudeM)).toBeCloseTo(atm, 4);
  });

  it('refuses water that is no live well’s', () => {
    expect(() => saturationMgL(-1)).toThrow(RangeError);
    expect(() => saturationMgL(41)).toThrow(RangeError);
    expect(() => saturationMgL(20, 0, 0)).toThrow(RangeError);
  });
});

const WATER: WellWater = {
  volumeL: 75.7,
  nowMgL: 8,
  saturationMgL: 8,
  pumpLPerHour: 0,
  lakeMgL: 8,
  aerationPerHour: 0,
};

describe('oxygen that fish use', () => {
  it('at rest: five bass of 1361 g at 27 °C take 545 mg an hour (worked by hand from the equation)', () => {
    const use = oxygenUseMgPerHour([1361, 1361, 1361, 1361, 1361], 27, { low: 1, usual: 1, high: 1 });
    expect(use.low).toBeCloseTo(545, 0);
    // In 75.7 l that is 7.2 mg/l an hour.
    expect(oxygenAfter(WATER, use.low, 1)).toBeCloseTo(8 - 7.2, 1);
  });

  it('rises by a factor of 2.25 in ten degrees (exp 0.811)', () => {
    const at = (celsius: number) => oxygenUseMgPerHour([1000], celsius).usual;
    expect(at(25) / at(15)).toBeCloseTo(2.25, 2);
  });

  it('is a range, and none for no fish', () => {
    const { low, usual, high } = oxygenUseMgPerHour([900, 1200], 24);
    expect(low < usual && usual < high).toBe(true);
    expect(oxygenUseMgPerHour([], 24)).toEqual({ low: 0, usual: 0, high: 0 });
  });
});

describe('how long the oxygen lasts', () => {
  it('with the pump off falls on a straight line: 3 mg/l at 300 mg an hour in 75.7 l take 45 min', () => {
    expect(minutesUntil(WATER, 300)).toBeCloseTo((60 * 3 * 75.7) / 300, 6);
    expect(minutesUntil({ ...WATER, nowMgL: 5 }, 300)).toBe(0);
    expect(minutesUntil(WATER, 0)).toBeNull();
  });

  it('with the pump on settles where supply and use are equal, and never falls under that', () => {
    const pumped = { ...WATER, pumpLPerHour: 600 };
    const end = oxygenInTheEnd(pumped, 300);
    // 600 l/h · (8 − C) = 300 mg/h, so C = 7.5 mg/l.
    expect(end).toBeCloseTo(7.5, 6);
    expect(minutesUntil(pumped, 300)).toBeNull();
    expect(oxygenInTheEnd(WATER, 300)).toBeNull();
  });

  it('agrees with the differential equation stepped by the second (Euler)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 800, noNaN: true }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 900, noNaN: true }),
        (pumpLPerHour, aerationPerHour, use) => {
          const water = { ...WATER, nowMgL: 6.5, pumpLPerHour, aerationPerHour };
          let mgL = water.nowMgL;
          for (let second = 0; second < 1200; second++) {
            const slope =
              -use / water.volumeL +
              (pumpLPerHour / water.volumeL) * (water.lakeMgL - mgL) +
              aerationPerHour * (water.saturationMgL - mgL);
            mgL = mgL + slope / 3600;
          }
          expect(oxygenAfter(water, use, 1 / 3)).toBeCloseTo(Math.max(0, mgL), 2);
        },
      ),
      { seed: 4310, numRuns: 60 },
    );
  });

  it('minutes and the curve say the same', () => {
    const water = { ...WATER, pumpLPerHour: 40, aerationPerHour: 0.5 };
    const minutes = minutesUntil(water, 700);
    expect(oxygenAfter(water, 700, (minutes ?? 0) / 60)).toBeCloseTo(5, 6);
  });
});

describe('ice', () => {
  // Exact enthalpies of water and ice by python3-gsw 3.6.16; the constants here leave out how they change, so 0.5 %.
  it.each([
    [100, 30, 25, 0, 4.7484],
    [100, 30, 25, -18, 4.3829],
    [113.562, 30, 24.4444, 0, 6.0236],
  ])('of %d l from %d to %d °C, at %d °C: %d kg', (volumeL, from, to, ice, kg) => {
    expect(iceKg(volumeL, from, to, ice) / kg).toBeGreaterThan(0.995);
    expect(iceKg(volumeL, from, to, ice) / kg).toBeLessThan(1.005);
  });

  it('is none where the well is cold enough, and never takes it further under the lake than is safe', () => {
    expect(iceKg(100, 20, 25)).toBe(0);
    expect(planCooling(100, 20, 20)).toMatchObject({ targetCelsius: null, iceKg: 0 });
    const hot = planCooling(100, 30, 30);
    expect(30 - (hot.targetCelsius ?? 0)).toBeLessThan(5.5);
    expect(hot.iceKg).toBeGreaterThan(2);
    // 2.8 degrees at 4 an hour.
    expect(hot.minutes).toBe(42);
    expect(planCooling(100, 30, 24).isTooCold).toBe(true);
    expect(planCooling(100, 30, 24.5).isTooCold).toBe(false);
  });
});

describe('salt and ammonia', () => {
  it('0.5 per cent of 30 gallons are 567.8 g (exact: 113.562 l)', () => {
    expect(saltG(113.5624, 0.5)).toBeCloseTo(567.8, 1);
    expect(saltG(113.5624, 0.3)).toBeCloseTo(340.7, 1);
  });

  // Emerson et al. 1975, table of per cent un-ionised (from memory).
  it.each([
    [0, 7, 0.0826],
    [25, 7, 0.566],
    [30, 7, 0.799],
    [0, 8, 0.82],
    [20, 8, 3.82],
    [30, 8, 7.46],
  ])('at %d °C and pH %d are %d %% un-ionised', (celsius, ph, percent) => {
    expect((100 * unionisedShare(celsius, ph)) / percent).toBeCloseTo(1, 2);
  });
});
