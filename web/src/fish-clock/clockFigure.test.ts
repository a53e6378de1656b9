import { describe, expect, it } from 'vitest';
import { clockOf, type WaterStep } from '@lauta/core/care';
import { G_PER_POUND } from '@lauta/core/units';
import { parseCareChoices, type CareChoices } from '../care/careChoices.ts';
import { clockFigure, type ClockFigure } from './clockFigure.ts';
import { freshCatch, type RunningCatch } from './runningCatch.ts';

const USUAL = parseCareChoices(null);

/** What the clock shows so many seconds after the first of these taps. */
function shown(
  taps: [WaterStep, number][],
  seconds: number,
  change: Partial<RunningCatch> = {},
  choices: Partial<CareChoices> = {},
  sheetAirSeconds: number | null = null,
): ClockFigure {
  const events = taps.map(([step, at]) => ({ step, atMs: 1000 * at }));
  return clockFigure(
    clockOf(events, 1000 * seconds),
    { ...freshCatch(), events, ...change },
    { ...USUAL, ...choices },
    sheetAirSeconds,
  );
}
const LIFT: [WaterStep, number][] = [['hooked', 0], ['netted', 60], ['lifted', 100]]; // prettier-ignore

describe('the figure on the clock', () => {
  it.each([
    [100, '0:00', 'good', 'of 6 s'],
    [105, '0:05', 'soon', 'of 6 s: lower it'],
    [106, '0:06', 'soon', 'of 6 s: lower it'],
    [107, '0:07', 'over', 'over 6 s: water now'],
  ])('counts the air of this lift: at %i s %s, %s', (seconds, figure, state, words) => {
    expect(shown(LIFT, seconds)).toMatchObject({ figure, state, words, limitSeconds: 6 });
  });

  it('goes by the rule sheet where it sets a limit, whatever the school; warmth shortens the shorter one', () => {
    const schools = { 'air-time': 'thirty-seconds' };
    expect(shown(LIFT, 110, {}, { schools }, 12)).toMatchObject({ state: 'soon', limitSeconds: 12 });
    expect(shown(LIFT, 110, {}, {}, 12)).toMatchObject({ limitSeconds: 6 });
  });

  it('goes by the school that was chosen, and by warm water', () => {
    const schools = { 'air-time': 'thirty-seconds' };
    expect(shown(LIFT, 110, {}, { schools })).toMatchObject({ state: 'good', limitSeconds: 30 });
    expect(shown(LIFT, 110, {}, { schools, waterCelsius: 28 })).toMatchObject({ limitSeconds: 15 });
  });

  it('counts the fight against a pound a minute once a size is guessed, and without a limit before', () => {
    expect(shown([['hooked', 0]], 90)).toMatchObject({ figure: '1:30', state: null, limitSeconds: null });
    const guessed = { guessedMassG: 2 * G_PER_POUND };
    expect(shown([['hooked', 0]], 60, guessed)).toMatchObject({ words: 'of 2:00', state: 'good' });
    expect(shown([['hooked', 0]], 119, guessed)).toMatchObject({ words: 'bring it in soon' });
    expect(shown([['hooked', 0]], 121, guessed)).toMatchObject({ state: 'over' });
  });

  it('counts the rest in the net, longer for a fish that bleeds', () => {
    const net: [WaterStep, number][] = [['hooked', 0], ['netted', 60]]; // prettier-ignore
    expect(shown(net, 89)).toMatchObject({ words: 'let it rest 30 s', state: 'soon' });
    expect(shown(net, 90)).toMatchObject({ figure: '0:30', words: 'rested', state: 'good' });
    expect(shown(net, 90, { bleeds: true })).toMatchObject({ words: 'let it rest 60 s' });
  });

  it('asks no rest before the first lift of those who let it tire', () => {
    const choices = { schools: { resting: 'tire' } };
    const net: [WaterStep, number][] = [['hooked', 0], ['netted', 60]]; // prettier-ignore
    expect(shown(net, 62, {}, choices)).toMatchObject({
      limitSeconds: null,
      words: 'lift once it lies still',
    });
    const again: [WaterStep, number][] = [...net, ['lifted', 70], ['returned', 76]];
    expect(shown(again, 80, {}, choices)).toMatchObject({ words: 'let it rest 30 s' });
  });

  it('shows the whole time once it is over', () => {
    expect(shown([...LIFT, ['returned', 105], ['released', 150]], 999)).toMatchObject({
      figure: '2:30',
      state: null,
    });
  });
});
