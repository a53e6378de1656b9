import { describe, expect, it } from 'vitest';
import {
  RESTLESS_MS,
  SCALE_KINDS,
  STEADY_MS,
  formatScaleLine,
  judgeScale,
  lineSplitter,
  parseScaleLine,
  scaleState,
  type ScaleKind,
  type ScaleSample,
  type ScaleState,
} from '@lauta/core/scale';
import { rollDice } from '../camera/dice.ts';
import { BEAM, ScaleStream, buildScale, hangOnBeam, type Hanging } from './index.ts';

const STILL: Hanging = { trueG: 1500, swing: 0.05, calmsSeconds: 0.6, struggles: false };
const EXACT: ScaleKind = {
  ...SCALE_KINDS.good,
  repeatabilityG: 0,
  gainSigma: 0,
  zeroSigmaG: 0,
  driftGPerRootHour: 0,
};

/** States of a stream for so many seconds, one a reading. */
function watch(stream: ScaleStream, seconds: number, divisionG: number): ScaleState[] {
  const samples: ScaleSample[] = [];
  return Array.from({ length: seconds * 10 }, () => {
    const line = parseScaleLine(stream.next());
    if (line?.kind === 'reading') samples.push(line);
    return scaleState(samples, divisionG);
  });
}

describe('a reading is taken when it is steady', () => {
  it('not while the fish swings, and then the weight to the division', () => {
    const stream = new ScaleStream({ kind: EXACT, dice: rollDice(1) });
    watch(stream, 1, 5);
    stream.hang(STILL);
    const states = watch(stream, 8, 5);
    const first = states.findIndex(({ kind }) => kind === 'steady');
    expect(first * 100).toBeGreaterThanOrEqual(STEADY_MS);
    expect(states[first]).toEqual({ kind: 'steady', massG: 1500 });
    expect(states.slice(first).every(({ kind }) => kind === 'steady')).toBe(true);
    stream.takeOff();
    expect(watch(stream, 2, 5).at(-1)).toEqual({ kind: 'empty' });
  });

  it.each([0, 1, 2, 3, 4, 5, 6, 7])(
    'of a good scale within three repeatabilities and its own error (seed %d)',
    (seed) => {
      const kind = { ...SCALE_KINDS.good, gainSigma: 0, zeroSigmaG: 0 };
      const stream = new ScaleStream({ kind, dice: rollDice(seed) });
      stream.hang({ ...STILL, trueG: 1234 });
      const steady = watch(stream, 10, kind.divisionG).find((one) => one.kind === 'steady');
      expect(Math.abs((steady?.massG ?? 0) - 1234)).toBeLessThanOrEqual(
        3 * kind.repeatabilityG + kind.divisionG,
      );
    },
  );

  it('soon after it hangs still, for every kind of scale and in whichever division it falls', () => {
    for (const kind of Object.values(SCALE_KINDS)) {
      for (let seed = 1; seed <= 60; seed++) {
        const dice = rollDice(seed);
        const stream = new ScaleStream({ kind, dice });
        stream.hang({ ...STILL, trueG: dice.between(500, 2200) });
        const first = watch(stream, 8, kind.divisionG).findIndex((state) => state.kind === 'steady');
        expect(first, `seed ${seed}, division ${kind.divisionG}`).toBeGreaterThanOrEqual(0);
      }
    }
  });

  it('never, where a fish does not hang still: then its middle and its scatter are told', () => {
    const stream = new ScaleStream({ kind: EXACT, dice: rollDice(2) });
    stream.hang({ ...STILL, swing: 0.3, calmsSeconds: 2, struggles: true });
    const states = watch(stream, 14, 5);
    expect(states.some(({ kind }) => kind === 'steady')).toBe(false);
    const last = states.at(-1);
    if (last?.kind !== 'restless') throw new Error(`expected restless, got ${last?.kind ?? 'nothing'}`);
    expect(Math.abs(last.massG - 1500)).toBeLessThan(100);
    expect(last.scatterG).toBeGreaterThan(20);
    expect(states.findIndex(({ kind }) => kind === 'restless') * 100).toBeGreaterThanOrEqual(RESTLESS_MS);
  });

  it('one division of difference is steady, two are motion', () => {
    const at = (masses: number[]): ScaleSample[] => masses.map((massG, i) => ({ atMs: i * 200, massG }));
    expect(scaleState(at([500, 505, 500, 505, 500, 505, 500, 505, 500]), 5).kind).toBe('steady');
    expect(scaleState(at([500, 505, 510, 505, 500, 505, 500, 510, 500]), 5).kind).toBe('moving');
    // Under five divisions nothing hangs.
    expect(scaleState(at(Array<number>(12).fill(20)), 5).kind).toBe('empty');
    expect(scaleState(at(Array<number>(12).fill(25)), 5).kind).toBe('steady');
    expect(scaleState([], 5).kind).toBe('empty');
  });
});

describe('the simulated scale', () => {
  it('warms, sags with its battery, and says when more hangs on it than it can weigh', () => {
    const warm = new ScaleStream({ kind: EXACT, dice: rollDice(3), warmsPerHour: 600 });
    warm.hang(STILL);
    const states = watch(warm, 60, 5).filter((one) => one.kind === 'steady');
    expect((states.at(-1)?.massG ?? 0) - 1500).toBeGreaterThanOrEqual(10);
    const weak = new ScaleStream({ kind: EXACT, dice: rollDice(4), batteryPercent: 2 });
    weak.hang(STILL);
    const sunk = watch(weak, 5, 5).at(-1);
    expect(sunk?.kind === 'steady' && sunk.massG < 1480).toBe(true);
    const heavy = new ScaleStream({ kind: EXACT, dice: rollDice(5) });
    heavy.hang({ ...STILL, trueG: 26_000 });
    const lines = Array.from({ length: 30 }, () => parseScaleLine(heavy.next())?.kind);
    expect(lines.at(-1)).toBe('overload');
  });

  it('is zeroed with the wet sling on it', () => {
    const stream = new ScaleStream({ kind: { ...EXACT, zeroSigmaG: 40 }, dice: rollDice(6) });
    stream.zero();
    stream.hang(STILL);
    expect(watch(stream, 6, 5).at(-1)).toEqual({ kind: 'steady', massG: 1500 });
  });

  it('scatters as its kind says, and its beam is honest beyond its sensitivity', () => {
    const dice = rollDice(7);
    const kind: ScaleKind = { ...SCALE_KINDS.usual, gainSigma: 0, zeroSigmaG: 0, driftGPerRootHour: 0 };
    const scale = buildScale(kind, dice);
    const shown = Array.from({ length: 4000 }, () => scale.show(1300, 0));
    const mean = shown.reduce((sum, one) => sum + one, 0) / shown.length;
    const sigma = Math.sqrt(shown.reduce((sum, one) => sum + (one - mean) ** 2, 0) / shown.length);
    expect(mean).toBeCloseTo(1300, -1);
    // Noise and the digit's own d/√12 (GUM F.2.2.1).
    expect(sigma / Math.hypot(kind.repeatabilityG, kind.divisionG / Math.sqrt(12))).toBeCloseTo(1, 1);
    const told = Array.from({ length: 200 }, () => hangOnBeam(BEAM, 1010, 1000, dice));
    expect(told.filter((one) => one === 'left').length).toBeGreaterThan(195);
    expect(hangOnBeam({ ...BEAM, sigmaG: 0 }, 1002, 1000, dice)).toBe('level');
  });
});

describe('the line protocol', () => {
  it('gives back every line as it was', () => {
    const lines = [
      { kind: 'reading', atMs: 12345, massG: 1474.5, divisionG: 0.5, batteryPercent: 87 },
      { kind: 'reading', atMs: 0, massG: -2.5, divisionG: 14.174761, batteryPercent: 3 },
      { kind: 'overload', atMs: 9 },
      { kind: 'zero' },
    ] as const;
    for (const line of lines) expect(parseScaleLine(formatScaleLine(line))).toEqual(line);
    // By hand: R, space and the rest combined by exclusive or.
    expect(formatScaleLine({ kind: 'zero' })).toBe('Z*5A\r\n');
  });

  it.each([
    '',
    'R 1 2 3',
    'R 1 2 3 4*00\r\n',
    'Z*5B\r\n',
    'R x 2 3 4*11\r\n',
    '$GPGGA,1*00\r\n',
    'R 1 1e5 5 4*5A\r\n',
  ])('takes no noise for a line: %j', (text) => {
    expect(parseScaleLine(text)).toBeNull();
  });

  it('survives a stream that breaks anywhere, and forgets what never ends', () => {
    const heard: string[] = [];
    const take = lineSplitter((line) => heard.push(line));
    const text = formatScaleLine({ kind: 'overload', atMs: 12 }) + formatScaleLine({ kind: 'zero' });
    for (const letter of text) take(letter);
    expect(heard.map((line) => parseScaleLine(line)?.kind)).toEqual(['overload', 'zero']);
    take('x'.repeat(500));
    take(`${formatScaleLine({ kind: 'zero' })}`);
    expect(parseScaleLine(heard.at(-1) ?? '')).toEqual({ kind: 'zero' });
  });
});

describe('how a scale stands', () => {
  const kind = SCALE_KINDS.usual;
  const check = (trueG: number, readG: number, atMs = 0) => ({ atMs, trueG, readG });

  it('is due until it was checked, and again half a day later', () => {
    const fresh = { kind, checks: [], repeats: [] };
    expect(judgeScale(fresh, 1200, 28, 0)).toMatchObject({ isDue: true, hoursSinceCheck: null });
    const checked = { ...fresh, checks: [check(0, 0)] };
    expect(judgeScale(checked, 1200, 28, 3_600_000)).toMatchObject({ isDue: false, hoursSinceCheck: 1 });
    expect(judgeScale(checked, 1200, 28, 13 * 3_600_000).isDue).toBe(true);
  });

  it('tells a scale that reads light from one that cannot be told from true', () => {
    const light = { kind, checks: Array.from({ length: 8 }, () => check(1200, 1160)), repeats: [] };
    expect(judgeScale(light, 1200, 28, 0)).toMatchObject({ errs: 'light' });
    const fair = { kind, checks: [check(1200, 1204)], repeats: [] };
    expect(judgeScale(fair, 1200, 28, 0).errs).toBeNull();
  });

  it('is good enough for a step when twice its doubt stays within it', () => {
    const checks = Array.from({ length: 20 }, (_, i) => check(1000 * (i % 2), 1000 * (i % 2)));
    expect(judgeScale({ kind: SCALE_KINDS.good, checks, repeats: [] }, 1200, 28.35, 0).isGoodEnough).toBe(
      true,
    );
    expect(judgeScale({ kind: SCALE_KINDS.poor, checks, repeats: [] }, 1200, 28.35, 0).isGoodEnough).toBe(
      false,
    );
  });
});
