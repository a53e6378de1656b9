import { describe, expect, it } from 'vitest';
import { SCALE_KINDS } from '@lauta/core/scale';
import { liveWellOf, type WellAct, type WellEntry } from '@lauta/core/well';
import { forecastOf, massesAboard, minutesLeft } from './forecast.ts';
import { BOUNDS, USUAL_WELL, parseWell } from './wellChoices.ts';

describe('the well’s water', () => {
  it('five bass of three pounds at 27 °C in twenty gallons: half an hour or so with the pump off', () => {
    const masses = Array<number>(5).fill(1361);
    const forecast = forecastOf({ ...USUAL_WELL, altitudeM: 0 }, masses);
    // 545 mg an hour at rest (Rice et al. 1983), once to three times; 7.97 mg/l at 27 °C (Benson & Krause 1984).
    expect(forecast.use.low).toBeCloseTo(545, 0);
    expect(forecast.use.high).toBeCloseTo(3 * 545, -1);
    expect(forecast.minutesOff.low).toBeCloseTo((60 * 2.968 * 75.7) / 1635, 0);
    expect(forecast.minutesOff.high).toBeCloseTo((60 * 2.968 * 75.7) / 545, 0);
    expect(forecast.curve).toHaveLength(25);
    for (const { offLow, offHigh, onLow, onHigh } of forecast.curve) {
      expect(offLow <= offHigh && onLow <= onHigh && offLow <= onLow + 1e-9).toBe(true);
    }
  });

  it('with nobody aboard nothing falls; warmer and higher water holds less', () => {
    expect(forecastOf(USUAL_WELL, []).minutesOff).toEqual({ low: null, high: null });
    const at = (change: object) => forecastOf({ ...USUAL_WELL, ...change }, []).saturationMgL;
    expect(at({ wellCelsius: 30 }) < at({ wellCelsius: 20 })).toBe(true);
    expect(at({ altitudeM: 1500 }) < at({ altitudeM: 0 })).toBe(true);
  });

  it('the pump’s clock runs down by the most use, and only while it is off', () => {
    const forecast = forecastOf(USUAL_WELL, [1361, 1361]);
    const low = forecast.minutesOff.low ?? NaN;
    expect(minutesLeft({ ...USUAL_WELL, pumpOffAtMs: 1000 }, forecast, 1000 + 600_000)).toBeCloseTo(
      low - 10,
      6,
    );
    expect(minutesLeft(USUAL_WELL, forecast, 5)).toBeNull();
  });

  it('is breathed by what was read last, by a kilogram where nothing was', () => {
    const at = (atMs: number, act: WellAct): WellEntry => ({ entryId: `e${atMs}`, atMs, act });
    const comes = (atMs: number, fishId: string): WellEntry =>
      at(atMs, { kind: 'fish-in', fishId, speciesId: 'bass', lengthMm: null, condition: 'lively', compartment: 1, tagId: null, tagPlace: 'on' }); // prettier-ignore
    const weighed = (atMs: number, readG: number): WellEntry =>
      at(atMs, { kind: 'weighed', fishId: 'a', scaleId: 's', readG, how: 'typed', airSeconds: null });
    const scale = at(1, { kind: 'scale', scaleId: 's', name: 'Scale', scale: SCALE_KINDS.usual });
    const well = liveWellOf([scale, comes(2, 'a'), weighed(3, 900), weighed(4, 1200), comes(5, 'b')]);
    expect(massesAboard(well)).toEqual([1200, 1000]);
    expect(massesAboard(liveWellOf([scale, comes(2, 'a'), weighed(3, 4)]))).toEqual([50]);
  });

  it('what another hand left in the store is taken as far as it fits', () => {
    expect(parseWell(null)).toEqual(USUAL_WELL);
    expect(parseWell('nonsense')).toEqual(USUAL_WELL);
    expect(parseWell('{"volumeL":-3,"ph":"x","lakeCelsius":20}')).toEqual({ ...USUAL_WELL, lakeCelsius: 20 });
    for (const [least, most] of Object.values(BOUNDS)) expect(least).toBeLessThan(most);
  });
});
